import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { renderAt } from '../../shared/render.test-kit'
import { LanguagesPanel } from './LanguagesPanel'
import { SetupPage } from './SetupPage'

const norway = {
  name: 'norway',
  title: 'Working days in Norway',
  week: ['MONDAY', 'TUESDAY'],
  knownUntil: '2099-12-26',
  extra_working_days: [],
  periods: [],
  holidays: [
    { date: '2026-01-01', name: 'New Year' },
    { date: '2099-05-17', name: 'Constitution Day' },
  ],
  rules: ['safety-gear'],
}
const week = {
  name: 'week',
  title: 'The week',
  rules: ['late-sailings'],
  to: ['lead@skerryline.example'],
  atOnce: 'critical',
  when: 'every week on Monday at 08:00',
  zone: 'Europe/Oslo',
  paused: false,
  nextSlot: '2026-11-30T07:00:00Z',
  lastSlot: null,
}
const answers = {
  'GET /api/status': {
    running: 1,
    due: 2,
    highestLatenessSeconds: 70,
    awaitingApproval: 0,
    queuedMessages: 3,
    problems: ['A rule has been due for 70 s.'],
  },
  'GET /api/calendars': [norway],
  'GET /api/events': ['bunkering-loaded'],
  'GET /api/round-ups': [week],
  'GET /api/languages': [],
  'GET /api/sources': [
    {
      name: 'ferry',
      jdbcUrl: 'jdbc:postgresql://127.0.0.1/ferry',
      username: 'ferry_reader',
      maxRows: 1000,
      timeLimitSeconds: 60,
      maxConnections: 4,
      closed: '22:00-04:30 Europe/Oslo',
      spreadSeconds: 30,
      teams: ['Traffic reporting'],
    },
  ],
  'GET /api/query-runs': [],
  'GET /api/teams': [{ name: 'Traffic reporting', addresses: ['ines.holm@skerryline.example'], members: [] }],
}
/** The page with the part that its address names. */
const routes = (
  <Routes>
    <Route path="/setup" element={<SetupPage />} />
    <Route path="/setup/:part" element={<SetupPage />} />
  </Routes>
)
const dates = /^GET \/api\/dates/

test('says how the service does and what stands around the rules', async () => {
  renderAt('/setup', routes, answers)
  expect(await screen.findByText('A rule has been due for 70 s.')).toBeInTheDocument()
  expect(screen.getByText(/1 check running, 2 due, longest wait 70 s/)).toBeInTheDocument()
  expect(screen.getByText(/closed 22:00-04:30 Europe\/Oslo; checks start up to 30 s after/)).toBeInTheDocument()
  expect(screen.getByText('For Traffic reporting')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Calendars and schedules' }))
  expect(await screen.findByText('Mon, Tue; 2 holidays, known until 2099-12-26')).toBeInTheDocument()
  expect(screen.getByText('Next: 2099-05-17 Constitution Day')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'safety-gear' })).toHaveAttribute('href', '/rules/safety-gear')
  expect(screen.getByRole('link', { name: 'Working days in Norway' })).toHaveAttribute('href', '/calendars/norway')
  await userEvent.click(screen.getByRole('link', { name: 'Users and teams' }))
  expect(await screen.findByText('ines.holm@skerryline.example')).toBeInTheDocument()
})

test('layouts are listed with the rules that use them', async () => {
  renderAt('/setup/mail', routes, {
    ...answers,
    'GET /api/definitions': [
      { kind: 'layout', name: 'by-terminal', title: 'By terminal', revision: 2, rules: ['late-sailings'] },
      { kind: 'query', name: 'sailings', title: 'Sailings', revision: 1, rules: [] },
    ],
  })
  expect(await screen.findByRole('link', { name: 'By terminal' })).toHaveAttribute('href', '/layouts/by-terminal')
  const layouts = screen.getByRole('heading', { name: 'Layouts' }).closest('section') as HTMLElement
  expect(within(layouts).getByRole('link', { name: 'late-sailings' })).toHaveAttribute('href', '/rules/late-sailings')
  expect(within(layouts).queryByText('Sailings')).not.toBeInTheDocument()
})

