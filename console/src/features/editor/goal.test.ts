import type { Part } from './builder'
import { highestOf, nearest, outcomesOf, valuesAround, variedOf, withValue, type Goal } from './goal'

const late: Part = { is: 'compare', column: 'delay_min', operator: '>', operand: { kind: 'value', text: '15' } }
const load: Part = {
  is: 'compare',
  column: 'load',
  operator: '<',
  operand: { kind: 'threshold', name: 'poor_load', key: ['route'] },
}
const status: Part = { is: 'compare', column: 'status', operator: '=', operand: { kind: 'value', text: "'sailed'" } }

test('numbers and thresholds of comparisons can be varied, in the order of the condition', () => {
  expect(variedOf([late, status, load], [{ name: 'poor_load', number: 40 }])).toEqual([
    { is: 'number', index: 0, column: 'delay_min', operator: '>', value: 15 },
    { is: 'threshold', name: 'poor_load', value: 40 },
  ])
  expect(variedOf([status], [])).toEqual([])
})

test.each([
  [20, [5, 10, 14, 16, 18, 22, 25, 30, 40, 60, 80, 120]],
  [0, [1, 2, 3, 5, 8, 10, 15, 20, 30, 50, 75, 100]],
  [0.5, [0.125, 0.25, 0.35, 0.4, 0.45, 0.55, 0.625, 0.75, 1, 1.5, 2, 3]],
  [-10, [-3, -5, -7, -8, -9, -11, -13, -15, -20, -30, -40, -60]],
])('around %d are tried %j', (value, values) => {
  expect(valuesAround(value)).toEqual(values)
  expect(valuesAround(value).length).toBeLessThanOrEqual(12)
})

test('another value goes into its part alone', () => {
  expect(withValue([late, load], 0, 30)).toBe("delay_min > 30 and load < threshold('poor_load', route)")
})

const slot = (at: string, updates: number) => ({ slot: at, updates, exceptions: 0, critical: 0, unevaluated: 0 })
const slots = [
  slot('2026-11-22T22:30:00Z', 2), // Sunday 23:30 in Oslo
  slot('2026-11-22T23:30:00Z', 1), // Monday 00:30 in Oslo
  slot('2026-11-25T05:00:00Z', 4),
  slot('2026-11-26T05:00:00Z', 0),
  slot('2026-12-01T05:00:00Z', 5),
]

test.each<[Goal['of'], Goal['each'], string, number]>([
  ['messages', 'week', 'Europe/Oslo', 2],
  ['messages', 'week', 'UTC', 2],
  ['findings', 'week', 'Europe/Oslo', 5],
  ['findings', 'week', 'UTC', 5],
  ['findings', 'month', 'Europe/Oslo', 7],
  ['messages', 'month', 'Europe/Oslo', 3],
])('the highest number of %s of a %s in %s is %d', (of, each, zone, highest) => {
  expect(highestOf({ slots }, { of, each }, zone)).toBe(highest)
})

test('without a message the highest is none', () => {
  expect(highestOf({ slots: [] }, { of: 'messages', each: 'week' }, 'UTC')).toBe(0)
})

test('of the values that meet the goal the nearest is offered', () => {
  const goal: Goal = { most: 1, of: 'messages', each: 'week' }
  const quiet = { slots: [], messages: 0, updates: 0 }
  const loud = { slots, messages: 4, updates: 12 }
  const outcomes = outcomesOf([loud, quiet, loud, quiet], [15, 40, 10, 25], goal, 'UTC')
  expect(outcomes.map(({ value, meets }) => [value, meets])).toEqual([
    [10, false],
    [15, false],
    [25, true],
    [40, true],
  ])
  expect(nearest(outcomes, 15)?.value).toBe(25)
  expect(nearest(outcomes.slice(0, 2), 15)).toBeNull()
})
