import type { Tree } from './api'
import { t } from '../../messages'

/** A column that a condition may name; `label` is what a person reads. */

export const lengthUnits = ['minutes', 'hours', 'days', 'weeks', 'months'] as const
export type LengthUnit = (typeof lengthUnits)[number]

/** A time counted from the slot of the check: `today() - 7 days` for a date, `now() + 2 hours` for others. */
export type Relative = { base: 'today' | 'now'; sign: '-' | '+'; amount: number; unit: LengthUnit }

/** What is compared with: a value as it is written, a time counted from the slot, a column, or a threshold with the columns of its key. */
export type Operand =
  | { kind: 'value'; text: string }
  | { kind: 'relative'; relative: Relative }
  | { kind: 'column'; name: string }
  | { kind: 'threshold'; name: string; key: string[] }
  /** So many times the usual value of a measure: the median of its last checks. */
  | { kind: 'usual'; times: string; name: string; last: number }

/** One comparison of a column, which the builder has fields for. */
export type Simple =
  | { is: 'compare'; column: string; operator: Operator; operand: Operand }
  | { is: 'between'; column: string; low: string; high: string; negated: boolean }
  | { is: 'missing'; column: string; negated: boolean }
  | { is: 'empty'; column: string; negated: boolean }
  | { is: 'in'; column: string; options: string[]; negated: boolean }
  | { is: 'like'; column: string; pattern: string; escape?: string; negated: boolean }
  | { is: 'within'; column: string; window: Window; negated: boolean }
  /** A measure that will have come to a value within a time if it goes on as it does. */
  | { is: 'reaches'; column: string; operand: Operand; amount: number; unit: LengthUnit }

/** A stretch of time counted from the slot: `last 7 days`, `older than 2 hours`, `previous month`. */
export type Window =
  | { kind: 'last' | 'next' | 'older'; amount: number; unit: LengthUnit }
  | { kind: 'calendar'; which: 'this' | 'previous' | 'next'; unit: CalendarUnit }
export const calendarUnits = ['day', 'week', 'month', 'quarter', 'year'] as const
export type CalendarUnit = (typeof calendarUnits)[number]

/** A part of a condition: a comparison, several of which one must hold, or an expression as it is written. */
export type Part = Simple | { is: 'either'; parts: Simple[] } | { is: 'text'; text: string }

export const operators = [
  ['>', t('editor.is_over')],
  ['>=', t('editor.is_at_least')],
  ['<', t('editor.is_under')],
  ['<=', t('editor.is_at_most')],
  ['=', 'is'],
  ['<>', t('editor.is_not')],
] as const
export type Operator = (typeof operators)[number][0]

const byCode: Record<string, Operator> = {
  more: '>',
  'at least': '>=',
  less: '<',
  'at most': '<=',
  equal: '=',
  unequal: '<>',
}

const inQuotes = (name: string) => `"${name.replaceAll('"', '""')}"`
/** The words of conditions that stand for a column only in quotes. */
const reserved = /^(and|or|not|is|null|true|false|between|in|like|escape|matches|case|when|then|else|end)$/i

/** The name of a column as conditions write it. */
export const nameInCondition = (name: string) =>
  /^[A-Za-z_][A-Za-z0-9_]*$/.test(name) && !reserved.test(name) ? name : inQuotes(name)

/** The column that a name in a condition stands for; of what is calculated none. */
export function columnNamed(written: string): string | null {
  if (/^"(?:[^"]|"")+"$/.test(written)) return written.slice(1, -1).replaceAll('""', '"')
  return /^[A-Za-z_][A-Za-z0-9_]*$/.test(written) ? written : null
}

const nameOf = (tree: Tree | undefined) =>
  tree?.is === 'column' && tree.name !== undefined ? (tree.quoted ? inQuotes(tree.name) : tree.name) : null

const pasts = { previous: 'previous', change: 'change', 'change pct': 'change_pct' } as const

/** What a comparison begins with: a column, what was measured before of one, or the days until it. */
function valueNameOf(tree: Tree | undefined): string | null {
  if (tree?.is === 'history') {
    const past = Object.entries(pasts).find(([kind]) => kind === tree.kind)?.[1]
    const measured = nameOf(tree.measured)
    return past && measured !== null ? `${past}(${measured})` : null
  }
  if (tree?.is === 'call' && tree.name === 'days_between') {
    const [from, to] = tree.arguments ?? []
    const until = nameOf(to)
    return baseOf(from) === 'today' && until !== null ? `days_between(today(), ${until})` : null
  }
  return nameOf(tree)
}
const literalOf = (tree: Tree | undefined) => (tree?.is === 'literal' ? (tree.text ?? null) : null)

/** `7 days`, as one amount of one unit; null for a length of several. */
export function lengthOf(text: string): { amount: number; unit: LengthUnit } | null {
  const [, amount, word] = /^(\d+) ([a-z]+?)s?$/.exec(text) ?? []
  const unit = lengthUnits.find((each) => each === `${word ?? ''}s`)
  return amount !== undefined && unit ? { amount: Number(amount), unit } : null
}

