import { useState } from 'react'
import { fireEvent, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { ThresholdSummary } from '../thresholds/api'
import { Builder } from './Builder'
import { textOf, type Part } from './builder'
import { OfferContext } from './offers'
import { renderAt } from '../../shared/render.test-kit'

const columns = [
  { name: 'delay_min', label: 'Late by', type: 'number' },
  { name: 'status', label: 'Status', type: 'text' },
  { name: 'tickets', label: 'Tickets', type: 'number' },
  { name: 'planned', label: 'Planned', type: 'timestamp' },
  { name: 'litres', label: 'Fuel', type: 'number', measured: true },
]
const thresholds = [
  { name: 'late_minutes', title: 'Late minutes', key: [], number: 15 },
] as unknown as ThresholdSummary[]
const late: Part = { is: 'compare', column: 'delay_min', operator: '>', operand: { kind: 'value', text: '15' } }
const status: Part = { is: 'in', column: 'status', options: ["'cancelled'"], negated: true }

function Page({ initial }: { initial: Part[] }) {
  const [parts, setParts] = useState(initial)
  return (
    <>
      <Builder
        parts={parts}
        settled
        counts={null}
        total={null}
        onChange={setParts}
        columns={columns}
        thresholds={thresholds}
      />
      <output>{textOf(parts)}</output>
    </>
  )
}

const shows = (text: string) => waitFor(() => expect(screen.getByRole('status').textContent).toBe(text))

test('a value counts once typing pauses, without leaving the field', async () => {
  renderAt('/', <Page initial={[late]} />, {})
  const field = screen.getByRole('textbox', { name: 'Part 1: value' })
  await userEvent.clear(field)
  await userEvent.type(field, '45')
  await shows('delay_min > 45')
  expect(field).toHaveFocus()
})

test('parts are added, changed and removed', async () => {
  renderAt('/', <Page initial={[late]} />, {})
  await userEvent.click(screen.getByRole('button', { name: 'and …' }))
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 2: column' }), 'Status')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 2: comparison' }), 'is missing or empty')
  await shows("delay_min > 15 and coalesce(trim(status), '') = ''")
  await userEvent.click(screen.getByRole('button', { name: 'Remove part 1' }))
  await shows("coalesce(trim(status), '') = ''")
})

test('a threshold or another column takes the place of a value', async () => {
  renderAt('/', <Page initial={[late]} />, {})
  const with_ = () => screen.getByRole('combobox', { name: 'Part 1: compared with' })
  await userEvent.selectOptions(with_(), 'threshold Late minutes (15)')
  await shows("delay_min > threshold('late_minutes')")
  await userEvent.selectOptions(with_(), 'Tickets')
  await shows('delay_min > tickets')
  await userEvent.selectOptions(with_(), 'a value')
  await shows('delay_min > 0')
})

test('of several alternatives the last that is left is a plain part', async () => {
  renderAt('/', <Page initial={[status]} />, {})
  await userEvent.click(screen.getByRole('button', { name: 'any of …' }))
  await userEvent.click(screen.getByRole('button', { name: 'or …' }))
  await shows("status not in ('cancelled') and (delay_min > 0 or delay_min > 0 or delay_min > 0)")
  await userEvent.click(screen.getByRole('button', { name: 'Remove Part 2.3' }))
  await userEvent.click(screen.getByRole('button', { name: 'Remove Part 2.1' }))
  await shows("status not in ('cancelled') and delay_min > 0")
})

test('a value with a comma is typed in quotes', async () => {
  renderAt('/', <Page initial={[status]} />, {})
  const field = screen.getByRole('textbox', { name: 'Part 1: values, with commas' })
  await userEvent.clear(field)
  await userEvent.type(field, "'Holm, north', Vik")
  await shows("status not in ('Holm, north', 'Vik')")
  expect(field).toHaveValue("'Holm, north', Vik")
})

test('a text that cannot be read has no fields and says why', () => {
  renderAt(
    '/',
    <Builder
      parts={null}
      settled
      counts={null}
      total={null}
      onChange={() => undefined}
      columns={columns}
      thresholds={[]}
    />,
    {},
  )
  expect(screen.getByText('Fix the text to see the fields again.')).toBeInTheDocument()
  expect(screen.queryByRole('group')).toBeNull()
})

test('a date is chosen by a window or a time counted from the check', async () => {
  renderAt('/', <Page initial={[late]} />, {})
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: column' }), 'Planned')
  await shows('planned in last 7 days')
  const count = screen.getByRole('spinbutton', { name: 'Part 1: how many' })
  await userEvent.clear(count)
  await userEvent.type(count, '12')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: unit of time' }), 'hours')
  await shows('planned in last 12 hours')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: comparison' }), 'calendar')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: period' }), 'last month')
  await shows('planned in previous month')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: comparison' }), '<')
  await userEvent.selectOptions(
    screen.getByRole('combobox', { name: 'Part 1: compared with' }),
    'a time counted from the check',
  )
  await shows('planned < now() - 7 days')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: compared with' }), 'a date')
  fireEvent.change(screen.getByLabelText('Part 1: value'), { target: { value: '2026-11-22T06:30' } })
  await shows("planned < timestamp '2026-11-22 06:30'")
  fireEvent.change(screen.getByLabelText('Part 1: value'), { target: { value: '2026-12-01T00:00' } })
  await shows("planned < date '2026-12-01'")
})

test('values of the column are offered once its field is entered', async () => {
  const input = { query: 'sailings', values: {}, zone: 'UTC', calendar: null }
  renderAt(
    '/',
    <OfferContext.Provider value={input}>
      <Page initial={[status]} />
    </OfferContext.Provider>,
    {
      'POST /api/queries/sailings/column-values': {
        rowsRead: 3,
        values: [
          { text: 'cancelled', label: 'cancelled', rows: 2 },
          { text: 'S', label: 'sailed', rows: 1 },
        ],
        missing: 0,
        more: false,
      },
    },
  )
  expect(screen.queryByText('sailed (1)')).toBeNull()
  await userEvent.click(screen.getByLabelText('Part 1: values, with commas'))
  expect(await screen.findByText('sailed (1)')).toHaveValue('S')
})

test('a measure is compared with its usual value, or with what it will reach', async () => {
  renderAt('/', <Page initial={[late]} />, {})
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: column' }), 'Fuel')
  await userEvent.selectOptions(
    screen.getByRole('combobox', { name: 'Part 1: compared with' }),
    'its usual value (median)',
  )
  await shows('litres > 1.5 * usual(litres, 8)')
  fireEvent.change(screen.getByLabelText('Part 1: number of checks'), { target: { value: '12' } })
  await shows('litres > 1.5 * usual(litres, 12)')
  fireEvent.change(screen.getByLabelText('Part 1: times the usual value'), { target: { value: '1' } })
  await shows('litres > usual(litres, 12)')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: compared with' }), 'a value')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: comparison' }), 'will reach')
  await shows('reaches(litres, 0) within 14 days')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 1: column' }), 'Late by')
  await shows('delay_min > 0')
})
