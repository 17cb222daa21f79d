import type { SchedulePart } from './parts'
import { choiceOf, recurOf, scheduleOf, startOf, usual, withRhythm, type Choice } from './recurrence'

test.each([
  ['FREQ=WEEKLY;BYDAY=MO,TU', 'week'],
  ['FREQ=WEEKLY;INTERVAL=2;BYDAY=FR', 'week'],
  ['FREQ=DAILY', 'day'],
  ['FREQ=MINUTELY;INTERVAL=10', 'minutes'],
  ['FREQ=MINUTELY;INTERVAL=10;BYHOUR=6,7,8,9', 'minutes'],
  ['FREQ=HOURLY;INTERVAL=2', 'hours'],
  ['FREQ=HOURLY;INTERVAL=1;BYHOUR=22,23', 'hours'],
  ['FREQ=MONTHLY;BYMONTHDAY=-1', 'month'],
  ['FREQ=MONTHLY;BYDAY=2TU', 'weekday'],
  ['FREQ=MONTHLY;BYDAY=-1FR', 'weekday'],
  ['FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=1', 'year'],
])('%s is chosen as %s and written the same', (recur, rhythm) => {
  const choice = choiceOf({ recur: [recur], start: '2026-01-05T05:40' })
  expect(choice?.rhythm).toBe(rhythm)
  expect(choice && recurOf(choice)).toEqual([recur])
})

test.each<[SchedulePart, string]>([
  [{ also: ['2026-12-24T12:00'] }, 'once'],
  [{ working_days: [3], start: '2026-01-05T05:40' }, 'workingDay'],
  [{ working_days: [-1], start: '2026-01-05T05:40' }, 'workingDay'],
  [{}, 'none'],
])('%o is chosen as %s and comes back', (schedule, rhythm) => {
  const choice = choiceOf(schedule)
  expect(choice?.rhythm).toBe(rhythm)
  const back = choice && scheduleOf(choice, schedule.start)
  expect(back).toEqual({
    recur: [],
    start: schedule.start ?? '',
    working_days: schedule.working_days ?? [],
    also: schedule.also ?? [],
  })
})

test.each<[SchedulePart]>([
  [{ recur: ['FREQ=MONTHLY;BYDAY=2TU,3TU'] }],
  [{ recur: ['FREQ=MONTHLY;BYDAY=5TU'] }],
  [{ recur: ['FREQ=MINUTELY;INTERVAL=10;BYHOUR=6,8'] }],
  [{ recur: ['FREQ=DAILY', 'FREQ=HOURLY'] }],
  [{ recur: ['FREQ=WEEKLY;BYDAY=MO;BYSETPOS=1'] }],
  [{ recur: ['FREQ=DAILY'], also: ['2026-12-24T12:00'] }],
  [{ recur: ['FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=-1'] }],
  [{ working_days: [3, 5] }],
])('%o says more than can be chosen', (schedule) => {
  expect(choiceOf(schedule)).toBeNull()
})

test('the time stands in the start, whose day stays', () => {
  const week: Choice = { ...usual(), rhythm: 'week', days: ['MO'], time: '06:15' }
  expect(startOf(week, '2026-01-05T05:40')).toBe('2026-01-05T06:15')
  expect(startOf({ ...week, rhythm: 'minutes' }, '2026-01-05T05:40')).toBe('2026-01-05T05:40')
})

test.each<[Choice['rhythm'], string[]]>([
  ['week', ['FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR']],
  ['weekday', ['FREQ=MONTHLY;BYDAY=4MO']],
  ['minutes', ['FREQ=MINUTELY;INTERVAL=10']],
  ['once', []],
])('what suits %s is filled in', (rhythm, recur) => {
  expect(recurOf(withRhythm({ ...usual(), monthDay: 31 }, rhythm))).toEqual(recur)
})