export const lengthText = ({ amount, unit }: { amount: number; unit: LengthUnit }) =>
  `${amount} ${amount === 1 ? unit.slice(0, -1) : unit}`

function baseOf(tree: Tree | undefined): Relative['base'] | null {
  if (tree?.is !== 'call' || (tree.arguments ?? []).length > 0) return null
  return tree.name === 'today' || tree.name === 'now' ? tree.name : null
}

function relativeOf(tree: Tree | undefined): Relative | null {
  const alone = baseOf(tree)
  if (alone) return { base: alone, sign: '-', amount: 0, unit: 'days' }
  if (tree?.is !== 'arithmetic' || (tree.operator !== 'subtract' && tree.operator !== 'add')) return null
  const base = baseOf(tree.left)
  const length = lengthOf(literalOf(tree.right) ?? '')
  return base && length ? { base, sign: tree.operator === 'add' ? '+' : '-', ...length } : null
}

const relativeText = ({ base, sign, ...length }: Relative) =>
  length.amount === 0 ? `${base}()` : `${base}() ${sign} ${lengthText(length)}`

export function windowOf(text: string): Window | null {
  const [, which, unit] = /^(this|previous|next) ([a-z]+)$/.exec(text) ?? []
  const calendar = calendarUnits.find((each) => each === unit)
  if (calendar && (which === 'this' || which === 'previous' || which === 'next'))
    return { kind: 'calendar', which, unit: calendar }
  const [, kind, rest] = /^(last|next|older than) (.+)$/.exec(text) ?? []
  const length = lengthOf(rest ?? '')
  if (!length) return null
  return { kind: kind === 'older than' ? 'older' : kind === 'next' ? 'next' : 'last', ...length }
}

function windowText(window: Window): string {
  if (window.kind === 'calendar') return `in ${window.which} ${window.unit}`
  return window.kind === 'older' ? `older than ${lengthText(window)}` : `in ${window.kind} ${lengthText(window)}`
}

function usualOf(tree: Tree | undefined): Operand | null {
  const multiplied = tree?.is === 'arithmetic' && tree.operator === 'multiply'
  const times = multiplied ? literalOf(tree.left) : '1'
  const history = multiplied ? tree.right : tree
  const name = history?.is === 'history' && history.kind === 'usual' ? nameOf(history.measured) : null
  return times !== null && name !== null ? { kind: 'usual', times, name, last: history?.points ?? 8 } : null
}

function reaches(tree: Tree): Simple | null {
  const column = tree.kind === 'reaches' ? nameOf(tree.measured) : null
  const operand = operandOf(tree.target)
  const length = lengthOf(typeof tree.within === 'string' ? tree.within : '')
  return column !== null && operand && length ? { is: 'reaches', column, operand, ...length } : null
}

function operandOf(tree: Tree | undefined): Operand | null {
  const literal = literalOf(tree)
  const relative = relativeOf(tree)
  if (relative) return { kind: 'relative', relative }
  if (literal !== null) return { kind: 'value', text: literal }
  const column = nameOf(tree)
  if (column !== null) return { kind: 'column', name: column }
  const usual = usualOf(tree)
  if (usual) return usual
  if (tree?.is !== 'threshold' || tree.name === undefined) return null
  const key = (tree.key ?? []).map(nameOf)
  return key.every((each) => each !== null) ? { kind: 'threshold', name: tree.name, key } : null
}

/** The column of coalesce(trim(column), ''), by which a text is asked for being missing or empty. */
function emptyColumn(tree: Tree | undefined): string | null {
  const [inner, nothing, ...more] = tree?.is === 'call' && tree.name === 'coalesce' ? (tree.arguments ?? []) : []
  if (literalOf(nothing) !== "''" || more.length > 0 || inner?.is !== 'call' || inner.name !== 'trim') return null
  return nameOf(inner.arguments?.[0])
}

function empty(tree: Tree): Simple | null {
  const column = tree.is === 'comparison' && literalOf(tree.right) === "''" ? emptyColumn(tree.left) : null
  if (column === null || (tree.operator !== 'equal' && tree.operator !== 'unequal')) return null
  return { is: 'empty', column, negated: tree.operator === 'unequal' }
}

function simple(tree: Tree): Simple | null {
  const asksForEmpty = empty(tree)
  if (asksForEmpty) return asksForEmpty
  if (tree.is === 'history') return reaches(tree)
  const column = valueNameOf(tree.is === 'comparison' ? tree.left : tree.operand)
  if (column === null) return null
  const negated = tree.negated ?? false
  switch (tree.is) {
    case 'comparison': {
      const operator = byCode[tree.operator ?? '']
      const operand = operandOf(tree.right)
      return operator && operand ? { is: 'compare', column, operator, operand } : null
    }
    case 'between': {
      const [low, high] = [literalOf(tree.low), literalOf(tree.high)]
      return low !== null && high !== null ? { is: 'between', column, low, high, negated } : null
    }
    case 'missing':
      return { is: 'missing', column, negated }
    case 'in': {
      const options = (tree.options ?? []).map(literalOf)
      return options.every((each) => each !== null) ? { is: 'in', column, options, negated } : null
    }
    case 'like': {
      const pattern = literalOf(tree.pattern)
      if (pattern === null) return null
      const escape = tree.escape ?? ''
      return { is: 'like', column, pattern, ...(escape === '' ? {} : { escape }), negated }
    }
    case 'within': {
      const window = windowOf(tree.window ?? '')
      return window ? { is: 'within', column, window, negated } : null
    }
    default:
      return null
  }
}

