import { QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { MemoryRouter } from 'react-router'
import { vi } from 'vitest'
import { App } from '../../app/App'
import { newClient } from '../../app/client'

const ines = { id: 'p2', login: 'ines', name: 'Ines Holm', email: 'x@skerryline.example', role: 'LEAD', teams: [] }
const nobody = () => Response.json({ detail: 'You are not logged in or your session expired.' }, { status: 401 })

/** A service whose session ends when it is told to. */
function service() {
  const state = { over: false, logIns: [] as unknown[] }
  vi.stubGlobal('fetch', (path: string, { method = 'GET', body }: RequestInit) => {
    const call = `${method} ${path}`
    if (call === 'POST /api/session') {
      state.logIns.push(JSON.parse(body as string))
      state.over = false
      return Promise.resolve(Response.json(ines))
    }
    if (state.over) return Promise.resolve(nobody())
    const answers: Record<string, unknown> = {
      'GET /api/session': ines,
      'GET /api/access-policy': { teamsDecide: false },
      'GET /api/tokens': [],
      'GET /api/sessions': [],
    }
    return Promise.resolve(Response.json(answers[call] ?? []))
  })
  return state
}

function open() {
  const client = newClient()
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={['/account']}>
        <App />
      </MemoryRouter>
    </QueryClientProvider>,
  )
  return client
}

test('what was typed survives the end of a session', async () => {
  const state = service()
  open()
  await userEvent.type(await screen.findByLabelText('Name of a new token'), 'nightly pull')
  state.over = true
  await userEvent.click(screen.getByRole('button', { name: 'Create token' }))
  expect(await screen.findByRole('dialog', { name: 'Your session expired' })).toBeInTheDocument()
  expect(screen.getByLabelText('Log-in name')).toHaveValue('ines')
  await userEvent.type(screen.getByLabelText('Password', { selector: '.expired input' }), 'skerry{Enter}')
  expect(await screen.findByLabelText('Name of a new token')).toHaveValue('nightly pull')
  expect(screen.queryByRole('dialog')).not.toBeInTheDocument()
  expect(state.logIns).toEqual([{ login: 'ines', password: 'skerry' }])
})

test('it is noticed when the page looks who is logged in', async () => {
  const state = service()
  const client = open()
  await screen.findByLabelText('Name of a new token')
  state.over = true
  await client.invalidateQueries({ queryKey: ['session'] })
  expect(await screen.findByRole('dialog')).toBeInTheDocument()
  expect(screen.getByLabelText('Name of a new token')).toBeInTheDocument()
})

test('somebody who has not logged in yet sees the log-in page', async () => {
  service().over = true
  open()
  expect(await screen.findByLabelText('Log-in name')).toHaveValue('')
  expect(screen.queryByRole('dialog')).not.toBeInTheDocument()
})
