import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { App } from '../../app/App'
import { renderAt } from '../../shared/render.test-kit'

const refused = (detail: string) => () => Response.json({ detail }, { status: 401 })
const ines = { login: 'ines', name: 'Ines Holm', email: 'ines.holm@skerryline.example', role: 'ANALYST' }

async function logIn() {
  await userEvent.type(await screen.findByLabelText('Log-in name'), 'ines')
  await userEvent.type(screen.getByLabelText('Password'), 'skerry{Enter}')
}

test('a wrong password is told in words and what was typed stays', async () => {
  renderAt('/rules', <App />, {
    'GET /api/session': refused('x'),
    'POST /api/session': refused('The log-in name or the password is wrong.'),
  })
  await logIn()
  expect(await screen.findByRole('alert')).toHaveTextContent('The log-in name or the password is wrong.')
  expect(screen.getByLabelText('Log-in name')).toHaveValue('ines')
})

test('after the log-in the page that was asked for is shown', async () => {
  renderAt('/rules', <App />, { 'GET /api/session': refused('x'), 'POST /api/session': ines, 'GET /api/rules': [] })
  await logIn()
  expect(await screen.findByRole('heading', { name: 'Rules' })).toBeInTheDocument()
  expect(await screen.findByText(/No rules yet/)).toBeInTheDocument()
})

const skerry = { name: 'skerry', title: 'Skerry directory' }

test('identity providers come first and lead back to the page that was asked for', async () => {
  renderAt('/rules/late-sailings?tab=mail', <App />, {
    'GET /api/session': refused('x'),
    'GET /api/log-in-options': { passwords: true, providers: [skerry] },
  })
  expect(await screen.findByRole('link', { name: 'Log in through Skerry directory' })).toHaveAttribute(
    'href',
    '/sign-on/skerry?returnTo=%2Frules%2Flate-sailings%3Ftab%3Dmail',
  )
  expect(screen.getByText('Log in with a password')).toBeInTheDocument()
  expect(screen.getByText('Forgot your password?')).toBeInTheDocument()
})

test('where passwords are off only the emergency log-in has one', async () => {
  renderAt('/login', <App />, {
    'GET /api/session': refused('x'),
    'GET /api/log-in-options': { passwords: false, providers: [skerry] },
  })
  expect(await screen.findByText('Emergency log-in with a password')).toBeInTheDocument()
  expect(screen.queryByText('Forgot your password?')).toBeNull()
})

test.each([
  ['no_group', /None of your groups/],
  ['expired', /took too long/],
  ['disabled', /Your user is disabled/],
])('says why a log-in through a provider was refused: %s', async (why, words) => {
  renderAt(`/login?refused=${why}`, <App />, { 'GET /api/session': refused('x') })
  expect(await screen.findByRole('alert')).toHaveTextContent(words)
})

test('shows nothing that an address makes up', async () => {
  renderAt('/login?refused=<b>call%20this%20number</b>', <App />, { 'GET /api/session': refused('x') })
  expect(await screen.findByLabelText('Log-in name')).toBeInTheDocument()
  expect(screen.queryByRole('alert')).toBeNull()
})
