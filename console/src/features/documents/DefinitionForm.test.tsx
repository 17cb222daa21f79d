import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { lateSailings, operator, renderAt } from '../../shared/render.test-kit'
import { CalendarPage } from '../calendars/CalendarPage'
import { LayoutPage } from '../layouts/LayoutPage'
import { RoundUpPage } from '../roundups/RoundUpPage'
import { ThresholdForm } from '../thresholds/ThresholdForm'

const routes = (
  <Routes>
    <Route path="/calendars/new" element={<CalendarPage />} />
    <Route path="/calendars/:name" element={<CalendarPage />} />
    <Route path="/round-ups/new" element={<RoundUpPage />} />
    <Route path="/layouts/:name" element={<LayoutPage />} />
    <Route path="/thresholds/new" element={<ThresholdForm />} />
    <Route path="/thresholds/:name" element={<p>The values of a threshold</p>} />
    <Route path="/setup/mail" element={<p>The list of round-ups</p>} />
  </Routes>
)

const revisions = {
  next: null,
  revisions: [{ revision: 3, reason: '', author: 'Ines Holm', at: '2026-11-24T04:40:00Z' }],
}

/** Answers to a save, and what was sent. */
function saving(kind: string, name: string, revision = 0) {
  const sent: unknown[] = []
  const path = `PUT /api/definitions?reason=${revision > 0 ? `&revision=${revision}` : ''}`
  return {
    sent,
    answers: {
      [path]: (body: string) => {
        sent.push(JSON.parse(body))
        return { kind, name, revision: revision + 1, changed: true, warnings: [] }
      },
    },
  }
}

const terminals = { kind: 'calendar', name: 'terminals', owner: 'Terminal operations' }

test.each([
  ['READER', [], 'Your role does not change definitions.'],
  ['AUDITOR', [], 'Your role does not change definitions.'],
  ['ANALYST', ['Fleet reporting'], 'Members of Terminal operations change this.'],
] as const)('a %s in %s is told who saves what a team owns', async (role, teams, told) => {
  const answers = {
    'GET /api/definitions/calendar/terminals.json': terminals,
    'GET /api/definitions/calendar/terminals/revisions': revisions,
    'GET /api/access-policy': { teamsDecide: true },
  }
  renderAt('/calendars/terminals', routes, answers, { ...operator, role, teams: [...teams] })
  expect(await screen.findByText(told)).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Save' })).not.toBeInTheDocument()
})

const save = () => userEvent.click(screen.getByText('Save'))

afterEach(() => localStorage.clear())

test('a new threshold is named after its title, and leads to its values', async () => {
  const { sent, answers } = saving('THRESHOLD', 'hoyeste-forsinkelse')
  renderAt('/thresholds/new', routes, answers)
  expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('Title'), 'Høyeste forsinkelse')
  await userEvent.type(screen.getByLabelText('Unit'), 'min')
  await userEvent.type(screen.getByLabelText('Key columns'), 'route, terminal')
  await save()
  expect(await screen.findByText('The values of a threshold')).toBeInTheDocument()
  expect(sent).toEqual([
    {
      kind: 'threshold',
      name: 'hoyeste-forsinkelse',
      title: 'Høyeste forsinkelse',
      unit: 'min',
      key: ['route', 'terminal'],
    },
  ])
})

test('what is refused is said with its field, and what was typed stays', async () => {
  renderAt('/thresholds/new', routes, {
    'PUT /api/definitions?reason=': Response.json(
      { detail: 'refused', problems: [{ field: 'name', message: 'is taken', weight: 'ERROR' }] },
      { status: 422 },
    ),
  })
  await userEvent.type(screen.getByLabelText('Title'), 'Late')
  await save()
  expect(await screen.findByText('is taken', { exact: false })).toBeInTheDocument()
  expect(screen.getByLabelText('Title')).toHaveValue('Late')
})

