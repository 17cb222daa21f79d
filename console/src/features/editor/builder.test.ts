import type { Tree } from './api'
import {
  columnNamed,
  listed,
  listText,
  literal,
  nameInCondition,
  partsOf,
  textOf,
  unquoted,
  type Part,
} from './builder'

const column = (name: string): Tree => ({ is: 'column', name, quoted: false })
const value = (text: string): Tree => ({ is: 'literal', text })

const trimmed = (name: string): Tree => ({
  is: 'call',
  name: 'coalesce',
  arguments: [{ is: 'call', name: 'trim', arguments: [column(name)] }, value("''")],
})

const trees: [string, Tree, string][] = [
  ['delay_min > 15', { is: 'comparison', operator: 'more', left: column('delay_min'), right: value('15') }, 'compare'],
  [
    'delay_min <> tickets',
    { is: 'comparison', operator: 'unequal', left: column('delay_min'), right: column('tickets') },
    'compare',
  ],
  [
    "load < threshold('poor_load', route)",
    {
      is: 'comparison',
      operator: 'less',
      left: column('load'),
      right: { is: 'threshold', name: 'poor_load', key: [column('route')] },
    },
    'compare',
  ],
  ['reason is not null', { is: 'missing', operand: column('reason'), negated: true }, 'missing'],
  [
    "status not in ('cancelled', 'training')",
    { is: 'in', operand: column('status'), options: [value("'cancelled'"), value("'training'")], negated: true },
    'in',
  ],
  [
    'delay_min between 5 and 10',
    { is: 'between', operand: column('delay_min'), low: value('5'), high: value('10'), negated: false },
    'between',
  ],
  [
    "reason like '%fog%'",
    { is: 'like', operand: column('reason'), pattern: value("'%fog%'"), escape: null, negated: false },
    'like',
  ],
  [
    "coalesce(trim(reason), '') <> ''",
    { is: 'comparison', operator: 'unequal', left: trimmed('reason'), right: value("''") },
    'empty',
  ],
  [
    "reason like '%10!%%' escape '!'",
    { is: 'like', operand: column('reason'), pattern: value("'%10!%%'"), escape: '!', negated: false },
    'like',
  ],
  [
    'planned not in last 7 days',
    { is: 'within', operand: column('planned'), window: 'last 7 days', negated: true },
    'within',
  ],
  [
    'planned older than 1 hour',
    { is: 'within', operand: column('planned'), window: 'older than 1 hour', negated: false },
    'within',
  ],
  [
    'planned in previous month',
    { is: 'within', operand: column('planned'), window: 'previous month', negated: false },
    'within',
  ],
  [
    'planned in last 1 day 12 hours',
    { is: 'within', operand: column('planned'), window: 'last 1 day 12 hours', negated: false },
    'text',
  ],
  [
    'due < today() + 30 days',
    {
      is: 'comparison',
      operator: 'less',
      left: column('due'),
      right: {
        is: 'arithmetic',
        operator: 'add',
        left: { is: 'call', name: 'today', arguments: [] },
        right: value('30 days'),
      },
    },
    'compare',
  ],
  [
    'planned <= now()',
    {
      is: 'comparison',
      operator: 'at most',
      left: column('planned'),
      right: { is: 'call', name: 'now', arguments: [] },
    },
    'compare',
  ],
  [
    "lower(reason) = 'fog'",
    { is: 'comparison', operator: 'equal', left: { is: 'call', name: 'lower' }, right: value("'fog'") },
    'text',
  ],
  [
    'change_pct(litres) > 20',
    {
      is: 'comparison',
      operator: 'more',
      left: { is: 'history', kind: 'change pct', measured: column('litres'), points: null },
      right: value('20'),
    },
    'compare',
  ],
  [
    'litres > 1.5 * usual(litres, 8)',
    {
      is: 'comparison',
      operator: 'more',
      left: column('litres'),
      right: {
        is: 'arithmetic',
        operator: 'multiply',
        left: value('1.5'),
        right: { is: 'history', kind: 'usual', measured: column('litres'), points: 8 },
      },
    },
    'compare',
  ],
  [
    "reaches(litres, threshold('tank')) within 14 days",
    {
      is: 'history',
      kind: 'reaches',
      measured: column('litres'),
      target: { is: 'threshold', name: 'tank', key: [] },
      within: '14 days',
    },
    'reaches',
  ],
  [
    'days_between(today(), due) < 30',
    {
      is: 'comparison',
      operator: 'less',
      left: {
        is: 'call',
        name: 'days_between',
        arguments: [{ is: 'call', name: 'today', arguments: [] }, column('due')],
      },
      right: value('30'),
    },
    'compare',
  ],
  [
    'spread(litres, 8) > 3',
    {
      is: 'comparison',
      operator: 'more',
      left: { is: 'history', kind: 'spread', measured: column('litres'), points: 8 },
      right: value('3'),
    },
    'text',
  ],
]

