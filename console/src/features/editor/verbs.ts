import { literal, operators, type Operator, type Simple } from './builder'
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
  | 'like'
  | 'not like'

/** Each with its words and the types of columns that it fits. */
export const verbs: [Verb, string, (type: string) => boolean][] = [
  ...operators.map(([code, words]): [Verb, string, (type: string) => boolean] => [
    code,
    words,
    (type) => type !== 'bytes',
  ]),
  ['between', t('editor.is_between'), (type) => type !== 'truth'],
  ['not between', t('editor.is_not_between'), (type) => type !== 'truth'],
  ['missing', t('editor.is_missing'), () => true],
  ['not missing', t('editor.is_not_missing'), () => true],
  ['empty', t('editor.is_missing_or_empty'), (type) => type === 'text'],
  ['not empty', t('editor.is_neither_missing_nor_empty'), (type) => type === 'text'],
  ['in', t('editor.is_one_of'), (type) => type !== 'truth'],
  ['not in', t('editor.is_none_of'), (type) => type !== 'truth'],
  ['like', t('editor.is_like'), (type) => type === 'text'],
  ['not like', t('editor.is_not_like'), (type) => type === 'text'],
]

export function verbOf(part: Simple): Verb {
  if (part.is === 'compare') return part.operator
  return part.negated ? `not ${part.is}` : part.is
}

/** The part with another verb; values that still fit stay. */
export function withVerb(part: Simple, verb: Verb, type: string): Simple {
  const { column } = part
  const value =
    part.is === 'compare' && part.operand.kind === 'value'
      ? part.operand.text
      : part.is === 'in'
        ? (part.options[0] ?? '0')
        : part.is === 'between'
          ? part.low
          : literal(type === 'number' ? '0' : '', type)
  switch (verb) {
    case 'missing':
    case 'not missing':
      return { is: 'missing', column, negated: verb !== 'missing' }
    case 'empty':
    case 'not empty':
      return { is: 'empty', column, negated: verb !== 'empty' }
    case 'in':
    case 'not in':
      return { is: 'in', column, options: part.is === 'in' ? part.options : [value], negated: verb !== 'in' }
    case 'between':
    case 'not between':
      return {
        is: 'between',
        column,
        low: value,
        high: part.is === 'between' ? part.high : value,
        negated: verb !== 'between',
      }
    case 'like':
    case 'not like':
      return { is: 'like', column, pattern: part.is === 'like' ? part.pattern : "'%'", negated: verb !== 'like' }
    default:
      return {
        is: 'compare',
        column,
        operator: verb,
        operand: part.is === 'compare' ? part.operand : { kind: 'value', text: value },
      }
  }
}
