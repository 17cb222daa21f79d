import type { RuleDocument } from './api'
import { evaluating, freshName, measureOf, measureText, withKind } from './measures'

const columns = [
  { name: 'vessel', type: 'text' },
  { name: 'litres', type: 'number' },
]

test.each([
  ['count()', 'rows', '', ''],
  ['count(heads)', 'present', 'heads', ''],
  ['count(distinct "Kaptein Å")', 'different', '"Kaptein Å"', ''],
  ['sum(litres)', 'sum', 'litres', ''],
  [
    "avg(delay_min) filter (where status = 'S)' and (a > 1 or b))",
    'avg',
    'delay_min',
    "status = 'S)' and (a > 1 or b)",
  ],
  ['share(where heads is null)', 'share', '', 'heads is null'],
  ['count() filter (where delay_min > 15)', 'rows', '', 'delay_min > 15'],
])('%s has fields, and they write it again', (text, kind, column, where) => {
  const measured = measureOf(text)
  expect(measured).toMatchObject({ kind, column, where })
  expect(measureText(measured)).toBe(text)
})

test.each([
  'sum(litres) / sum(miles)',
  'share(where a) + share(where b)',
  'sum(litres * price)',
  'count() filter (where a) / count()',
  'percentile(litres, 95) - median(litres)',
])('%s is a formula, and stays as it is written', (text) => {
  expect(measureOf(text)).toEqual({ kind: 'formula', column: '', percent: '', where: text })
  expect(measureText(measureOf(text))).toBe(text)
})

test('another calculation keeps what it has a use for', () => {
  const sum = measureOf("sum(litres) filter (where vessel = 'Terna')")
  expect(measureText(withKind(sum, 'max', columns))).toBe("max(litres) filter (where vessel = 'Terna')")
  expect(measureText(withKind(sum, 'rows', columns))).toBe("count() filter (where vessel = 'Terna')")
  expect(measureText(withKind(measureOf('count()'), 'percentile', columns))).toBe('percentile(litres, 95)')
  expect(measureText(withKind(measureOf('count()'), 'share', columns))).toBe('share(where vessel is null)')
  expect(measureText(withKind(sum, 'formula', columns))).toBe("sum(litres) filter (where vessel = 'Terna')")
})

test('a name is one that conditions can use and nobody has', () => {
  expect(freshName(measureOf('count()'), [])).toBe('number_of_rows')
  expect(freshName(measureOf('sum(litres)'), ['sum_litres'])).toBe('sum_litres_2')
  expect(freshName(measureOf('count(distinct "Kaptein Å")'), [])).toBe('different_kaptein')
  expect(freshName(measureOf('a / b'), [])).toBe('measure')
})

test('of groups that are evaluated no more, no field is left', () => {
  const rule: RuleDocument = { kind: 'rule', name: 'fuel', title: 'Fuel', owner: 'Technical', query: 'bunkering' }
  const measures = { fuel: 'sum(litres)' }
  const groups: RuleDocument = { ...rule, per: ['vessel'], measures, expected_groups: 'last 5 checks' }
  expect({ ...groups, ...evaluating('rows', columns, groups) }).toEqual(rule)
  expect({ ...groups, ...evaluating('whole', columns, groups) }).toEqual({ ...rule, per: [], measures })
  expect(evaluating('groups', columns, rule)).toEqual({ per: ['vessel'], measures: { how_many: 'count()' } })
})
