import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import type { Explanation } from '../../api/types'
import { renderAt } from '../../shared/render.test-kit'
import { ExplanationPage } from './ExplanationPage'

const story = (more: Partial<Explanation> = {}): Explanation => ({
  rule: 'late-sailings',
  zone: 'Europe/Oslo',
  identity: '48211',
  reason: 'It is open. It was last told on Tue 24 Nov 2026 05:40.',
  now: {
    finding: 7,
    state: 'OPEN',
    severity: 'WARNING',
    look: { word: 'past its date', colour: 'VIOLET' },
    openedAt: '2026-11-24T04:40:00Z',
    changedAt: '2026-11-24T04:40:00Z',
    lastConfirmed: '2026-11-25T04:40:00Z',
    noData: false,
    unreported: false,
    reportedAt: '2026-11-24T04:40:00Z',
    lastReportedAt: '2026-11-24T04:40:00Z',
    handling: [],
  },
  present: {
    at: '2026-11-25T10:00:00Z',
    verdict: 'TRUE',
    severity: 'WARNING',
    look: { word: 'past its date', colour: 'VIOLET' },
    failure: null,
    cells: [
      { column: 'sailing', label: 'Sailing', text: 'SK-412' },
      { column: 'reason', label: 'Reason', text: null },
    ],
    parts: [
      { text: 'delay_min > 15', sentence: 'late by more than 15 min', verdict: 'TRUE' },
      { text: 'reason is null', sentence: 'reason is missing', verdict: 'TRUE' },
    ],
  },
  events: [
    {
      at: '2026-11-24T04:40:00Z',
      about: 'FINDING',
      text: 'opened as warning (rule revision 1)',
      check: 'c',
      message: null,
    },
    { at: '2026-11-24T04:40:00Z', about: 'MESSAGE', text: 'told as new in "1 warning"', check: 'c', message: 'm' },
  ],
  ...more,
})

function show(answers: Record<string, unknown> = {}, told = story()) {
  return renderAt(
    '/rules/late-sailings/findings/7',
    <Routes>
      <Route path="/rules/:name/findings/:finding" element={<ExplanationPage />} />
    </Routes>,
    {
      'GET /api/rules/late-sailings/explanation?finding=7': told,
      ...answers,
    },
  )
}

test('says why, what each part of the condition says, and what happened with the mail', async () => {
  show()
  expect(await screen.findByText(/It is open. It was last told/)).toBeInTheDocument()
  const part = within(screen.getByText('reason is null').closest('tr') ?? document.body)
  expect(part.getByText('true')).toBeInTheDocument()
  expect(screen.getByText('missing')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'the message' })).toHaveAttribute('href', '/outbox/m')
})

test('a mark is set with its note, and what the service refuses is said', async () => {
  const asked: unknown[] = []
  show({
    'POST /api/rules/late-sailings/handling': (sent: unknown) => {
      asked.push(JSON.parse(String(sent)))
      return Response.json({ detail: 'The finding has cleared.' }, { status: 409 })
    },
  })
  await userEvent.selectOptions(await screen.findByLabelText('What'), 'Accept')
  expect(screen.getByLabelText('Note')).toBeRequired()
  await userEvent.type(screen.getByLabelText('Note'), 'survey booked')
  await userEvent.click(screen.getByRole('button', { name: 'Accept' }))
  expect(await screen.findByText('The finding has cleared.')).toBeInTheDocument()
  expect(asked).toEqual([{ finding: 7, kind: 'ACCEPT', note: 'survey booked', until: null, withdraw: false }])
})

test('of one that cleared there is nothing to mark, and a source that fails is said', async () => {
  const now = story().now
  show(
    {},
    story({
      now: now && { ...now, state: 'CLEARED' },
      present: { ...story().present, verdict: null, failure: 'The source ferry could not be reached.' },
    }),
  )
  expect(await screen.findByText(/The source ferry could not be reached/)).toBeInTheDocument()
  expect(screen.queryByText('Handling')).not.toBeInTheDocument()
})

test('a note joins the timeline of a finding', async () => {
  const asked: unknown[] = []
  show({
    'POST /api/rules/late-sailings/handling/notes': (sent: unknown) => {
      asked.push(JSON.parse(String(sent)))
      return { finding: 7, handling: [] }
    },
  })
  await userEvent.type(await screen.findByLabelText('What you know of it, or what was done about it'), 'survey booked')
  await userEvent.click(screen.getByRole('button', { name: 'Add note' }))
  expect(await screen.findByLabelText('What you know of it, or what was done about it')).toHaveValue('')
  expect(asked).toEqual([{ finding: 7, note: 'survey booked' }])
})
