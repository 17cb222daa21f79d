import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { App } from '../../app/App'
import { renderAt } from '../../shared/render.test-kit'

const refused = () => Response.json({ detail: 'x' }, { status: 401 })
const body = (sent: unknown) => JSON.parse(String(sent)) as unknown

async function typed(first: string, second: string) {
  await userEvent.type(await screen.findByLabelText('New password'), first)
  await userEvent.type(screen.getByLabelText('New password again'), second)
  await userEvent.click(screen.getByRole('button', { name: 'Set password' }))
}

test('the link of a message sets a password without a log-in', async () => {
  const sent: unknown[] = []
  renderAt('/password#secret-of-the-link', <App />, {
    'GET /api/session': refused,
    'POST /api/password-links/use': (asked: unknown) => {
      sent.push(body(asked))
      return {}
    },
  })
  await typed('four unrelated words', 'four unrelated birds')
  expect(sent).toEqual([])
  await userEvent.clear(screen.getByLabelText('New password again'))
  await userEvent.type(screen.getByLabelText('New password again'), 'four unrelated words{Enter}')
  expect(await screen.findByText(/Your password is set/)).toBeInTheDocument()
  expect(sent).toEqual([{ token: 'secret-of-the-link', password: 'four unrelated words' }])
})

test('a link that was used says so', async () => {
  renderAt('/password#used', <App />, {
    'GET /api/session': refused,
    'POST /api/password-links/use': () =>
      Response.json({ detail: 'This link has been used or has expired.' }, { status: 422 }),
  })
  await typed('four unrelated words', 'four unrelated words')
  expect(await screen.findByRole('alert')).toHaveTextContent('This link has been used or has expired.')
})

test('who forgot a password asks for a link, and is not told whether there is such a user', async () => {
  const calls = renderAt('/rules', <App />, { 'GET /api/session': refused, 'POST /api/password-links': {} })
  await userEvent.click(await screen.findByText('Forgot your password?'))
  await userEvent.type(screen.getByLabelText('Log-in or address'), 'ines{Enter}')
  expect(await screen.findByText(/If there is such a user/)).toBeInTheDocument()
  expect(calls).toContain('POST /api/password-links')
})
