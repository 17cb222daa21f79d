import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { vi } from 'vitest'
import { lateSailings, renderAt } from '../../shared/render.test-kit'
import { RuleEditor } from './RuleEditor'

const document = {
  kind: 'rule',
  name: 'late-sailings',
  title: 'Late sailings',
  query: 'sailings-lately',
  exceptions: 'delay_min > 15 and resaon is null',
  severity: [{ critical: 'delay_min >= 45' }, 'warning'],
}

const problem = {
  weight: 'ERROR',
  message: 'unknown column "resaon"',
  field: '',
  place: { line: 1, column: 20, offset: 19, length: 6 },
  suggestion: 'reason',
}

const seen = {
  draft: {
    slot: '2026-11-24T04:40:00Z',
    rowsRead: 743,
    tookMillis: 31,
    exceptions: 2,
    bySeverity: { WARNING: 2 },
    looks: {},
    unknownRows: 3,
    parts: [{ text: 'delay_min > 15', rowsLeft: 2, unknown: {} }],
    suggestions: [{ column: 'delay_min', rows: 3, condition: 'delay_min > 15 or delay_min is null', empty: false }],
    warnings: [],
    unevaluated: 0,
    unevaluatedGroups: [],
    grouped: false,
    wouldReport: 1,
    audiences: [{ split: 'Holm', to: ['holm@skerryline.example'], told: 1 }],
    copy: null,
    copies: [],
    columns: [{ name: 'sailing', label: 'Sailing', type: 'text' }],
    rows: [{ severity: 'WARNING', updates: ['new'], cells: [{ text: 'SK-412', highlighted: true }] }],
  },
  compared: { both: 1, otherSeverity: 0, onlyDraftCount: 1, onlyDraft: ['SK-412'], onlyActiveCount: 0, onlyActive: [] },
}

function show(answers: Record<string, unknown> = {}) {
  return renderAt(
    '/rules/late-sailings/edit',
    <Routes>
      <Route path="/rules/:name/edit" element={<RuleEditor />} />
    </Routes>,
    {
      'GET /api/rules/late-sailings': { rule: lateSailings({ state: 'DRAFT' }), draft: null },
      'GET /api/definitions/rule/late-sailings.json': document,
      'POST /api/queries/sailings-lately/condition': {
        text: '',
        sentence: 'late by more than 15 min',
        parts: [],
        problems: [],
      },
      'POST /api/queries/sailings-lately/completion': {
        from: 0,
        to: 3,
        options: [{ text: 'reason', kind: 'column', detail: 'a text' }],
      },
      ...answers,
    },
  )
}

test('a problem stands under its place with what was meant', async () => {
  show({ 'POST /api/queries/sailings-lately/condition': { text: '', sentence: '', parts: [], problems: [problem] } })
  expect((await screen.findAllByText(/unknown column "resaon"/))[0]).toHaveTextContent(
    'did you mean “reason”? (line 1, column 20)',
  )
})

test('what may come next is offered and taken by the keyboard', async () => {
  show()
  const field = await screen.findByLabelText('Fire only if')
  await userEvent.type(field, 'rea')
  expect(await screen.findByRole('option', { name: /reason column, a text/ })).toBeInTheDocument()
  await userEvent.keyboard('{Enter}')
  expect(field).toHaveValue('reason')
})

test('the preview says what differs, marks cells and offers to count what is missing', async () => {
  show({ 'POST /api/preview': seen })
  await userEvent.click(await screen.findByRole('button', { name: 'Preview' }))
  expect(await screen.findByText('1 added')).toBeInTheDocument()
  expect(screen.getByText('SK-412', { selector: 'mark' })).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Count these rows as exceptions' }))
  expect(screen.getByLabelText('Exception: each row where')).toHaveValue('delay_min > 15 or delay_min is null')
})

test('a refused save keeps what was typed and says every problem', async () => {
  const refused = Response.json({ detail: 'refused', problems: [{ ...problem, field: 'exceptions' }] }, { status: 422 })
  show({ 'PUT /api/definitions?reason=&revision=7': refused })
  await userEvent.click(await screen.findByRole('button', { name: 'Save' }))
  expect(await screen.findByText('exceptions', { selector: 'code' })).toBeInTheDocument()
  expect(screen.getByLabelText('Exception: each row where')).toHaveValue('delay_min > 15 and resaon is null')
})

test('a back-test shows its variants side by side', async () => {
  const variant = { checks: 30, messages: 12, updates: 40, highestExceptions: 20, unevaluated: 0, slots: [] }
  const done = {
    id: 'w1',
    state: 'DONE',
    stepsDone: 31,
    steps: 31,
    endedAt: '2026-11-24T04:40:00Z',
    reason: null,
    result: {
      warmUp: 1,
      variants: [
        { ...variant, thresholds: {} },
        { ...variant, thresholds: { late_minutes: 20 }, messages: 7 },
      ],
    },
  }
  show({ 'POST /api/back-tests': done, 'GET /api/long-work/w1': done })
  await userEvent.click(await screen.findByRole('button', { name: 'Run' }))
  expect(await screen.findByText('late_minutes 20')).toBeInTheDocument()
  expect(screen.getByText('as saved')).toBeInTheDocument()
})

test('an edit of an active rule is kept as a draft, and the draft is what is switched to', async () => {
  const active = { rule: lateSailings(), draft: null }
  const first = show({
    'GET /api/rules/late-sailings': active,
    'PUT /api/rules/late-sailings/draft?baseRevision=7': { version: 1 },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Save draft' }))
  await vi.waitFor(() => expect(first).toContain('PUT /api/rules/late-sailings/draft?baseRevision=7'))
  cleanup()

  const draft = { version: 3, author: 'Per Aune', at: '2026-11-24T04:40:00Z', outdated: false }
  const calls = show({
    'GET /api/rules/late-sailings': { ...active, draft },
    'GET /api/rules/late-sailings/draft': { document: { ...document, exceptions: 'delay_min > 30' } },
    'PUT /api/rules/late-sailings/draft?baseRevision=7&version=3': { version: 4 },
    'POST /api/rules/late-sailings/draft/apply?reason=quieter&version=4': { revision: 8 },
  })
  expect(await screen.findByText(/Draft changes by Per Aune/)).toBeInTheDocument()
  expect(screen.getByLabelText('Exception: each row where')).toHaveValue('delay_min > 30')
  await userEvent.type(screen.getByLabelText('Reason for this change'), 'quieter')
  await userEvent.click(screen.getByRole('button', { name: 'Apply changes' }))
  await vi.waitFor(() => expect(calls).toContain('POST /api/rules/late-sailings/draft/apply?reason=quieter&version=4'))
})

test('a draft that someone else has saved meanwhile is not overwritten', async () => {
  const draft = { version: 3, author: 'Per Aune', at: '2026-11-24T04:40:00Z', outdated: true }
  const refused = Response.json(
    { detail: 'Someone saved the draft meanwhile, version 4: look at it first.' },
    { status: 409 },
  )
  show({
    'GET /api/rules/late-sailings': { rule: lateSailings(), draft },
    'GET /api/rules/late-sailings/draft': { document },
    'PUT /api/rules/late-sailings/draft?baseRevision=7&version=3': refused,
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Save draft' }))
  expect(await screen.findByText(/Someone saved the draft meanwhile/)).toBeInTheDocument()
  expect(screen.getAllByText(/The rule has a newer revision/)[0]).toBeInTheDocument()
  expect(screen.getByRole('button', { name: 'Apply changes' })).toBeDisabled()
  expect(screen.getByLabelText('Exception: each row where')).toHaveValue('delay_min > 15 and resaon is null')
})
