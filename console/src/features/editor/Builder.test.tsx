import { useState } from 'react'
import { render, screen, waitFor } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { expect, test } from 'vitest'
import type { ThresholdSummary } from '../thresholds/api'
import { Builder } from './Builder'
import { textOf, type Part } from './builder'

const columns = [
  { name: 'delay_min', label: 'Late by', type: 'number' },
  { name: 'status', label: 'Status', type: 'text' },
  { name: 'tickets', label: 'Tickets', type: 'number' },
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
  render(<Page initial={[late]} />)
  const field = screen.getByRole('textbox', { name: 'Part 1: value' })
  await userEvent.clear(field)
  await userEvent.type(field, '45')
  await shows('delay_min > 45')
  expect(field).toHaveFocus()
})

test('parts are added, changed and removed', async () => {
  render(<Page initial={[late]} />)
  await userEvent.click(screen.getByRole('button', { name: 'and …' }))
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 2: column' }), 'Status')
  await userEvent.selectOptions(screen.getByRole('combobox', { name: 'Part 2: comparison' }), 'is missing or empty')
  await shows("delay_min > 15 and coalesce(trim(status), '') = ''")
  await userEvent.click(screen.getByRole('button', { name: 'Remove part 1' }))
  await shows("coalesce(trim(status), '') = ''")
})

test('a threshold or another column takes the place of a value', async () => {
  render(<Page initial={[late]} />)
  const with_ = () => screen.getByRole('combobox', { name: 'Part 1: compared with' })
  await userEvent.selectOptions(with_(), 'threshold Late minutes (15)')
  await shows("delay_min > threshold('late_minutes')")
  await userEvent.selectOptions(with_(), 'Tickets')
  await shows('delay_min > tickets')
  await userEvent.selectOptions(with_(), 'a value')
  await shows('delay_min > 0')
})

test('of several alternatives the last that is left is a plain part', async () => {
  render(<Page initial={[status]} />)
  await userEvent.click(screen.getByRole('button', { name: 'any of …' }))
  await userEvent.click(screen.getByRole('button', { name: 'or …' }))
  await shows("status not in ('cancelled') and (delay_min > 0 or delay_min > 0 or delay_min > 0)")
  await userEvent.click(screen.getByRole('button', { name: 'Remove Part 2.3' }))
  await userEvent.click(screen.getByRole('button', { name: 'Remove Part 2.1' }))
  await shows("status not in ('cancelled') and delay_min > 0")
})

test('a value with a comma is typed in quotes', async () => {
  render(<Page initial={[status]} />)
  const field = screen.getByRole('textbox', { name: 'Part 1: values, with commas' })
  await userEvent.clear(field)
  await userEvent.type(field, "'Holm, north', Vik")
  await shows("status not in ('Holm, north', 'Vik')")
  expect(field).toHaveValue("'Holm, north', Vik")
})

test('a text that cannot be read has no fields and says why', () => {
  render(
    <Builder
      parts={null}
      settled
      counts={null}
      total={null}
      onChange={() => undefined}
      columns={columns}
      thresholds={[]}
    />,
  )
  expect(screen.getByText('Fix the text to see the fields again.')).toBeInTheDocument()
  expect(screen.queryByRole('group')).toBeNull()
})
