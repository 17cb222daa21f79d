import type { DraftSeen, RuleDocument } from './api'
import { remarksOf, stepOf } from './steps'

const rule: RuleDocument = {
  kind: 'rule',
  name: 'late',
  title: 'Late',
  owner: 'Traffic',
  query: 'sailings',
  exceptions: 'delay_min > 15',
  schedule: { recur: ['FREQ=DAILY'] },
  delivery: { to: ['ines.holm@skerryline.example'] },
}
const seen = (more: object) =>
  ({
    draft: {
      rowsRead: 743,
      exceptions: 20,
      unknownRows: 0,
      wouldReport: 5,
      grouped: false,
      suggestions: [],
      nearest: [],
      ...more,
    },
    compared: null,
  }) as unknown as DraftSeen

test('a rule with everything has nothing to look at', () => expect(remarksOf(rule, undefined, seen({}))).toEqual([]))

test('what is missing comes before what is risky, each with its step', () => {
  const review = {
    kind: 'rule',
    name: 'late',
    text: null,
    before: null,
    revision: 0,
    effect: null,
    added: [],
    problems: [
      {
        weight: 'ERROR' as const,
        message: 'needs the columns that tell one from another',
        field: 'memory.key',
        suggestion: null,
      },
    ],
  }
  const remarks = remarksOf({ ...rule, delivery: {}, schedule: {} }, review, seen({ exceptions: 0, unknownRows: 2 }))
  expect(remarks[0]).toMatchObject({ label: 'Key columns', words: 'needs the columns that tell one from another' })
  expect(remarks.map(({ step, missing }) => [step, missing])).toEqual([
    ['memory', true],
    ['delivery', true],
    ['conditions', false],
    ['conditions', false],
    ['schedule', false],
  ])
})

test('a comparison the wrong way round is seen before it is saved', () => {
  expect(remarksOf(rule, undefined, seen({ exceptions: 743 }))[0]?.words).toBe(
    'All rows in the current result are exceptions. Is a comparison reversed?',
  )
})

test('of a condition that nothing meets one sees how near the values come', () => {
  const nearest = [{ column: 'delay_min', label: 'Late by', highest: true, text: '95 min' }]
  expect(remarksOf(rule, undefined, seen({ exceptions: 0, nearest }))[0]?.words).toBe(
    'No row in the current result is an exception. Is a comparison reversed? The highest value of Late by is 95 min.',
  )
})

test('empty texts that a condition passes over are said', () => {
  expect(
    remarksOf(
      rule,
      undefined,
      seen({
        suggestions: [
          { column: 'reason', rows: 3, condition: '', empty: true },
          { column: 'delay_min', rows: 9, condition: '', empty: false },
        ],
      }),
    ),
  ).toEqual([
    {
      step: 'conditions',
      words: '3 rows with an empty text in reason are not matched by “is missing”; “is missing or empty” matches them.',
      missing: false,
    },
  ])
})

test.each([
  ['delivery.to[0]', 'delivery'],
  ['severity[1]', 'conditions'],
  ['schedule.recur[0]', 'schedule'],
  ['parameters.since', 'query'],
  [undefined, 'query'],
])('%s stands in the step %s', (field, step) => expect(stepOf(field)).toBe(step))
