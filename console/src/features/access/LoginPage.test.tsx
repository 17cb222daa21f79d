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
