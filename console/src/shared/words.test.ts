import {
  ageWords,
  cellWords,
  countWords,
  measureWords,
  unevaluatedWords,
  outcomeWords,
  stateWords,
  timeWords,
  zonedWords,
} from './words'
import { check } from './render.test-kit'

test.each([
  [
    check('QUIET', { unknownRows: 2 }),
    'Nothing new, so nothing was sent. 743 rows read, 20 exceptions, 2 rows unknown (value missing).',
  ],
  [check('FIRED', { updates: 1, messages: 1 }), '1 finding reported in 1 message. 743 rows read, 20 exceptions.'],
  [
    check('FAILED', { reason: 'The source ferry did not answer.' }),
    'The check failed. The source ferry did not answer.',
  ],
  [
    check('SKIPPED', { reason: 'A later slot was done already.' }),
    'The check ended: skipped. A later slot was done already.',
  ],
])('tells how a check ended', (ended, words) => expect(outcomeWords(ended)).toBe(words))

test('states are told in words and counts in their number', () => {
  expect(stateWords('AGED_OUT')).toBe('aged out')
  expect(countWords(1, true)).toBe('1 group')
  expect(countWords(0, false)).toBe('0 rows')
  expect(countWords(1_000_000, false)).toBe(`${(1_000_000).toLocaleString()} rows`)
})

test("the time of a rule's zone stands beside the reader's where they differ", () => {
  const slot = '2026-12-21T05:30:00Z'
  expect(zonedWords(slot, Intl.DateTimeFormat().resolvedOptions().timeZone)).toBe(timeWords(slot))
  expect(zonedWords(slot, 'Asia/Kathmandu')).toMatch(/ \(.*11:15.* in Kathmandu\)$/)
})

test('unknown groups are named by reason, and those not named are counted', () => {
  const learning = 'still learning usual(fuel, 8), 3 of 8'
  const unevaluatedGroups = [
    { group: 'Terna', reason: learning },
    { group: 'Skua', reason: 'miles is missing' },
    { group: 'Lomvi', reason: learning },
  ]
  expect(unevaluatedWords({ unevaluated: 3, unevaluatedGroups })).toBe(
    `Terna, Lomvi: ${learning}; Skua: miles is missing`,
  )
  expect(unevaluatedWords({ unevaluated: 9, unevaluatedGroups: unevaluatedGroups.slice(1, 2) })).toBe(
    'Skua: miles is missing; and 8 more',
  )
})

test.each([
  [52.63261851, '52.633'],
  [0.000412345, '0.000412'],
  [12.5, '12.5'],
  [1234.5678, '1,234.568'],
  [0, '0'],
])('%d is read as %s', (value, words) => expect(measureWords(value)).toBe(words))

test.each([
  ['93265.0', 'number', '93265'],
  ['12345', 'number', '12345'],
  ['0.10', 'number', '0.1'],
  ['SK-412', 'text', 'SK-412'],
  ['2026-11-22', 'date', '2026-11-22'],
])('%s as %s is shown as %s', (text, type, words) => expect(cellWords(text, type)).toBe(words))

test.each([
  ['2026-11-22 13:14+05:45', /13:14 \+05:45$/],
  ['1999-11-22 13:14:05.000250+05:45', /1999.*13:14:05\.000250 \+05:45$/],
])('an instant in a cell is told as it stands in the rule’s zone: %s', (text, words) =>
  expect(cellWords(text)).toMatch(words),
)

test('where the reader’s clock shows the same, no offset is told', () => {
  const here = new Date('2026-11-22T12:14:00Z')
  const minutes = -here.getTimezoneOffset()
  const local = new Date(here.getTime() + minutes * 60_000).toISOString().slice(0, 16).replace('T', ' ')
  const two = (number: number) => String(Math.floor(number)).padStart(2, '0')
  const text = `${local}${minutes < 0 ? '-' : '+'}${two(Math.abs(minutes) / 60)}:${two(Math.abs(minutes) % 60)}`
  expect(cellWords(text)).toMatch(new RegExp(`${local.slice(11)}$`))
})

test.each([
  ['2026-11-24T11:20:00Z', '40 min'],
  ['2026-11-24T02:00:00Z', '10 hours'],
  ['2026-11-21T11:00:00Z', '3 days'],
])('since %s it is %s', (since, words) => expect(ageWords(since, '2026-11-24T12:00:00Z')).toBe(words))
