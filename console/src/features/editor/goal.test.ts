import type { Part } from './builder'
import {
  edgeOf,
  highestOf,
  nearest,
  outcomesOf,
  valuesAround,
  valuesBetween,
  variedOf,
  withValue,
  type Goal,
  type Outcome,
} from './goal'

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
  const quiet = { slots: [], messages: 0, updates: 0, difference: null }
  const loud = { slots, messages: 4, updates: 12, difference: null }
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

const outcome = (value: number, meets: boolean): Outcome => ({
  value,
  meets,
  highest: 0,
  messages: 0,
  findings: 0,
  difference: null,
})

test.each([
  ['upwards', [15, 20, 30, 40], 30, 15, 20],
  ['downwards', [5, 10, 15, 20], 10, 20, 15],
  ['beside the present', [15, 20], 20, 15, 15],
])('the edge of the goal lies next to the best value, towards the present: %s', (_, values, best, present, edge) => {
  const outcomes = values.map((value) => outcome(value, value === best))
  expect(edgeOf(outcomes, outcome(best, true), present)?.value).toBe(edge)
})

test('a present value that meets the goal has no edge to narrow down', () => {
  expect(edgeOf([outcome(10, false), outcome(15, true)], outcome(15, true), 15)).toBeNull()
  expect(valuesBetween(outcome(15, true), null)).toEqual([])
})

test.each<[number, number, number[]]>([
  [30, 25, [26, 27, 28, 29]],
  [25, 30, [26, 27, 28, 29]],
  [31, 30, []],
  [-10, -13, [-12, -11]],
  [0.5, 0.75, [0.5192, 0.5385, 0.5577, 0.5769, 0.5962, 0.6154, 0.6346, 0.6538, 0.6731, 0.6923, 0.7115, 0.7308]],
  [1000, 1000.5, []],
])('between %d and %d are tried %j', (best, edge, values) => {
  expect(valuesBetween(outcome(best, true), outcome(edge, false))).toEqual(values)
})

test('of many whole values between, twelve are tried', () => {
  const values = valuesBetween(outcome(900, true), outcome(600, false))
  expect(values).toHaveLength(12)
  expect(values.every((value) => Number.isInteger(value) && value > 600 && value < 900)).toBe(true)
})
