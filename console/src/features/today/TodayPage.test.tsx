import { screen, within } from '@testing-library/react'
import { lateSailings, renderAt } from '../../shared/render.test-kit'
import { dayAround } from './api'
import { TodayPage } from './TodayPage'

const { from, until } = dayAround(new Date())
const late = { id: 'c', slot: from, state: 'FIRED', updates: 4, worst: 'CRITICAL', reason: null }
const seen = {
  from,
  now: from,
  until,
  outcomes: { FIRED: 1, QUIET: 125, FAILED: 1 },
  moreLanes: 0,
  others: 294,
  sent: 11,
  queued: 1,
  lanes: [
    {
      rule: 'late-sailings',
      title: 'Late sailings without a reason',
      checks: [late],
      toCome: [],
      lateSince: null,
      pending: 0,
    },
  ],
  open: [
    {
      rule: 'late-sailings',
      title: 'Late sailings without a reason',
      open: { CRITICAL: 2 },
      looks: { CRITICAL: { word: 'far too late', colour: 'VIOLET' } },
      criticalUnhandled: 2,
      newToday: 3,
      cleared: 6,
      oldest: from,
      taken: 0,
      takenBy: [],
      lastReported: null,
      lastRecipients: 0,
    },
  ],
}
const answers = {
  'GET /api/outbox': { messages: [], next: null },
  'GET /api/holds': [],
  'GET /api/blocked-addresses': [],
  [`GET /api/day?from=${from}&until=${until}`]: seen,
}

test('says first what needs a person, then how the day went and what is open', async () => {
  renderAt('/today', <TodayPage />, {
    ...answers,
    'GET /api/rules': [
      lateSailings(),
      lateSailings({ name: 'headcount', title: 'Headcount', open: {}, state: 'PAUSED' }),
    ],
  })
  expect(await screen.findByRole('heading', { level: 1, name: 'One thing needs attention' })).toBeInTheDocument()
  expect(
    screen.getByText('Since midnight 127 checks ran: 1 fired, 125 quiet, 1 failed. 11 messages sent, 1 queued.'),
  ).toBeInTheDocument()
  expect(
    screen.getByRole('img', { name: /^Late sailings without a reason: .* fired, 4, 0 quiet, 0 to come/ }),
  ).toBeInTheDocument()
  expect(screen.getByText(/294 other rules reported nothing/)).toBeInTheDocument()
  const open = within(screen.getByRole('heading', { name: 'Open findings' }).closest('section') ?? document.body)
  expect(open.getByText('2 far too late')).toHaveClass('tone-violet')
})

test('where there is no rule yet it says what to do first', async () => {
  renderAt('/today', <TodayPage />, { ...answers, 'GET /api/rules': [], 'GET /api/sources': [{ name: 'ferry' }] })
  expect(await screen.findByRole('heading', { level: 1, name: 'Get started' })).toBeInTheDocument()
  expect(await screen.findByText(/A source is connected: ferry/)).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'Write a query' })).toHaveAttribute('href', '/queries/new')
})

test('a service that fails is told in words', async () => {
  renderAt('/today', <TodayPage />, {
    'GET /api/rules': () => Response.json({ detail: 'The log has it under 42.' }, { status: 500 }),
  })
  expect(await screen.findByRole('alert')).toHaveTextContent('The rules could not be loaded. The log has it under 42.')
})
