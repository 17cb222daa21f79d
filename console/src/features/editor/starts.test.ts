import { textOfPart, withPart, type Simple } from './builder'
import { startsOf, verbWords } from './starts'

const column = (type: string) => ({ name: 'c', label: 'C', type })

test.each([
  ['number', '34', ['c > 34', 'c >= 34', 'c < 34', 'c = 34']],
  ['text', "Kaptein's", ["c = 'Kaptein''s'", "c <> 'Kaptein''s'", 'c is null']],
  ['text', 'x'.repeat(61), ['c is not null', 'c is null']],
  ['date', '2026-11-22', ['c in last 7 days', "c >= date '2026-11-22'", "c < date '2026-11-22'"]],
  [
    'instant',
    '2026-11-22 22:01+01:00',
    ['c in last 7 days', "c >= timestamp '2026-11-22 22:01'", "c < timestamp '2026-11-22 22:01'"],
  ],
  ['truth', 'false', ['c = false', 'c <> false', 'c is null']],
  ['bytes', '\\x00', ['c is not null', 'c is null']],
  ['number', null, ['c is null', 'c is not null']],
])('a %s cell with %s suggests %j', (type, cell, texts) => {
  const starts = startsOf(column(type), cell)
  expect(starts.map(textOfPart)).toEqual(texts)
  for (const part of starts) expect(verbWords(part, type)).toMatch(/^is/)
})

test.each([
  ['', 'c is null'],
  ['  ', 'c is null'],
  ['a > 1', 'a > 1 and c is null'],
  ['a > 1 or b', '(a > 1 or b) and c is null'],
])('to %j a part is added', (text, whole) => {
  const missing: Simple = { is: 'missing', column: 'c', negated: false }
  expect(withPart(text, missing)).toBe(whole)
})
