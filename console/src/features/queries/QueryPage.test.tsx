import { cleanup, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { vi } from 'vitest'
import { renderAt } from '../../shared/render.test-kit'
import { QueryPage } from './QueryPage'

const document = {
  kind: 'query',
  id: '1b9d6bcd-bbfd-4b2d-9b5d-ab8dfbbd4bed',
  name: 'sailings-lately',
  title: 'Sailings that have left',
  source: 'ferry',
  sql: 'select number as sailing from sailing where planned >= :since',
  parameters: { since: { type: 'instant', default: 'today - 7 days', help: 'from when on' } },
}
const summary = {
  name: 'sailings-lately',
  title: 'Sailings that have left',
  source: 'ferry',
  categories: ['Traffic'],
  revision: 3,
  savedAt: '2026-11-24T04:40:00Z',
  savedBy: 'Ines Holm',
  columns: ['sailing'],
  rules: 1,
}
const page = {
  query: summary,
  sql: document.sql,
  parameters: [],
  columns: [{ name: 'sailing', type: 'text', label: 'Sailing', unit: null, format: null, words: {} }],
  usedBy: [{ kind: 'rule', name: 'late-sailings', title: 'Late sailings', how: 'watches' }],
}
const revision = (number: number, author: string) => ({
  revision: number,
  reason: 'as asked',
  author,
  at: '2026-11-24T04:40:00Z',
})
const ran = {
  rowsRead: 743,
  tookMillis: 31,
  zone: 'Europe/Oslo',
  values: {},
  columns: [{ name: 'sailing', type: 'text', label: 'Sailing' }],
  rows: [['SK-412'], [null]],
  warnings: [],
}

function show(answers: Record<string, unknown> = {}) {
  return renderAt(
    '/queries/sailings-lately',
    <Routes>
      <Route path="/queries/:name" element={<QueryPage />} />
    </Routes>,
    {
      'GET /api/definitions/query/sailings-lately.json': document,
      'GET /api/queries/sailings-lately': page,
      'GET /api/queries': [summary],
      'GET /api/sources': [{ name: 'ferry' }],
      'GET /api/sources/ferry/tables': {
        tables: [{ schema: 'public', name: 'sailing', columns: [{ name: 'number', type: 'text' }] }],
        more: false,
      },
      'GET /api/definitions/query/sailings-lately/revisions': { next: null, revisions: [revision(3, 'Ines Holm')] },
      'POST /api/relative-dates': [{ text: 'today - 7 days', means: '2026-11-17T00:00+01:00', refused: null }],
      ...answers,
    },
  )
}

test('it is run as it stands, with rows, time, and what a relative date means today', async () => {
  show({ 'POST /api/query-runs': ran })
  expect(await screen.findByText(/today: 2026-11-17 00:00/)).toBeInTheDocument()
  expect(screen.getByText('from when on')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Run' }))
  expect(await screen.findByText('743 rows')).toBeInTheDocument()
  expect(screen.getByRole('cell', { name: 'SK-412' })).toBeInTheDocument()
  expect(screen.getByRole('cell', { name: 'missing' })).toBeInTheDocument()
})

test('it says who uses it and what the edit would move', async () => {
  const effect = {
    effect: 'OTHER_CONDITIONS',
    rules: [
      {
        rule: 'late-sailings',
        title: 'Late sailings',
        copy: null,
        refused: null,
        compared: {
          both: 12,
          otherSeverity: 0,
          onlyDraftCount: 0,
          onlyDraft: [],
          onlyActiveCount: 8,
          onlyActive: ['SK-1'],
        },
      },
    ],
  }
  show({ 'POST /api/query-effect': effect })
  await userEvent.click(await screen.findByRole('button', { name: 'Show effect on rules' }))
  expect(await screen.findByText('8 fewer')).toBeInTheDocument()
})

test('what is typed is there again after the page was left, and can be thrown away', async () => {
  show()
  await userEvent.type(await screen.findByLabelText('Title'), '!')
  cleanup()
  show()
  expect(await screen.findByLabelText('Title')).toHaveValue('Sailings that have left!')
  await userEvent.click(screen.getByRole('button', { name: 'Discard draft' }))
  expect(screen.getByLabelText('Title')).toHaveValue('Sailings that have left')
})

test('one who edits is told that another has saved, and overwrites nothing without notice', async () => {
  const calls = show({
    'GET /api/definitions/query/sailings-lately/revisions': {
      next: null,
      revisions: [revision(4, 'Per Aune'), revision(3, 'Ines Holm')],
    },
    'PUT /api/definitions?reason=&revision=4': { name: 'sailings-lately', revision: 5, changed: true, warnings: [] },
  })
  expect(await screen.findByRole('alert')).toHaveTextContent('Per Aune saved revision 4')
  await userEvent.click(screen.getByRole('button', { name: /save mine/ }))
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  await vi.waitFor(() => expect(calls).toContain('PUT /api/definitions?reason=&revision=4'))
})
