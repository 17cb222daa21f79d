import { expect, test } from 'vitest'
import { textOfPart, type Simple } from './builder'
import { lookingFor, lookOf, verbOf, verbs, verbsFor, withColumn, withVerb } from './verbs'

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
  [status, 'like', 'text', "status like '%_%'"],
  [status, 'contains', 'text', "status like '%cancelled%'"],
  [status, 'not begins', 'text', "status not like 'cancelled%'"],
  [late, 'last', 'timestamp', 'delay_min in last 7 days'],
  [late, 'not older', 'timestamp', 'delay_min not older than 7 days'],
  [late, 'calendar', 'date', 'delay_min in this week'],
  [ofThreshold, 'not in', 'number', 'delay_min not in (0)'],
] as const)('%j with "%s" keeps what still fits', (part, verb, type, text) => {
  expect(textOfPart(withVerb(part, verb, type))).toBe(text)
})

test.each([
  ['truth', ['=', '<>', 'missing', 'not missing']],
  ['bytes', ['missing', 'not missing']],
  ['text', ['=', 'contains', 'begins', 'ends', 'in', 'empty', 'like', 'between']],
  ['date', ['last', 'next', 'older', 'calendar', '<', '>=', 'between', 'in']],
  ['number', ['>', '<=', 'between', 'in', 'missing']],
])('of %s columns are offered %j', (type, expected) => {
  const offered = verbsFor(type, 'missing').map(([verb]) => verb)
  expect(offered).toEqual(expect.arrayContaining(expected))
  expect(new Set(offered).size).toBe(offered.length)
  expect(offered.includes('contains')).toBe(type === 'text')
  expect(offered.includes('last')).toBe(type === 'date')
  expect(offered.includes('>')).toBe(type === 'date' || type === 'number')
})

test('what a part has already is offered even if it does not fit', () => {
  expect(verbsFor('text', '>').map(([verb]) => verb)).toContain('>')
})

test.each([
  ['contains', 'Holm', "'%Holm%'", undefined],
  ['begins', 'Holm', "'Holm%'", undefined],
  ['ends', 'Holm', "'%Holm'", undefined],
  ['contains', "Kaptein's", "'%Kaptein''s%'", undefined],
  ['contains', '100 %', "'%100 !%%'", '!'],
  ['begins', 'a_b!', "'a!_b!!%'", '!'],
  ['ends', '%', "'%!%'", '!'],
  ['like', 'H_lm%', "'H_lm%'", undefined],
] as const)('%s "%s" is the pattern %s and is read as such', (way, text, pattern, escape) => {
  const part = lookingFor('route', way, text, false)
  expect(part).toMatchObject({ pattern, ...(escape ? { escape } : {}) })
  expect(lookOf(part)).toEqual({ way, text })
})

test.each([
  ["'%'", undefined],
  ["'%a!%'", '!'],
  ["'a'", undefined],
  ["'%a?%%'", '?'],
  ["'%!a%'", '!'],
])('the pattern %s stays as it is written', (pattern, escape) => {
  const part = { is: 'like', column: 'route', pattern, ...(escape ? { escape } : {}), negated: false } as const
  const { way, text } = lookOf(part)
  const again = way === 'like' && escape ? part : lookingFor('route', way, text, false)
  expect(again).toEqual(part)
})

test.each([
  [late, 'number', 'number', 'heads > 15'],
  [late, 'number', 'text', "heads = ''"],
  [late, 'number', 'date', 'heads in last 7 days'],
  [late, 'number', 'truth', 'heads = true'],
  [{ is: 'missing', column: 'reason', negated: true }, 'text', 'date', 'heads is not null'],
  [{ is: 'empty', column: 'reason', negated: true }, 'text', 'date', 'heads in last 7 days'],
] as const)('%j moved from a %s to a %s column', (part, before, type, text) => {
  expect(textOfPart(withColumn(part, 'heads', before, type))).toBe(text)
})
