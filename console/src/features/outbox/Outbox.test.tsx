import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import type { MessageSummary } from '../../api/types'
import { renderAt } from '../../shared/render.test-kit'
import { ExtractPage } from './ExtractPage'
import { MessagePage } from './MessagePage'
import { OutboxPage } from './OutboxPage'

const summary: MessageSummary = {
  id: 'm1',
  rule: 'late-sailings',
  roundUp: null,
  preview: false,
  repeat: false,
  held: false,
  collection: false,
  question: false,
  subject: '2 critical: Late sailings',
  slot: '2026-11-24T04:40:00Z',
  createdAt: '2026-11-24T04:40:01Z',
  recipients: [
    {
      address: 'ines.holm@skerryline.example',
      state: 'SENT',
      tries: 1,
      nextTry: null,
      detail: '250 2.0.0 queued as T1',
      settledAt: null,
      collectedIn: null,
    },
    {
      address: 'siv.tangen@skerryline.example',
      state: 'QUEUED',
      tries: 4,
      nextTry: '2026-11-24T05:40:00Z',
      detail: '450 mailbox busy',
      settledAt: null,
      collectedIn: null,
    },
  ],
}

const none = { 'GET /api/holds': [], 'GET /api/blocked-addresses': [] }
const routes = (
  <Routes>
    <Route path="/outbox" element={<OutboxPage />} />
    <Route path="/outbox/:id" element={<MessagePage />} />
  </Routes>
)

test('lists mail with where each recipient stands, and of one rule if asked', async () => {
  const calls = renderAt('/outbox?rule=late-sailings', routes, {
    ...none,
    'GET /api/outbox?rule=late-sailings': { messages: [summary], next: null },
  })
  expect(await screen.findByRole('link', { name: '2 critical: Late sailings' })).toHaveAttribute('href', '/outbox/m1')
  expect(screen.getByText('sent', { selector: 'span' })).toBeInTheDocument()
  expect(screen.getByText('queued', { selector: 'span' })).toBeInTheDocument()
  expect(screen.getByText(/Messages of late-sailings/)).toBeInTheDocument()
  expect(calls.filter((call) => !(call in none))).toEqual(['GET /api/outbox?rule=late-sailings'])
})

