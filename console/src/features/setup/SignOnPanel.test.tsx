import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { operator as somebody, renderAt } from '../../shared/render.test-kit'
import type { Provider } from './providers'
import { SignOnPanel } from './SignOnPanel'

const skerry: Provider = {
  name: 'skerry',
  title: 'Skerry directory',
  issuer: 'https://login.skerryline.example',
  clientId: 'odd-sentry',
  hasSecret: true,
  scopes: ['openid', 'profile', 'email'],
  loginClaim: 'preferred_username',
  groupClaim: 'groups',
  knownBy: 'ADDRESS',
  addsPeople: true,
  otherRole: null,
  addressesVerified: false,
  active: true,
  groups: [{ group: 'reporting', role: 'LEAD', team: 'Traffic reporting' }],
  returnAddress: 'https://odd.skerryline.example/sign-on/skerry/return',
}
const operator = {
  login: 'operator',
  name: 'Operator',
  email: 'operator@skerryline.example',
  role: 'OPERATOR',
  teams: [],
  active: true,
  invited: false,
  providers: [],
  lastLogInAt: null,
}
const body = (sent: unknown) => JSON.parse(String(sent)) as unknown
const answers = {
  'GET /api/identity-providers': [skerry],
  'GET /api/teams': [
    { name: 'Traffic reporting', addresses: ['t@skerryline.example'], signature: '', hasLogo: false, members: [] },
  ],
  'GET /api/people?disabled=true': [operator],
  'GET /api/access-policy': { teamsDecide: true, passwords: true, emergencyOperator: null },
}
const asOperator = (more = {}) => renderAt('/', <SignOnPanel />, { ...answers, ...more })

test('says in a line what the groups of a provider mean', async () => {
  asOperator()
  expect(await screen.findByText('reporting: lead, Traffic reporting; others: no access')).toBeInTheDocument()
  expect(screen.getByText(/sign-on\/skerry\/return/)).toBeInTheDocument()
})

test('a change keeps the secret and sends the groups in their order', async () => {
  const sent: unknown[] = []
  asOperator({
    'PUT /api/identity-providers/skerry': (put: unknown) => {
      sent.push(body(put))
      return skerry
    },
  })
  const summary = await screen.findByText('Change Skerry directory')
  await userEvent.click(summary)
  const form = within(summary.closest('details') as HTMLElement)
  await userEvent.click(form.getByRole('button', { name: 'Add group' }))
  await userEvent.type(form.getAllByLabelText('Group')[1] as HTMLElement, 'crew')
  await userEvent.selectOptions(form.getByLabelText('Role of all others'), 'reader')
  await userEvent.click(form.getByRole('button', { name: 'Save identity provider' }))
  expect(await screen.findByText(/Saved. The provider must know this redirect URI/)).toBeInTheDocument()
  expect(sent).toHaveLength(1)
  expect(sent[0]).toMatchObject({
    otherRole: 'READER',
    scopes: ['profile', 'email'],
    groups: [
      { group: 'reporting', role: 'LEAD', team: 'Traffic reporting' },
      { group: 'crew', role: 'READER', team: null },
    ],
  })
  expect(sent[0]).not.toHaveProperty('clientSecret')
})

test('a test shows what the provider lacks', async () => {
  asOperator({
    'POST /api/identity-providers/skerry/test': {
      authorizationEndpoint: 'x',
      keys: 2,
      logsOut: false,
      warnings: ['It does not list the scope "email".'],
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Test' }))
  expect(await screen.findByText('It answers. Signing keys: 2. It offers no log-out.')).toBeInTheDocument()
  expect(screen.getByText('It does not list the scope "email".')).toBeInTheDocument()
})

test('passwords are switched off as the service allows it, and its refusal is shown', async () => {
  asOperator({
    'PUT /api/access-policy': () =>
      Response.json({ detail: 'Name an operator who can still log in.' }, { status: 422 }),
  })
  await userEvent.click(await screen.findByLabelText('Users can log in with a password'))
  expect(await screen.findByText('Name an operator who can still log in.')).toBeInTheDocument()
})

test('an auditor sees all and changes nothing', async () => {
  renderAt('/', <SignOnPanel />, answers, { ...somebody, role: 'AUDITOR' })
  expect(await screen.findByText('Skerry directory')).toBeInTheDocument()
  expect(screen.queryByText('Add identity provider')).toBeNull()
  expect(screen.queryByRole('button', { name: 'Test' })).toBeNull()
  expect(await screen.findByLabelText('Users can log in with a password')).toBeDisabled()
})
