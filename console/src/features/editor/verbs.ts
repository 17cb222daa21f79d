import {
  isMoment,
  literal,
  operators,
  unquoted,
  type Operand,
  type Operator,
  type Simple,
  type Window,
} from './builder'
import { t } from '../../messages'

/** What a person chooses between a column and its value. */
export type Verb =
  | Operator
  | 'missing'
  | 'not missing'
  | 'empty'
  | 'not empty'
  | 'in'
  | 'not in'
  | 'between'
  | 'not between'
  | 'reaches'
  | TextVerb
  | TimeVerb

/** Ways to look for a text within another. `like` has a pattern of its own. */
type TextVerb = TextWay | `not ${TextWay}`
type TextWay = 'contains' | 'begins' | 'ends' | 'like'
type TimeVerb = TimeWay | `not ${TimeWay}`
type TimeWay = Window['kind']

const comparable = (type: string) => type !== 'bytes' && type !== 'truth'
const isText = (type: string) => type === 'text'
const isOrdered = (type: string) => comparable(type) && !isText(type) && !isMoment(type)

const moments: Record<Operator, string> = {
  '>': t('editor.is_after'),
  '>=': t('editor.is_at_or_after'),
  '<': t('editor.is_before'),
  '<=': t('editor.is_at_or_before'),
  '=': t('editor.is'),
  '<>': t('editor.is_not'),
}

/** Each with its words and the types of columns that it fits. A comparison of a date has words of its own. */
export const verbs: [Verb, string, (type: string) => boolean][] = [
  ...operators.map(([code, words]): [Verb, string, (type: string) => boolean] => [
    code,
    words,
    code === '=' || code === '<>' ? (type) => type !== 'bytes' && !isMoment(type) : isOrdered,
  ]),
  ['last', t('editor.is_in_the_last'), isMoment],
  ['not last', t('editor.is_not_in_the_last'), isMoment],
  ['next', t('editor.is_in_the_next'), isMoment],
  ['not next', t('editor.is_not_in_the_next'), isMoment],
  ['older', t('editor.is_older_than'), isMoment],
  ['not older', t('editor.is_not_older_than'), isMoment],
  ['calendar', t('editor.is_in_period'), isMoment],
  ['not calendar', t('editor.is_not_in_period'), isMoment],
  ...operators.map(([code]): [Verb, string, (type: string) => boolean] => [code, moments[code], isMoment]),
  ['contains', t('editor.contains'), isText],
  ['not contains', t('editor.does_not_contain'), isText],
  ['begins', t('editor.begins_with'), isText],
  ['not begins', t('editor.does_not_begin_with'), isText],
  ['ends', t('editor.ends_with'), isText],
  ['not ends', t('editor.does_not_end_with'), isText],
  ['reaches', t('editor.reaches'), () => false],
  ['in', t('editor.is_one_of'), comparable],
  ['not in', t('editor.is_none_of'), comparable],
  ['between', t('editor.is_between'), comparable],
  ['not between', t('editor.is_not_between'), comparable],
  ['missing', t('editor.is_missing'), () => true],
  ['not missing', t('editor.is_not_missing'), () => true],
  ['empty', t('editor.is_missing_or_empty'), isText],
  ['not empty', t('editor.is_neither_missing_nor_empty'), isText],
  ['like', t('editor.is_like'), isText],
  ['not like', t('editor.is_not_like'), isText],
]

/**
 * The verbs that are offered for a column of a type; the one that a part has already stays.
 *
 * @param measured whether its earlier values are kept
 */
export function verbsFor(type: string, now: Verb, measured = false): [Verb, string][] {
  const fitting = verbs.filter(([code, , fits]) => fits(type) || (measured && code === 'reaches'))
  const own = fitting.some(([code]) => code === now) ? [] : verbs.filter(([code]) => code === now).slice(0, 1)
  return [...fitting, ...own].map(([code, words]) => [code, words])
}

const wildcard = /[%_]/
/** By which `contains` keeps a percent sign that it looks for. */
const escape = '!'

type Like = Extract<Simple, { is: 'like' }>

/** A pattern as its characters, each a wildcard or not; null for an escape that escapes nothing. */
function signsOf(pattern: string, by: string | undefined) {
  const signs: { text: string; wild: boolean }[] = []
  for (let i = 0; i < pattern.length; i++) {
    const sign = pattern.charAt(i)
    if (sign !== by) signs.push({ text: sign, wild: wildcard.test(sign) })
    else if (/[!%_]/.test(pattern.charAt(i + 1))) signs.push({ text: pattern.charAt(++i), wild: false })
    else return null
  }
  return signs
}

/** The way of looking that a pattern stands for, and the text that it looks for. */
export function lookOf({ pattern, escape: by }: Like): { way: TextWay; text: string } {
  const whole = unquoted(pattern)
  const own = { way: 'like', text: whole } as const
  const signs = by === undefined || by === escape ? signsOf(whole, by) : null
  if (!signs) return own
  const isAny = (sign: { text: string; wild: boolean } | undefined) => sign?.wild === true && sign.text === '%'
  const [before, after] = [isAny(signs[0]), signs.length > 1 && isAny(signs.at(-1))]
  const inner = signs.slice(before ? 1 : 0, after ? -1 : undefined)
  if (inner.some(({ wild }) => wild) || inner.length === 0 || (!before && !after)) return own
  const text = inner.map((sign) => sign.text).join('')
  return { way: before ? (after ? 'contains' : 'ends') : 'begins', text }
}

