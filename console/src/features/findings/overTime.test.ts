import { dayAfter, pointsOf, scaleOf } from './overTime'

test('a scale has a round top, few whole steps, and room for each value', () => {
  for (let highest = 0; highest < 3000; highest++) {
    const { top, steps } = scaleOf(highest)
    expect(top).toBeGreaterThanOrEqual(Math.max(1, highest))
    expect(top).toBeLessThanOrEqual(Math.max(2, highest * 2))
    expect(steps.length).toBeGreaterThan(1)
    expect(steps.length).toBeLessThan(7)
    expect(steps.every(Number.isInteger)).toBe(true)
    expect(steps.at(-1)).toBe(top)
  }
})

test('a line goes from edge to edge of its box', () => {
  const box = { left: 10, right: 110, top: 0, bottom: 20 }
  expect(pointsOf([0, 5, 10], 10, box)).toBe('10,20 60,10 110,0')
  expect(pointsOf([3], 10, box)).toBe('10,14')
})

test('days follow each other over the end of a month and of a year', () => {
  expect(dayAfter('2026-11-30', 1)).toBe('2026-12-01')
  expect(dayAfter('2026-12-31', 1)).toBe('2027-01-01')
  expect(dayAfter('2028-02-28', 1)).toBe('2028-02-29')
})
