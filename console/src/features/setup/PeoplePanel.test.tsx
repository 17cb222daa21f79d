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
  service: false,
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
    'GET /api/people/per/belongings': { aloneIn: [], reachedFor: [], mailedBy: [], taken: [], drafts: [], tokens: 0 },
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
  expect(await screen.findByText(/no team is left alone/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Disable user' }))
  expect(calls).not.toContain('POST /api/people/per/disable')
  expect(screen.getByText(/Disable Per Aune\? Their sessions and tokens end/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Disable user' }))
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
      service: false,
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

test('what depends on a user is listed and handed over', async () => {
  const sent: unknown[] = []
  renderAt('/', <PeoplePanel />, {
    ...answers,
    'GET /api/people/per/belongings': {
      aloneIn: ['Crew'],
      reachedFor: ['Crew'],
      mailedBy: [{ kind: 'rule', name: 'late-sailings', title: 'Late sailings', retired: false }],
      taken: [{ name: 'late-sailings', count: 2 }],
      drafts: [],
      tokens: 1,
    },
    'POST /api/people/per/hand-over': (asked: unknown) => {
      sent.push(body(asked))
      return { definitions: [], teams: [], findings: 2 }
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Change Per Aune' }))
  expect(await screen.findByText('Nobody else is in the team Crew.')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'Late sailings' })).toHaveAttribute('href', '/rules/late-sailings')
  expect(screen.getByText(/2 findings taken of/)).toBeInTheDocument()
  expect(screen.getByText('1 token ends when the user is disabled.')).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Hand over' })).toBeDisabled()
  await userEvent.selectOptions(screen.getByLabelText('Mail and findings go to'), 'Ines Holm')
  await userEvent.type(screen.getByLabelText('Reason'), 'leaves us')
  await userEvent.click(screen.getByRole('button', { name: 'Hand over' }))
  expect(sent).toEqual([{ to: 'ines', reason: 'leaves us' }])
})

test('a service account needs no address, and gets a token that is shown once', async () => {
  const sent: unknown[] = []
  const keep = (answer: unknown) => (asked: unknown) => {
    sent.push(body(asked))
    return answer
  }
  const nightly = user('nightly', { name: 'Nightly export', email: '', service: true })
  renderAt('/', <PeoplePanel />, {
    ...answers,
    'GET /api/people?disabled=true': [nightly],
    'GET /api/people/nightly/belongings': {
      aloneIn: [],
      reachedFor: [],
      mailedBy: [],
      taken: [],
      drafts: [],
      tokens: 0,
    },
    'POST /api/people': keep(nightly),
    'POST /api/tokens/of/nightly': keep({ token: 'odd_secret', expiresAt: '2027-02-28T04:40:00Z' }),
  })
  await userEvent.click(await screen.findByText('Add user'))
  const form = within(screen.getByText('Add user').closest('details') as HTMLElement)
  await userEvent.click(form.getByLabelText(/Service account: a program/))
  expect(form.queryByLabelText(/password/i)).toBeNull()
  await userEvent.type(form.getByLabelText('Log-in'), 'nightly')
  await userEvent.type(form.getByLabelText('Name'), 'Nightly export')
  await userEvent.click(form.getByRole('button', { name: 'Add' }))
  expect(await form.findByText(/to create a token/)).toBeInTheDocument()
  expect(sent[0]).toMatchObject({ login: 'nightly', service: true, email: '', password: null })
  await userEvent.click(screen.getByRole('button', { name: 'Change Nightly export' }))
  expect(screen.queryByRole('button', { name: /password/ })).toBeNull()
  await userEvent.type(screen.getByLabelText('Name of a new token'), 'export')
  await userEvent.click(screen.getByRole('button', { name: 'Create token' }))
  expect(await screen.findByText('odd_secret')).toBeInTheDocument()
})
