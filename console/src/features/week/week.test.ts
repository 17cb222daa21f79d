import type { Hour } from './api'
import { cellsOf, daysAfter, keyOf, levelOf, mondayOf } from './week'

const hour = (from: string, checks = 0): Hour => ({ from, checks, seconds: 0, messages: 0, rules: [] })

test.each([
  ['2026-11-30T03:00:00Z', 'Europe/Oslo', '2026-11-30'],
  ['2026-11-29T23:30:00Z', 'Europe/Oslo', '2026-11-30'],
  ['2026-11-29T22:30:00Z', 'Europe/Oslo', '2026-11-23'],
  ['2027-01-01T12:00:00Z', 'UTC', '2026-12-28'],
])('the week of %s in %s begins on %s', (now, zone, monday) => {
  expect(mondayOf(new Date(now), zone)).toBe(monday)
})

test('days are counted by the calendar, whatever the clocks do', () => {
  expect(daysAfter('2027-03-27', 2)).toBe('2027-03-29')
  expect(daysAfter('2027-01-01', -1)).toBe('2026-12-31')
})

test('an hour that the clocks repeat is in one cell, and one that they leave out in none', () => {
  const cells = cellsOf(
    ['2026-10-25T00:00:00Z', '2026-10-25T01:00:00Z', '2026-10-25T02:00:00Z'].map((from) => hour(from)),
    'Europe/Oslo',
  )
  expect(cells.get(keyOf('2026-10-25', 2))?.hours).toHaveLength(2)
  expect(cells.get(keyOf('2026-10-25', 3))?.hours).toHaveLength(1)
  const spring = cellsOf(
    ['2027-03-28T00:00:00Z', '2027-03-28T01:00:00Z'].map((from) => hour(from)),
    'Europe/Oslo',
  )
  expect([...spring.keys()]).toEqual([keyOf('2027-03-28', 1), keyOf('2027-03-28', 3)])
})

test('the fullest hour has the highest level, and an empty one none', () => {
  expect([0, 9, 10, 11, 12].map((value) => levelOf(value, 9, 12))).toEqual([0, 1, 2, 3, 4])
  expect([0, 5].map((value) => levelOf(value, 5, 5))).toEqual([0, 1])
})
