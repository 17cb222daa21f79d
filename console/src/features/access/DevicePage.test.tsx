import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { App } from '../../app/App'
import { renderAt } from '../../shared/render.test-kit'

const ines = { login: 'ines', name: 'Ines Holm', email: 'ines@skerryline.example', role: 'ANALYST', teams: [] }
const asking = { userCode: 'BCDF-GHJK', name: 'odd on bridge-7', address: '127.0.0.1', begunAt: '2026-12-01T04:40:00Z' }

test('a program is shown before it is allowed', async () => {
  const sent: unknown[] = []
  renderAt('/device?code=BCDF-GHJK', <App />, {
    'GET /api/session': ines,
    'GET /api/device-log-ins/BCDF-GHJK': asking,
    'POST /api/device-log-ins/BCDF-GHJK/answer': (body: unknown) => {
      sent.push(JSON.parse(String(body)))
      return null
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Continue' }))
  expect(await screen.findByText('odd on bridge-7')).toBeInTheDocument()
  expect(screen.getByText(/Allow it only if you started it yourself/)).toBeInTheDocument()
  expect(sent).toEqual([])
  await userEvent.click(screen.getByRole('button', { name: 'Allow' }))
  expect(await screen.findByText(/you can close this page/)).toBeInTheDocument()
  expect(sent).toEqual([{ allow: true }])
})

test('a code that nothing waits for is said to be so', async () => {
  renderAt('/device', <App />, {
    'GET /api/session': ines,
    'GET /api/device-log-ins/xxxx': () => Response.json({ detail: 'No program waits for this code.' }, { status: 404 }),
  })
  await userEvent.type(await screen.findByLabelText('Code that the program shows'), 'xxxx{Enter}')
  expect(await screen.findByText('No program waits for this code.')).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Allow' })).toBeNull()
})
