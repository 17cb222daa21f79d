import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { renderAt } from '../../shared/render.test-kit'
import type { Value } from './api'
import { changes, hindrance, linesOf } from './edits'
import { ThresholdPage } from './ThresholdPage'

const page = {
  threshold: {
    name: 'poor_load',
    title: 'poor load',
    unit: 'heads',
    description: null,
    key: ['route'],
    number: 112,
    values: 2,
    planned: 1,
    rules: ['poorly-used-routes'],
  },
  values: [
    { key: [], from: null, number: 112, when: 'NOW' },
    { key: ['Holm – Vik'], from: '2027-06-01', number: 95, when: 'PLANNED' },
  ],
  history: [
    { key: [], from: null, number: 112, setBy: 'Ines Holm', setAt: '2026-11-24T04:40:00Z', reason: 'agreed in May' },
  ],
}

const routed = (
  <Routes>
    <Route path="/thresholds/:name" element={<ThresholdPage />} />
  </Routes>
)

test('shows values and who changed them, when and why', async () => {
  renderAt('/thresholds/poor_load', routed, { 'GET /api/thresholds/poor_load': page })
  expect(await screen.findByText('planned')).toBeInTheDocument()
  expect(screen.getByRole('cell', { name: 'Holm – Vik' })).toBeInTheDocument()
  expect(
    screen.getByRole('img', {
      name: /Holm – Vik: 95 from 1 Jun 2027, planned|Holm – Vik: 95 from Jun 1, 2027, planned/,
    }),
  ).toBeInTheDocument()
  expect(screen.getByText('agreed in May')).toBeInTheDocument()
})

test('edits the values as a table, counts the effect first and asks why', async () => {
  let sent: unknown
  renderAt('/thresholds/poor_load', routed, {
    'GET /api/thresholds/poor_load': page,
    'POST /api/thresholds/poor_load/effect': [
      { rule: 'poorly-used-routes', title: 'Poorly used routes', before: 3, after: 5, otherSeverity: 0, refused: null },
    ],
    'POST /api/thresholds/poor_load/values': (body: string) => {
      sent = JSON.parse(body)
      return page
    },
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Edit or plan values' }))
  await userEvent.clear(screen.getByLabelText('Value of line 1'))
  await userEvent.type(screen.getByLabelText('Value of line 1'), '120')
  await userEvent.click(screen.getByRole('button', { name: 'Remove line 2' }))
  expect(screen.getByRole('button', { name: 'Save' })).toBeDisabled()
  await userEvent.click(screen.getByRole('button', { name: 'Show effect' }))
  expect(await screen.findByText('Poorly used routes: 3 exceptions now, 5 with this change')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Reason', { selector: '#reason' }), 'agreed today')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByRole('button', { name: 'Edit or plan values' })).toBeInTheDocument()
  expect(sent).toEqual({
    reason: 'agreed today',
    treatAsKnown: false,
    values: [
      { key: [], from: null, number: '120' },
      { key: ['Holm – Vik'], from: '2027-06-01', number: null },
    ],
  })
})

describe('the lines of the table', () => {
  const lines = linesOf(page.values as Value[], 1)
  const other = { id: 9, key: ['Holm – Vik'], from: '', number: '80' }

  test('change nothing until one differs', () => {
    expect(changes(page.values as Value[], lines)).toEqual([])
    expect(changes(page.values as Value[], [...lines, other])).toEqual([
      { key: ['Holm – Vik'], from: null, number: '80' },
    ])
  })

  test.each([
    [[...lines, { ...other, key: [' '] }], 'Two lines are for default from always; remove one.'],
    [[...lines, { ...other, number: ' ' }], 'A line has no value. Enter one or remove the line.'],
    [[...lines, other], null],
  ])('are held back where they cannot be saved', (some, words) => {
    expect(hindrance(some, ['route'])).toBe(words)
  })
})