/**
 * A condition as parts that must all hold. What the builder has no fields for stays as it is written, so that nothing is ever lost by
 * looking at it.
 *
 * @param texts the service's own texts of the parts, in the order of the tree's
 */
export function partsOf(tree: Tree, texts: string[]): Part[] {
  const all = tree.is === 'and' ? (tree.operands ?? []) : [tree]
  return all.map((each, index) => {
    const whole: Part = { is: 'text', text: texts[index] ?? '' }
    if (each.is !== 'or') return simple(each) ?? whole
    const parts = (each.operands ?? []).map(simple)
    return parts.every((part) => part !== null) ? { is: 'either', parts } : whole
  })
}

const operandText = (operand: Operand) => {
  switch (operand.kind) {
    case 'value':
      return operand.text.trim() === '' ? '0' : operand.text
    case 'relative':
      return relativeText(operand.relative)
    case 'column':
      return operand.name
    case 'usual':
      return `${operand.times === '1' ? '' : `${operand.times} * `}usual(${operand.name}, ${operand.last})`
    case 'threshold':
      return `threshold('${operand.name}'${operand.key.map((each) => `, ${each}`).join('')})`
  }
}

export function textOfPart(part: Part): string {
  switch (part.is) {
    case 'compare':
      return `${part.column} ${part.operator} ${operandText(part.operand)}`
    case 'between':
      return `${part.column} ${part.negated ? 'not ' : ''}between ${part.low} and ${part.high}`
    case 'missing':
      return `${part.column} is ${part.negated ? 'not ' : ''}null`
    case 'empty':
      return `coalesce(trim(${part.column}), '') ${part.negated ? '<>' : '='} ''`
    case 'in':
      return `${part.column} ${part.negated ? 'not ' : ''}in (${part.options.join(', ')})`
    case 'like':
      return `${part.column} ${part.negated ? 'not ' : ''}like ${part.pattern}${part.escape ? ` escape '${part.escape}'` : ''}`
    case 'within':
      return `${part.column} ${part.negated ? 'not ' : ''}${windowText(part.window)}`
    case 'reaches':
      return `reaches(${part.column}, ${operandText(part.operand)}) within ${lengthText(part)}`
    case 'either':
      return part.parts.map(textOfPart).join(' or ')
    case 'text':
      return part.text
  }
}

/** Only what could be read otherwise beside its neighbours is put into brackets. */
const needsBrackets = (part: Part, alone: boolean) =>
  !alone && (part.is === 'either' ? part.parts.length > 1 : part.is === 'text' && /\bor\b/i.test(part.text))

export const textOf = (parts: Part[]) =>
  parts
    .map((part) => (needsBrackets(part, parts.length === 1) ? `(${textOfPart(part)})` : textOfPart(part)))
    .join(' and ')

/** A condition with one more part, whatever it says already. */
export const withPart = (text: string, part: Simple) =>
  text.trim() === '' ? textOfPart(part) : textOf([{ is: 'text', text: text.trim() }, part])

export const isMoment = (type: string | undefined) => type === 'date' || type === 'timestamp' || type === 'instant'

/** One value in quotes, whole: what has another quote within is a text that a person typed. */
const quoted = /^(date |timestamp )?'(?:[^']|'')*'$/

/** A value as conditions write it: numbers as they are, moments by their word, the rest in quotes. */
export const literal = (text: string, type: string | undefined) => {
  const plain = text.trim()
  if (type === 'number' || type === 'truth' || quoted.test(plain)) return plain
  // A moment may be calculated, as in today() - 2 days; one without a time of day is a date, whatever the column.
  if (isMoment(type)) {
    if (!/^\d{4}-/.test(plain)) return plain
    return `${/^\d{4}-\d{2}-\d{2}$/.test(plain) ? 'date' : 'timestamp'} '${plain}'`
  }
  return `'${plain.replaceAll("'", "''")}'`
}

/** The same without its quotes, for a field. */
export const unquoted = (text: string) =>
  quoted.test(text)
    ? text
        .replace(/^(date |timestamp )?'/, '')
        .slice(0, -1)
        .replaceAll("''", "'")
    : text

/** Values as a field shows them, with commas between; one that has a comma within keeps its quotes. */
export const listText = (options: string[]) =>
  options.map((each) => (unquoted(each).includes(',') ? each : unquoted(each))).join(', ')

/** The values of such a field, as conditions write them. */
export const listed = (typed: string, type: string) =>
  (typed.match(/\s*'(?:[^']|'')*'\s*(?=,|$)|[^,]+/g) ?? [])
    .map((each) => each.trim())
    .filter(Boolean)
    .map((each) => literal(each, type))
