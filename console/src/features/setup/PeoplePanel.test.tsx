import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import type { Somebody, Team } from './api'
import { PeoplePanel } from './PeoplePanel'

const user = (login: string, more: Partial<Somebody> = {}): Somebody => ({
  login,
  name: login === 'ines' ? 'Ines Holm' : 'Per Aune',
  email: `${login}@skerryline.example`,
  role: 'ANALYST',
  teams: [],
  active: true,
  invited: false,
  providers: [],
  lastLogInAt: null,
  ...more,
})
const traffic: Team = {
  name: 'Traffic reporting',
  addresses: ['traffic@skerryline.example'],
  signature: '',
  hasLogo: false,
  members: ['ines'],
}
const answers = {
  'GET /api/people?disabled=true': [
    user('ines', { teams: ['Traffic reporting'], lastLogInAt: '2026-11-24T04:40:00Z' }),
    user('per', { invited: true }),
  ],
  'GET /api/teams': [traffic],
  'GET /api/access-policy': { teamsDecide: false },
}
const body = (sent: unknown) => JSON.parse(String(sent)) as unknown

test('users are shown with role, teams and last log-in', async () => {
  renderAt('/', <PeoplePanel />, answers)
  const per = within((await screen.findByText('Per Aune', { selector: 'td' })).closest('tr') as HTMLElement)
  expect(per.getByText('invited')).toBeInTheDocument()
  expect(per.getByText('analyst')).toBeInTheDocument()
  expect(screen.getByLabelText('Ines Holm')).toBeChecked()
})

test('a user is given another role and a team, or disabled', async () => {
  const sent: unknown[] = []
  const calls = renderAt('/', <PeoplePanel />, {
    ...answers,
    'PUT /api/people/per': (asked: unknown) => {
      sent.push(body(asked))
      return user('per')
    },
    'POST /api/people/per/disable': user('per', { active: false }),
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Change Per Aune' }))
  const form = within(screen.getByRole('heading', { name: 'Change Per Aune' }).closest('form') as HTMLElement)
  await userEvent.selectOptions(form.getByLabelText('Role'), 'lead')
  expect(form.getByText(/Also activates rules/)).toBeInTheDocument()
  await userEvent.click(form.getByLabelText('Traffic reporting'))
  await userEvent.click(form.getByRole('button', { name: 'Save user' }))
  expect(await form.findByText('Saved')).toBeInTheDocument()
  expect(sent).toEqual([
    { name: 'Per Aune', email: 'per@skerryline.example', role: 'LEAD', teams: ['Traffic reporting'] },
  ])
  await userEvent.click(form.getByRole('button', { name: 'Disable' }))
  expect(calls).toContain('POST /api/people/per/disable')
})

test('without a password a new user is invited', async () => {
  const sent: unknown[] = []
  renderAt('/', <PeoplePanel />, {
    ...answers,
    'POST /api/people': (asked: unknown) => {
      sent.push(body(asked))
      return user('kari', { name: 'Kari Sund', invited: true })
    },
  })
  await userEvent.click(await screen.findByText('Add user'))
  const form = within(screen.getByText('Add user').closest('details') as HTMLElement)
  await userEvent.type(form.getByLabelText('Log-in'), 'kari')
  await userEvent.type(form.getByLabelText('Name'), 'Kari Sund')
  await userEvent.type(form.getByLabelText('Address'), 'kari@skerryline.example')
  await userEvent.click(form.getByRole('button', { name: 'Add and invite' }))
  expect(await form.findByText(/was sent to kari@skerryline.example/)).toBeInTheDocument()
  expect(sent).toEqual([
    {
      login: 'kari',
      password: null,
      name: 'Kari Sund',
      email: 'kari@skerryline.example',
      role: 'ANALYST',
      teams: [],
    },
  ])
})

test('members are put in a team, and the operator lets teams decide', async () => {
  const sent: unknown[] = []
  const keep = (answer: unknown) => (asked: unknown) => {
    sent.push(body(asked))
    return answer
  }
  renderAt('/', <PeoplePanel />, {
    ...answers,
    'PUT /api/teams/Traffic%20reporting/members': keep(['ines', 'per']),
    'PUT /api/access-policy': keep({ teamsDecide: true }),
  })
  await userEvent.click(await screen.findByLabelText('Per Aune'))
  await userEvent.click(screen.getByLabelText('Teams decide'))
  expect(await screen.findByLabelText('Teams decide')).toBeChecked()
  expect(sent).toEqual([{ members: ['ines', 'per'] }, { teamsDecide: true }])
})
