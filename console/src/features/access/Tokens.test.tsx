import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { operator, renderAt } from '../../shared/render.test-kit'
import { Sessions } from './Sessions'
import { Tokens } from './Tokens'
import type { Token } from './api'

const nightly: Token = {
  id: 't1',
  login: 'ines',
  name: 'nightly pull',
  scope: 'CHECK',
  createdAt: '2026-11-24T04:40:00Z',
  expiresAt: '2027-02-24T04:40:00Z',
  lastUsedAt: null,
}

test('a token is made for a use and an end, and shown this once', async () => {
  const sent: unknown[] = []
  renderAt('/', <Tokens />, {
    'GET /api/tokens': [],
    'POST /api/tokens/named': (body: string) => {
      sent.push(JSON.parse(body))
      return { token: 'odd_secret', expiresAt: '2027-02-24T04:40:00Z' }
    },
  })
  expect(await screen.findByText('No tokens.')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Create token' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('Name of a new token'), ' nightly pull ')
  await userEvent.selectOptions(screen.getByLabelText('Use'), 'read, run and check')
  await userEvent.clear(screen.getByLabelText('Days'))
  await userEvent.type(screen.getByLabelText('Days'), '90')
  await userEvent.click(screen.getByRole('button', { name: 'Create token' }))
  expect(await screen.findByText('odd_secret')).toBeInTheDocument()
  expect(sent).toEqual([{ name: 'nightly pull', scope: 'CHECK', days: 90 }])
})

test('tokens are listed with their use and last use, and revoked', async () => {
  const calls = renderAt('/', <Tokens />, {
    'GET /api/tokens': [nightly, { ...nightly, id: 't2', name: 'old', scope: 'OPERATE' }],
    'DELETE /api/tokens/t1': {},
  })
  expect(await screen.findAllByText('never')).toHaveLength(2)
  expect(screen.getByRole('cell', { name: 'all that I may do' })).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Revoke nightly pull' }))
  expect(calls).toContain('DELETE /api/tokens/t1')
})

const here = {
  id: 's1',
  beganAt: '2026-11-24T04:40:00Z',
  usedAt: '2026-11-24T05:40:00Z',
  endsAt: '2026-11-24T17:40:00Z',
  current: true,
}

test('one session is ended, or all others; this one is not offered', async () => {
  const calls = renderAt('/', <Sessions />, {
    'GET /api/sessions': [here, { ...here, id: 's2', current: false }],
    'DELETE /api/sessions/s2': {},
    'DELETE /api/sessions': { sessions: 1 },
  })
  expect(await screen.findByText('this session')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'End' }))
  expect(calls).toContain('DELETE /api/sessions/s2')
  await userEvent.click(screen.getByRole('button', { name: 'End all others' }))
  expect(calls).toContain('DELETE /api/sessions')
})

test('who is logged in once has nothing to end', async () => {
  renderAt('/', <Sessions />, { 'GET /api/sessions': [here] })
  expect(await screen.findByText('this session')).toBeInTheDocument()
  expect(screen.queryByRole('button')).not.toBeInTheDocument()
})

test('operators see the tokens of all users', async () => {
  const calls = renderAt('/', <Tokens />, {
    'GET /api/tokens': [nightly],
    'GET /api/tokens?everybody=true': [{ ...nightly, login: 'per' }],
    'DELETE /api/tokens/t1': {},
  })
  await userEvent.click(await screen.findByLabelText('Tokens of all users'))
  expect(await screen.findByRole('cell', { name: 'per' })).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Revoke nightly pull' }))
  expect(calls).toContain('DELETE /api/tokens/t1')
})

test('others are not offered them', async () => {
  renderAt('/', <Tokens />, { 'GET /api/tokens': [nightly] }, { ...operator, role: 'LEAD' })
  expect(await screen.findByText('nightly pull')).toBeInTheDocument()
  expect(screen.queryByLabelText('Tokens of all users')).not.toBeInTheDocument()
})