test.each(trees)('%s has fields, or stays as it is written, and comes back the same', (text, tree, is) => {
  const parts = partsOf(tree, [text])
  expect(parts.map((part) => part.is)).toEqual([is])
  expect(textOf(parts)).toBe(text)
})

test('a condition of many parts comes back with brackets only where it would be read otherwise', () => {
  const [late = { is: '' }, , , missing = { is: '' }] = trees.map(([, tree]) => tree)
  const call = trees.at(-1)?.[1] ?? { is: '' }
  const either: Tree = { is: 'or', operands: [missing, late] }
  const parts = partsOf({ is: 'and', operands: [late, either, call] }, [
    'delay_min > 15',
    'reason is not null or delay_min > 15',
    "lower(reason) = 'fog'",
  ])
  expect(parts.map((part) => part.is)).toEqual(['compare', 'either', 'text'])
  expect(textOf(parts)).toBe("delay_min > 15 and (reason is not null or delay_min > 15) and lower(reason) = 'fog'")
  const alone: Part[] = partsOf(either, ['reason is not null or delay_min > 15'])
  expect(textOf(alone)).toBe('reason is not null or delay_min > 15')
})

test.each([
  ['15', 'number', '15'],
  ["Holm's", 'text', "'Holm''s'"],
  ['2026-06-01', 'date', "date '2026-06-01'"],
  ['2026-06-01 05:40', 'instant', "timestamp '2026-06-01 05:40'"],
  ['2026-06-01', 'timestamp', "date '2026-06-01'"],
  ['today() - 2 days', 'instant', 'today() - 2 days'],
])('%s as %s is written %s', (typed, type, text) => {
  expect(literal(typed, type)).toBe(text)
  expect(unquoted(text)).toBe(typed)
})

test.each(["'tis", "'a' or 'b'", 'Skjærnes – Måkehamn', "''", 'a, b', "rock 'n' roll", '%', '\\', 'null', '15'])(
  'a text %j is one value, whatever it holds',
  (typed) => {
    const written = literal(typed, 'text')
    expect(written).toMatch(/^'(?:[^']|'')*'$/)
    if (typed !== "''") expect(unquoted(written)).toBe(typed)
  },
)

test.each([
  [["'cancelled'", "'training'"], 'cancelled, training'],
  [["'Holm, north'", "'Vik'"], "'Holm, north', Vik"],
  [["'it''s late, again'"], "'it''s late, again'"],
  [["'Ærfugl'"], 'Ærfugl'],
])('%j stand in a field as %s and come back', (options, shown) => {
  expect(listText(options)).toBe(shown)
  expect(listed(shown, 'text')).toEqual(options)
})

test.each([
  ['1, 2,3', 'number', ['1', '2', '3']],
  [' , ,', 'text', []],
  ['fog,', 'text', ["'fog'"]],
  ["rock 'n' roll, fog", 'text', ["'rock ''n'' roll'", "'fog'"]],
  ['2026-06-01, 2026-06-02', 'date', ["date '2026-06-01'", "date '2026-06-02'"]],
])('%s typed for %s is read as %j', (typed, type, options) => {
  expect(listed(typed, type)).toEqual(options)
})

test.each([
  ['delay_min', 'delay_min'],
  ['Kaptein Å', '"Kaptein Å"'],
  ['end', '"end"'],
  ['a "b"', '"a ""b"""'],
  ['2nd', '"2nd"'],
])('the column %s is written %s in a condition', (name, written) => {
  expect(nameInCondition(name)).toBe(written)
  expect(columnNamed(written)).toBe(name)
})

test('what is calculated is no column', () => {
  expect(columnNamed('change_pct(litres)')).toBeNull()
})
