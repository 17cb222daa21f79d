import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import type { RulePage as Page } from '../../api/types'
import { check, lateSailings, renderAt } from '../../shared/render.test-kit'
import { RulePage } from './RulePage'

const page = (more = {}): Page => ({
  rule: lateSailings(more),
  text: {
    query: 'sailings-lately',
    queryTitle: 'Sailings that have left',
    source: 'ferry',
    sql: 'select 1',
    parameters: { since: 'today - 7 days' },
    per: [],
    grouped: false,
    fireWhen: null,
    fireSentence: null,
    openAfter: null,
    clearAfter: null,
    thresholds: ['late_minutes'],
    exceptions: 'delay_min > 15',
    sentence: 'late by more than 15 min',
    severity: [{ severity: 'WARNING', look: { word: null, colour: 'AMBER' }, condition: null, sentence: null }],
    mode: 'INCREMENTAL',
    key: ['sailing_id'],
    report: ['new'],
    schedule: 'every day at 05:40; when sailings-loaded is reported',
    split: { by: 'terminal', to: { Holm: ['holm@skerryline.example'] }, from: 'duty-managers' },
    copies: null,
    visibleTo: [],
  },
  nextDates: [],
  draft: null,
})

const finding = {
  id: 1,
  copy: null,
  identity: '4821',
  state: 'OPEN',
  severity: 'CRITICAL',
  openedAt: '2026-11-24T04:40:00Z',
  changedAt: '2026-11-24T04:40:00Z',
  reportedAt: null,
  noData: false,
  unreported: false,
  handling: [{ kind: 'TAKE', by: 'Ines Holm', at: '2026-11-24T05:00:00Z', note: '', until: null }],
  row: { sailing: 'SK-412', reason: null },
  links: { sailing: 'https://records.skerryline.example/sailings/412' },
}

function show(answers: Record<string, unknown> = {}, rule = page()) {
  return renderAt(
    '/rules/late-sailings',
    <Routes>
      <Route path="/rules/:name" element={<RulePage />} />
    </Routes>,
    {
      'GET /api/rules/late-sailings': rule,
      'GET /api/rules/late-sailings/findings?state=OPEN': {
        total: 1,
        columns: [
          { name: 'sailing', label: 'Sailing', type: 'text' },
          { name: 'reason', label: 'Reason', type: 'text' },
        ],
        findings: [finding],
      },
      'GET /api/rules/late-sailings/measurements': [],
      'GET /api/rules/late-sailings/checks': {
        checks: [check('FAILED', { reason: 'The source ferry could not be reached.' })],
        next: null,
      },
      ...answers,
    },
  )
}

test('shows condition, query, findings and checks with their reasons', async () => {
  show()
  expect(await screen.findByText('delay_min > 15')).toBeInTheDocument()
  expect(screen.getAllByText('Late by more than 15 min.')[0]).toBeInTheDocument()
  expect(screen.getByText('today - 7 days')).toBeInTheDocument()
  const row = within((await screen.findByText('SK-412')).closest('tr') ?? document.body)
  expect(row.getByText('missing')).toBeInTheDocument()
  expect(row.getByText('critical')).toBeInTheDocument()
  expect(row.getByText('taken by Ines Holm')).toBeInTheDocument()
  expect(row.getByRole('link', { name: 'Why? Explanation of 4821' })).toHaveAttribute(
    'href',
    '/rules/late-sailings/findings/1',
  )
  expect(await screen.findByText('The source ferry could not be reached.')).toBeInTheDocument()
})

test('a check that was awaiting approval is let through from its line', async () => {
  const kept = check('AWAITING_APPROVAL', {
    reason: '39 of 40 open findings would clear at once, more than 50 %; release or discard it.',
  })
  const calls = show({
    'GET /api/rules/late-sailings/checks': { checks: [kept, check('RUNNING', { rowsSoFar: 4000 })], next: null },
    [`POST /api/checks/${kept.id}/approve`]: check('FIRED'),
  })
  expect(await screen.findByText(/4,000 rows so far/)).toBeInTheDocument()
  await userEvent.click(await screen.findByRole('button', { name: 'Approve' }))
  expect(calls).toContain(`POST /api/checks/${kept.id}/approve`)
})

test('Check now tells the outcome and leads to the mail', async () => {
  show({ 'POST /api/rules/late-sailings/checks': check('FIRED', { updates: 3, messages: 1 }) })
  await userEvent.click(await screen.findByRole('button', { name: 'Check now' }))
  expect(await screen.findByText(/3 findings reported in 1 message/)).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'Show message' })).toHaveAttribute('href', '/outbox?rule=late-sailings')
})

test('a paused rule offers to become active and is not checked', async () => {
  show({}, page({ state: 'PAUSED' }))
  expect(await screen.findByRole('button', { name: 'Activate' })).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Check now' })).not.toBeInTheDocument()
})

test('a rule with personal copies says for whom, and how each went', async () => {
  const partly = check('PARTLY_FAILED', { reason: '1 of 2 personal copies failed (Ytre: no address).' })
  const of = page()
  show(
    {
      'GET /api/rules/late-sailings/checks': { checks: [partly], next: null },
      'GET /api/rules/late-sailings/findings?state=OPEN': {
        total: 1,
        columns: [],
        findings: [{ ...finding, copy: 'Holm' }],
      },
      [`GET /api/checks/${partly.id}/copies`]: [
        { copy: 'Holm', state: 'FIRED', to: ['holm@skerryline.example'], reason: null, exceptions: 2, updates: 1 },
        { copy: 'Ytre', state: 'FAILED', to: [], reason: 'no address', exceptions: null, updates: null },
      ],
    },
    { ...of, text: { ...of.text, copies: { from: 'duty-managers', key: 'terminal', address: 'address' } } },
  )
  expect(await screen.findByText('One personal copy per terminal')).toBeInTheDocument()
  expect(await screen.findByRole('cell', { name: 'Holm' })).toBeInTheDocument()
  await userEvent.click(await screen.findByText('Personal copies'))
  expect(await screen.findByText(/2 exceptions, 1 reported to holm@skerryline.example/)).toBeInTheDocument()
  expect(screen.getByText(/Ytre/, { selector: 'li' })).toHaveTextContent('no address')
})

test('draft changes of the rule are named', async () => {
  show({}, { ...page(), draft: { version: 2, author: 'Ines Holm', at: '2026-11-24T04:40:00Z', outdated: true } })
  expect(await screen.findByText(/Draft changes by Ines Holm/)).toHaveTextContent('; the rule has a newer revision')
  expect(screen.getByRole('link', { name: 'Show' })).toHaveAttribute('href', '/rules/late-sailings/edit')
})

test('one recipient is sent what is open', async () => {
  const calls = show({ 'POST /api/rules/late-sailings/send-open': { messages: 1 } })
  await userEvent.click(await screen.findByText('Send open findings to one recipient'))
  await userEvent.type(screen.getByLabelText('Recipient of the rule'), 'siv.tangen@skerryline.example')
  await userEvent.click(screen.getByRole('button', { name: 'Send open findings' }))
  expect(await screen.findByText('The message is queued.')).toBeInTheDocument()
  expect(calls).toContain('POST /api/rules/late-sailings/send-open')
})

test('a rule whose schedule has ended says so', async () => {
  show({}, page({ nextSlot: null, ended: true }))
  expect(await screen.findByText('Next check: none, the schedule has ended')).toBeInTheDocument()
})