/** The part that looks for a text in a way. */
export function lookingFor(column: string, way: TextWay, text: string, negated: boolean): Like {
  if (way === 'like') return { is: 'like', column, pattern: literal(text, 'text'), negated }
  const escaped = wildcard.test(text)
  const inner = escaped ? text.replace(/[!%_]/g, (sign) => `${escape}${sign}`) : text
  const pattern = `${way === 'begins' ? '' : '%'}${inner}${way === 'ends' ? '' : '%'}`
  const quoted = `'${pattern.replaceAll("'", "''")}'`
  return { is: 'like', column, pattern: quoted, ...(escaped ? { escape } : {}), negated }
}

export function verbOf(part: Simple): Verb {
  switch (part.is) {
    case 'compare':
      return part.operator
    case 'like': {
      const { way } = lookOf(part)
      return part.negated ? `not ${way}` : way
    }
    case 'within':
      return part.negated ? `not ${part.window.kind}` : part.window.kind
    case 'reaches':
      return 'reaches'
    default:
      return part.negated ? `not ${part.is}` : part.is
  }
}

/** What a part begins with where its column has another type. */
export const usualVerb = (type: string): Verb => {
  if (type === 'number') return '>'
  if (isMoment(type)) return 'last'
  return type === 'bytes' ? 'missing' : '='
}

const usualValue = (type: string) => {
  if (type === 'number') return '0'
  if (type === 'truth') return 'true'
  return isMoment(type) ? (type === 'date' ? 'today()' : 'now()') : literal('', type)
}

/** The value that a part compares with, where it has one. */
function valueOf(part: Simple): string | null {
  if (part.is === 'compare') return part.operand.kind === 'value' ? part.operand.text : null
  if (part.is === 'in') return part.options[0] ?? null
  if (part.is === 'between') return part.low
  return part.is === 'like' ? literal(lookOf(part).text, 'text') : null
}

/** A pattern that no other way of looking has, to be written over. */
const somethingOfAnyKind = '%_%'
/** A text to be written over: of no text, one could not tell where it is looked for. */
const anyLetter = 'a'

/** The part with another verb; values that still fit stay. */
export function withVerb(part: Simple, verb: Verb, type: string): Simple {
  const { column } = part
  const value = valueOf(part) ?? usualValue(type)
  const negated = verb.startsWith('not ')
  const way = negated ? verb.slice(4) : verb
  switch (way) {
    case 'reaches':
      return { is: 'reaches', column, operand: operandOf(part, value), amount: 14, unit: 'days' }
    case 'missing':
    case 'empty':
      return { is: way, column, negated }
    case 'in':
      return { is: 'in', column, options: part.is === 'in' ? part.options : [value], negated }
    case 'between':
      return { is: 'between', column, low: value, high: part.is === 'between' ? part.high : value, negated }
    case 'like':
      return part.is === 'like' && lookOf(part).way === 'like'
        ? { ...part, negated }
        : lookingFor(column, 'like', somethingOfAnyKind, negated)
    case 'contains':
    case 'begins':
    case 'ends':
      return lookingFor(column, way, unquoted(valueOf(part) ?? '') || anyLetter, negated)
    case 'last':
    case 'next':
    case 'older':
    case 'calendar':
      return { is: 'within', column, window: windowLike(part, way), negated }
    default:
      return {
        is: 'compare',
        column,
        operator: verb as Operator,
        operand: operandOf(part, value),
      }
  }
}

const operandOf = (part: Simple, value: string): Operand =>
  part.is === 'compare' || part.is === 'reaches' ? part.operand : { kind: 'value', text: value }

function windowLike(part: Simple, kind: Window['kind']): Window {
  const before = part.is === 'within' ? part.window : null
  if (kind === 'calendar')
    return before?.kind === 'calendar' ? before : { kind: 'calendar', which: 'this', unit: 'week' }
  return before && before.kind !== 'calendar' ? { ...before, kind } : { kind, amount: 7, unit: 'days' }
}

/** The part on another column; if that has another type, operator and value are reset. */
export function withColumn(part: Simple, column: string, before: string, type: string): Simple {
  const moved: Simple = { ...part, column }
  if (before === type) return moved
  const verb = verbOf(part)
  const fits = verb.includes('missing') && verbs.some(([code, , isFor]) => code === verb && isFor(type))
  return fits ? moved : withVerb({ is: 'missing', column, negated: false }, usualVerb(type), type)
}

/** A part to begin with on a column. */
export const freshPart = ({ name, type }: { name: string; type: string }): Simple =>
  withVerb({ is: 'missing', column: name, negated: false }, usualVerb(type), type)
