import { choiceOf, recurOf, startOf } from './recurrence'

test.each([
  ['FREQ=WEEKLY;BYDAY=MO,TU', 'week'],
  ['FREQ=DAILY', 'day'],
  ['FREQ=MINUTELY;INTERVAL=10', 'minutes'],
  ['FREQ=HOURLY;INTERVAL=2', 'hours'],
  ['FREQ=MONTHLY;BYMONTHDAY=-1', 'month'],
])('%s is chosen as %s and written the same', (recur, rhythm) => {
  const choice = choiceOf({ recur: [recur], start: '2026-01-05T05:40' })
  expect(choice?.rhythm).toBe(rhythm)
  expect(choice && recurOf(choice)).toEqual([recur])
})

test.each([
  [{ recur: ['FREQ=MONTHLY;BYDAY=2TU'] }],
  [{ recur: ['FREQ=DAILY', 'FREQ=HOURLY'] }],
  [{ recur: ['FREQ=WEEKLY;BYDAY=MO;BYSETPOS=1'] }],
  [{ working_days: [3] }],
])('%o says more than can be chosen', (schedule) => {
  expect(choiceOf(schedule)).toBeNull()
})

test('the time stands in the start, whose day stays', () => {
  expect(startOf({ rhythm: 'week', days: ['MO'], time: '06:15', every: 1, monthDay: 1 }, '2026-01-05T05:40')).toBe(
    '2026-01-05T06:15',
  )
})