test('an installation with nothing in it says what to do first', async () => {
  renderAt('/setup', routes, {
    'GET /api/status': {
      running: 0,
      due: 0,
      highestLatenessSeconds: 0,
      awaitingApproval: 0,
      queuedMessages: 0,
      problems: [],
    },
    'GET /api/calendars': [],
    'GET /api/round-ups': [],
    'GET /api/languages': [],
    'GET /api/events': [],
    'GET /api/sources': [],
    'GET /api/teams': [],
    'GET /api/query-runs': [],
    'GET /api/definitions': [],
  })
  expect(await screen.findByText('No problems.')).toBeInTheDocument()
  expect(screen.getByText(/No sources yet/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Calendars and schedules' }))
  expect(await screen.findByText(/No calendars yet/)).toBeInTheDocument()
  expect(screen.getByText(/No rule uses external events/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Mail and round-ups' }))
  expect(await screen.findByText(/No round-ups yet/)).toBeInTheDocument()
  expect(screen.getByText(/No shared layouts yet/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Users and teams' }))
  expect(await screen.findByText(/operators get the failure notices/)).toBeInTheDocument()
})

test('shows the dates of a recurrence on a calendar, or what is wrong with it', async () => {
  const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
  const good = `GET /api/dates?recur=FREQ%3DMONTHLY&zone=${zone}&count=10&calendar=norway&onHoliday=skip`
  const bad = `GET /api/dates?recur=FREQ%3DSOMETIMES&zone=${zone}&count=10&calendar=norway&onHoliday=skip`
  const calls = renderAt('/setup/schedules', routes, {
    ...answers,
    [good]: {
      schedule: 'every month',
      zone: 'Europe/Oslo',
      slots: [{ slot: '2027-05-18T03:40:00Z', local: '2027-05-18T05:40+02:00' }],
      ends: true,
      warnings: [],
    },
    [bad]: Response.json({ detail: 'recur: "SOMETIMES" is no frequency.' }, { status: 422 }),
  })
  const recur = screen.getByLabelText('Recurrence (RFC 5545)')
  await userEvent.clear(recur)
  await userEvent.type(recur, 'FREQ=MONTHLY')
  await screen.findByRole('option', { name: 'Working days in Norway' })
  await userEvent.selectOptions(screen.getByLabelText('Calendar'), 'norway')
  await userEvent.selectOptions(screen.getByLabelText('On holidays'), 'skip')
  await userEvent.click(screen.getByRole('button', { name: 'Show next slots' }))
  expect(await screen.findByText('Every month (Europe/Oslo).')).toBeInTheDocument()
  expect(screen.getByText(/18.*05:40\+02:00/)).toBeInTheDocument()
  expect(screen.getByText('The schedule ends here.')).toBeInTheDocument()
  await userEvent.clear(recur)
  await userEvent.type(recur, 'FREQ=SOMETIMES')
  await userEvent.click(screen.getByRole('button', { name: 'Show next slots' }))
  expect(await screen.findByText('recur: "SOMETIMES" is no frequency.')).toBeInTheDocument()
  expect(calls.filter((call) => dates.test(call))).toHaveLength(2)
})

test('reports an event, tests a source and gives the feed an address', async () => {
  renderAt('/setup/schedules', routes, {
    ...answers,
    'POST /api/events/bunkering-loaded': { rules: ['fuel-per-mile'] },
    'POST /api/sources/ferry/test': {
      reached: false,
      detail: 'The source does not answer: connection refused',
      warnings: [],
    },
    'POST /api/feed': { address: 'http://127.0.0.1:8480/feeds/abc/schedules.ics' },
    'DELETE /api/feed': {},
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Trigger bunkering-loaded' }))
  expect(await screen.findByText('Started a check of fuel-per-mile.')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Service and sources' }))
  await userEvent.click(await screen.findByRole('button', { name: 'Test connection to ferry' }))
  expect(await screen.findByText(/connection refused/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('link', { name: 'Calendars and schedules' }))
  await userEvent.click(await screen.findByRole('button', { name: 'Create new address' }))
  expect(await screen.findByText(/schedules\.ics/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Revoke address' }))
  expect(await screen.findByText('The address is revoked.')).toBeInTheDocument()
  expect(screen.queryByText(/schedules\.ics/)).not.toBeInTheDocument()
})

test('a round-up says what it would say now, is paused and is sent', async () => {
  const calls = renderAt('/setup/mail', routes, {
    ...answers,
    'GET /api/round-ups/week/preview': { subject: '2 warnings: The week', text: 'The week' },
    'POST /api/round-ups/week/pause': {},
    'POST /api/round-ups/week/send': { message: 'm1' },
  })
  expect(await screen.findByText(/every week on Monday at 08:00; critical sent immediately/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Preview' }))
  expect(await screen.findByText('2 warnings: The week')).toBeInTheDocument()
  expect(screen.getByTitle('Preview of The week')).toHaveAttribute('src', '/api/round-ups/week/preview.html')
  await userEvent.click(screen.getByRole('button', { name: 'Pause' }))
  await userEvent.click(screen.getByRole('button', { name: 'Send now' }))
  expect(await screen.findByRole('link', { name: 'in the outbox' })).toHaveAttribute('href', '/outbox/m1')
  expect(calls).toContain('POST /api/round-ups/week/pause')
})

test('a reader gets a language of their own, and loses it again', async () => {
  const jens = {
    address: 'jens.brandt@skerryline.example',
    language: 'DE',
    by: 'Ines Holm',
    at: '2026-11-24T04:40:00Z',
  }
  const calls = renderAt('/setup', <LanguagesPanel />, {
    'GET /api/languages': [jens],
    'PUT /api/languages/jens.brandt%40skerryline.example': [],
    'PUT /api/languages/siv.tangen%40skerryline.example': [jens],
  })
  expect(await screen.findByText('Deutsch', { selector: 'td' })).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: /Use the rule's language: jens/ }))
  await userEvent.type(screen.getByLabelText('Address'), 'siv.tangen@skerryline.example')
  await userEvent.selectOptions(screen.getByLabelText('Language'), 'nb')
  await userEvent.click(screen.getByRole('button', { name: 'Set' }))
  expect(calls.filter((call) => call.startsWith('PUT'))).toEqual([
    'PUT /api/languages/jens.brandt%40skerryline.example',
    'PUT /api/languages/siv.tangen%40skerryline.example',
  ])
})

test('shows the queries that people run by hand, and stops one', async () => {
  const run = {
    id: 'r1',
    login: 'ines',
    source: 'ferry',
    query: 'sailings-lately',
    since: '2026-11-28T04:40:00Z',
    rows: 12,
  }
  const calls = renderAt('/setup', routes, {
    ...answers,
    'GET /api/query-runs': [run],
    'DELETE /api/query-runs/r1': {},
  })
  expect(await screen.findByText('sailings-lately on ferry, by ines, 12 rows so far')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Stop sailings-lately by ines' }))
  expect(calls).toContain('DELETE /api/query-runs/r1')
})

test('a source that moves needs its password again, and the save says what its role may do', async () => {
  renderAt('/setup', routes, {
    ...answers,
    'GET /api/session': { login: 'operator', name: 'Operator', email: 'operator@skerryline.example', role: 'OPERATOR' },
    'PUT /api/sources/ferry': {
      source: answers['GET /api/sources'][0],
      test: {
        reached: true,
        detail: 'The source answers.',
        warnings: ['The role is a superuser. Use a role that may only read.'],
      },
    },
  })
  await userEvent.click(await screen.findByText('Change ferry'))
  const fields = within(screen.getByText('Change ferry').closest('details') as HTMLElement)
  const password = fields.getByLabelText('Password')
  expect(password).not.toBeRequired()
  await userEvent.type(fields.getByLabelText('JDBC address'), '2')
  expect(password).toBeRequired()
  await userEvent.type(password, 'secret-of-the-tests')
  await userEvent.click(fields.getByRole('button', { name: 'Save source' }))
  expect(await screen.findByText(/The role is a superuser/)).toBeInTheDocument()
})