test('older messages follow on the page where they are asked for', async () => {
  const calls = renderAt('/outbox', routes, {
    ...none,
    'GET /api/outbox': { messages: [summary], next: '1-m1' },
    'GET /api/outbox?after=1-m1': { messages: [{ ...summary, id: 'm0', subject: 'The day before' }], next: null },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Show older messages' }))
  expect(await screen.findByText('The day before')).toBeInTheDocument()
  expect(screen.getByText(summary.subject)).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Show older messages' })).toBeNull()
  expect(calls).toContain('GET /api/outbox?after=1-m1')
})

test('mail about trouble belongs to no rule and leads to none', async () => {
  renderAt('/outbox', routes, {
    ...none,
    'GET /api/outbox': { messages: [{ ...summary, rule: null, subject: 'Source lake cannot be read' }], next: null },
  })
  const row = within(await screen.findByRole('row', { name: /Source lake cannot be read/ }))
  expect(row.getByText('failure notice')).toBeInTheDocument()
  expect(row.getAllByRole('link')).toHaveLength(1)
})

test('an empty outbox says what would fill it', async () => {
  renderAt('/outbox', routes, { ...none, 'GET /api/outbox': { messages: [], next: null } })
  expect(await screen.findByText(/No messages yet/)).toBeInTheDocument()
})

test('one mail is shown as its recipients see it, harmless, and as plain text', async () => {
  renderAt('/outbox/m1', routes, {
    'GET /api/outbox/m1': {
      message: summary,
      messageId: '<1@skerryline.example>',
      text: '2 new; 2 of them critical',
      files: [{ name: 'late.csv', mediaType: 'text/csv', bytes: 812 }],
      reported: {
        total: 301,
        findings: [
          {
            id: 7,
            rule: 'late-sailings',
            copy: null,
            identity: '48211',
            state: 'OPEN',
            severity: 'WARNING',
            look: { word: 'late', colour: 'VIOLET' },
            updates: ['new'],
          },
        ],
      },
      tries: [],
    },
  })
  const frame = await screen.findByTitle('The message as recipients see it')
  expect(frame).toHaveAttribute('sandbox', '')
  expect(frame).toHaveAttribute('src', '/api/outbox/m1/html')
  expect(screen.getByText('450 mailbox busy')).toBeInTheDocument()
  expect(screen.getByText('Message-ID <1@skerryline.example>')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'late.csv' })).toHaveAttribute('href', '/api/extracts/m1/files/0')
  expect(screen.getByRole('link', { name: '48211' })).toHaveAttribute('href', '/rules/late-sailings/findings/7')
  expect(screen.getByText('The first 1 of 301 are listed.')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Plain text' }))
  expect(screen.getByText('2 new; 2 of them critical')).toBeInTheDocument()
})

test('held mail says so, and is released or thrown away', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const calls = renderAt('/outbox?rule=late-sailings', routes, {
    'GET /api/outbox?rule=late-sailings': { messages: [{ ...summary, held: true }], next: null },
    'GET /api/holds': [
      {
        id: 3,
        source: null,
        rule: 'late-sailings',
        reason: 'wrong timetable',
        by: 'Ines Holm',
        at: '2026-11-24T04:40:00Z',
        messages: 1,
      },
    ],
    'POST /api/holds': [],
    'POST /api/holds/3/end?discard=false': { messages: 1 },
    'POST /api/holds/3/end?discard=true': { messages: 1 },
  })
  expect(
    await screen.findByText(/Held: mail of late-sailings, by Ines Holm.*wrong timetable\. 1 message queued/),
  ).toBeInTheDocument()
  expect(await screen.findByText(', held')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Release' }))
  await userEvent.click(screen.getByRole('button', { name: 'Discard' }))
  await userEvent.click(screen.getByRole('button', { name: 'Hold mail of late-sailings' }))
  await userEvent.type(screen.getByLabelText('Reason for holding mail of late-sailings'), 'again')
  await userEvent.click(screen.getByRole('button', { name: 'Hold' }))
  expect(calls).toEqual(
    expect.arrayContaining([
      'POST /api/holds/3/end?discard=false',
      'POST /api/holds/3/end?discard=true',
      'POST /api/holds',
    ]),
  )
})

test('a mail is stopped, sent again and reported again, and sought', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  renderAt('/outbox/m1', routes, {
    'GET /api/outbox/m1': {
      message: summary,
      messageId: '<1@skerryline.example>',
      text: '',
      files: [],
      reported: { total: 0, findings: [] },
      tries: [],
    },
    'POST /api/outbox/m1/cancel': { count: 1, message: null },
    'POST /api/outbox/m1/resend': { count: 1, message: 'm2' },
    'POST /api/outbox/m1/report-again': Response.json({ detail: 'It reported nothing.' }, { status: 409 }),
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Stop' }))
  await userEvent.click(screen.getByRole('button', { name: 'Resend' }))
  expect(await screen.findByRole('link', { name: 'the resent message' })).toHaveAttribute('href', '/outbox/m2')
  await userEvent.click(screen.getByRole('button', { name: 'Report again' }))
  expect(await screen.findByText('It reported nothing.')).toBeInTheDocument()
})

test('the outbox is searched by text and state', async () => {
  renderAt('/outbox', routes, {
    ...none,
    'GET /api/outbox': { messages: [summary], next: null },
    'GET /api/outbox?q=i': { messages: [], next: null },
    'GET /api/outbox?q=i&state=SENT': { messages: [summary], next: null },
  })
  await screen.findByRole('link', { name: '2 critical: Late sailings' })
  await userEvent.type(screen.getByLabelText('Search subjects and addresses'), 'i')
  expect(await screen.findByText('No messages match.')).toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('Delivery state'), 'SENT')
  expect(await screen.findByRole('link', { name: '2 critical: Late sailings' })).toBeInTheDocument()
})

test('an address from which mail comes back is told, and said to be right again', async () => {
  vi.spyOn(window, 'confirm').mockReturnValue(true)
  const bad = {
    address: 'per.aune@skerryline.example',
    reason: '550 5.1.1 nobody of that name',
    message: 'm1',
    since: '2026-11-24T04:40:00Z',
  }
  const calls = renderAt('/outbox', routes, {
    ...none,
    'GET /api/outbox': { messages: [], next: null },
    'GET /api/blocked-addresses': [bad],
    'DELETE /api/blocked-addresses/per.aune%40skerryline.example': [],
  })
  expect(await screen.findByText(/nobody of that name/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: /Unblock address/ }))
  expect(calls).toContain('DELETE /api/blocked-addresses/per.aune%40skerryline.example')
})

test('a kept extract shows its rows and its files to save', async () => {
  const extract = {
    message: 'm1',
    subject: '2 critical: Late sailings',
    rule: 'late-sailings',
    slot: '2026-11-24T04:40:00Z',
    files: [
      { name: 'late.xlsx', mediaType: 'x', bytes: 5200 },
      { name: 'all.csv', mediaType: 'x', bytes: 2_500_000 },
    ],
  }
  renderAt(
    '/extracts/m1',
    <Routes>
      <Route path="/extracts/:id" element={<ExtractPage />} />
    </Routes>,
    { 'GET /api/extracts/m1': extract },
  )
  expect(await screen.findByRole('link', { name: 'all.csv' })).toHaveAttribute('href', '/api/extracts/m1/files/1')
  expect(screen.getByText('6 kB')).toBeInTheDocument()
  expect(screen.getByText('2.5 MB')).toBeInTheDocument()
  expect(screen.getByTitle('The rows of the report')).toHaveAttribute('src', '/api/extracts/m1/rows')
})
