import { expect, test } from 'vitest'
import { textOfPart, type Simple } from './builder'
import { verbOf, verbs, withVerb } from './verbs'

const late: Simple = { is: 'compare', column: 'delay_min', operator: '>', operand: { kind: 'value', text: '15' } }
const ofThreshold: Simple = { ...late, operand: { kind: 'threshold', name: 'late_minutes', key: [] } }
const status: Simple = { is: 'in', column: 'status', options: ["'cancelled'", "'training'"], negated: true }
const window: Simple = { is: 'between', column: 'delay_min', low: '5', high: '10', negated: false }

test.each(verbs.map(([verb]) => verb))('a part that was given "%s" says so', (verb) => {
  for (const part of [late, ofThreshold, status, window]) expect(verbOf(withVerb(part, verb, 'number'))).toBe(verb)
})

test.each([
  [late, '<=', 'number', 'delay_min <= 15'],
  [ofThreshold, '<', 'number', "delay_min < threshold('late_minutes')"],
  [late, 'between', 'number', 'delay_min between 15 and 15'],
  [window, 'not between', 'number', 'delay_min not between 5 and 10'],
  [window, '>', 'number', 'delay_min > 5'],
  [late, 'in', 'number', 'delay_min in (15)'],
  [status, 'in', 'text', "status in ('cancelled', 'training')"],
  [status, '=', 'text', "status = 'cancelled'"],
  [status, 'missing', 'text', 'status is null'],
  [status, 'not empty', 'text', "coalesce(trim(status), '') <> ''"],
  [status, 'like', 'text', "status like '%'"],
  [ofThreshold, 'not in', 'number', 'delay_min not in (0)'],
] as const)('%j with "%s" keeps what still fits', (part, verb, type, text) => {
  expect(textOfPart(withVerb(part, verb, type))).toBe(text)
})

test.each([
  ['truth', ['missing', 'not missing', '=', '<>']],
  ['bytes', ['missing', 'not missing']],
  ['text', ['empty', 'like', 'in', 'between', '=']],
])('of %s columns are offered %j', (type, expected) => {
  const offered = verbs.filter(([, , fits]) => fits(type)).map(([verb]) => verb)
  expect(offered).toEqual(expect.arrayContaining(expected))
  expect(offered.includes('like')).toBe(type === 'text')
})
