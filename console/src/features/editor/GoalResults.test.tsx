import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import type { Variant, Work } from './api'
import type { Part } from './builder'
import { GoalResults, type Advice, type GoalQuestion } from './GoalResults'

const parts: Part[] = [{ is: 'compare', column: 'delay_min', operator: '>', operand: { kind: 'value', text: '15' } }]
const question = {
  varied: { is: 'number', index: 0, column: 'delay_min', operator: '>', value: 15 },
  present: 15,
  goal: { most: 3, of: 'messages', each: 'week' },
  parts,
  document: { zone: 'Europe/Oslo' },
  days: 60,
} as unknown as GoalQuestion

const days = (count: number) =>
  Array.from({ length: count }, (_, day) => ({ slot: `2026-11-${16 + day}T05:00:00Z`, updates: 1 }))
const edge = (finding: string, decided: string) => ({ slot: '2026-11-20T05:00:00Z', finding, decided })
const variant = (messages: number, difference: Variant['difference'] = null) =>
  ({ slots: days(messages), messages, updates: messages, difference }) as unknown as Variant
const done = (id: string, variants: Variant[]) => ({ id, state: 'DONE', result: { variants } }) as unknown as Work

const first = {
  values: [20, 30],
  work: done('first', [
    variant(6),
    variant(5),
    variant(2, {
      fewer: 4,
      firstFewer: [edge('SK-7', 'Delay 24 min'), edge('SK-9', 'Delay 16 min')],
      more: 0,
      firstMore: [],
    }),
  ]),
}
const second = {
  values: [21, 25],
  work: done('second', [variant(6), variant(5), variant(3, { fewer: 3, firstFewer: [], more: 1, firstMore: [] })]),
}

function show() {
  const used: Advice[] = []
  const asked: number[][] = []
  renderAt(
    '/',
    <GoalResults
      question={question}
      first={first}
      onNarrow={(_, values) => {
        asked.push(values)
        return Promise.resolve(second)
      }}
      onUse={(advice) => used.push(advice)}
    />,
    { 'GET /api/long-work/first': first.work, 'GET /api/long-work/second': second.work },
  )
  return { used, asked }
}

test('the nearest value comes with the findings that lie between', async () => {
  show()
  expect(await screen.findByText(/at most 3 messages a week is 30/)).toBeInTheDocument()
  expect(screen.getByText(/30 would have left out 4 findings and told 0 in addition/)).toBeInTheDocument()
  const rows = within(screen.getByRole('region', { name: 'No longer told' }))
  expect(rows.getByText('No longer told, the latest 2')).toBeInTheDocument()
  expect(rows.getByText('Delay 24 min')).toBeInTheDocument()
})

test('values between the best and the next that does not meet the goal are tried when asked', async () => {
  const { asked, used } = show()
  await userEvent.click(await screen.findByRole('button', { name: 'Try values from 21 to 29' }))
  expect(asked).toEqual([[21, 22, 23, 24, 25, 26, 27, 28, 29]])
  expect(await screen.findByText(/at most 3 messages a week is 25/)).toBeInTheDocument()
  expect(screen.getAllByRole('row').map((row) => row.textContent)).toHaveLength(6)
  await userEvent.click(screen.getByRole('button', { name: 'Use 25' }))
  expect(used[0]?.exceptions).toBe('delay_min > 25')
  expect(used[0]?.reason).toContain('25 instead of 15')
})

test('another value is looked at by pressing it, and can be used', async () => {
  const { used } = show()
  await userEvent.click(await screen.findByRole('button', { name: '20' }))
  expect(screen.getByText('20 would have told the same findings as 15.')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Use 20' }))
  expect(used).toHaveLength(1)
})