describe('a calendar', () => {
  const norway = {
    kind: 'calendar',
    id: 'c1',
    name: 'norway',
    title: 'Norway',
    holidays: { '2026-05-17': 'Constitution Day' },
  }
  const saved = {
    'GET /api/definitions/calendar/norway.json': norway,
    'GET /api/definitions/calendar/norway/revisions': revisions,
  }

  test('a day of the year becomes a holiday, and another a working day', async () => {
    const { sent, answers } = saving('CALENDAR', 'norway', 3)
    vi.setSystemTime(new Date('2026-11-24T12:00:00Z'))
    renderAt('/calendars/norway', routes, { ...saved, ...answers })
    await userEvent.click(await screen.findByLabelText(/24 December|December 24/))
    const day = within(screen.getByRole('group', { name: 'The selected day' }))
    await userEvent.type(day.getByLabelText('Name of the holiday'), 'Christmas Eve{Enter}')
    expect(day.getByText(/: Christmas Eve/)).toBeInTheDocument()
    await userEvent.click(screen.getByLabelText(/(16 May|May 16).*Day off/))
    await userEvent.click(screen.getByText('Make it a working day'))
    await userEvent.click(screen.getByLabelText('Friday'))
    await save()
    expect(await screen.findByText(/revision 3/)).toBeInTheDocument()
    expect(sent).toEqual([
      {
        ...norway,
        holidays: { '2026-05-17': 'Constitution Day', '2026-12-24': 'Christmas Eve' },
        extra_working_days: ['2026-05-16'],
        week: ['monday', 'tuesday', 'wednesday', 'thursday'],
      },
    ])
    vi.useRealTimers()
  })

  test('holidays come from a file into the form, and are not saved with it', async () => {
    const calls = renderAt('/calendars/norway', routes, {
      ...saved,
      'POST /api/calendars/holidays': [{ date: '2027-01-01', name: 'New Year' }],
    })
    const file = new File([], 'days.ics', { type: 'text/calendar' })
    // The tests' browser cannot read files.
    Object.assign(file, { text: () => Promise.resolve('BEGIN:VCALENDAR') })
    await userEvent.upload(await screen.findByLabelText('From an iCalendar file'), file)
    expect(await screen.findByText(/1 holiday was read/)).toBeInTheDocument()
    expect(screen.getByText('Holidays (2)')).toBeInTheDocument()
    expect(calls.some((call) => call.startsWith('PUT'))).toBe(false)
  })
})

test('a round-up has its rules in an order, its recipients and its times', async () => {
  const { sent, answers } = saving('ROUND_UP', 'the-week')
  renderAt('/round-ups/new', routes, {
    ...answers,
    'GET /api/rules': [lateSailings(), lateSailings({ name: 'bunkering', title: 'Bunkering' })],
    'GET /api/people': [],
    'GET /api/teams': [],
    'GET /api/calendars': [],
  })
  await userEvent.type(screen.getByLabelText('Title'), 'The week')
  await screen.findByRole('option', { name: 'Bunkering' })
  const add = screen.getByRole('combobox', { name: 'Add a rule …' })
  await userEvent.selectOptions(add, 'late-sailings')
  await userEvent.selectOptions(add, 'bunkering')
  await userEvent.click(screen.getByRole('button', { name: 'Move bunkering forward' }))
  await userEvent.type(screen.getByLabelText('To'), 'lead@skerryline.example{Enter}')
  await userEvent.selectOptions(screen.getByLabelText('Sent at once'), 'critical')
  await save()
  expect(await screen.findByText('The list of round-ups')).toBeInTheDocument()
  expect(sent).toEqual([
    expect.objectContaining({
      kind: 'round-up',
      name: 'the-week',
      rules: ['bunkering', 'late-sailings'],
      to: ['lead@skerryline.example'],
      send_immediately: 'critical',
    }),
  ])
})

test('a layout is edited with the columns of a rule, and its preview is that rule in this layout', async () => {
  const asked: unknown[] = []
  const { sent, answers } = saving('LAYOUT', 'short', 3)
  renderAt('/layouts/short', routes, {
    ...answers,
    'GET /api/definitions/layout/short.json': { kind: 'layout', name: 'short', columns: ['sailing'], sheet: 'Late' },
    'GET /api/definitions/layout/short/revisions': revisions,
    'GET /api/definitions': [{ kind: 'layout', name: 'short', title: 'Short', revision: 3, rules: ['late-sailings'] }],
    'GET /api/rules': [lateSailings({ name: 'another' }), lateSailings()],
    'GET /api/definitions/rule/late-sailings.json': {
      kind: 'rule',
      name: 'late-sailings',
      query: 'sailings-lately',
      delivery: { to: ['ines.holm@skerryline.example'], columns: ['reason'] },
    },
    'GET /api/definitions/rule/late-sailings/revisions': revisions,
    'GET /api/queries/sailings-lately': {
      columns: [
        { name: 'sailing', label: 'Sailing', type: 'text' },
        { name: 'delay_min', label: 'Late by', type: 'number' },
      ],
    },
    'POST /api/mail-preview': (body: string) => {
      asked.push((JSON.parse(body) as { delivery: unknown }).delivery)
      return { messages: [], fields: [], columns: [], sample: null }
    },
  })
  await screen.findAllByRole('option', { name: 'Late by' })
  await userEvent.selectOptions(screen.getByLabelText('Add a column'), 'delay_min')
  await userEvent.selectOptions(screen.getByLabelText('Rows in the message'), 'list')
  await userEvent.click(screen.getByRole('button', { name: 'Preview message' }))
  const layout = { columns: ['sailing', 'delay_min'], sheet: 'Late', rows_as: 'list' }
  expect(asked).toEqual([{ to: ['ines.holm@skerryline.example'], layout }])
  await save()
  expect(sent).toEqual([{ kind: 'layout', name: 'short', ...layout }])
})
