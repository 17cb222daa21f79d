import type { Column } from '../fields/parts'
import { isMoment, literal, nameInCondition, operators, type Operator, type Simple } from './builder'
import { verbs, verbOf, withVerb, type Verb } from './verbs'

const longest = 60

const compared = (column: Column, operator: Operator, text: string): Simple => ({
  is: 'compare',
  column: nameInCondition(column.name),
  operator,
  operand: { kind: 'value', text: literal(text, column.type) },
})

/** A cell's text as a condition writes it: a time without its offset, since columns are read in the rule's zone. */
const written = (text: string, type: string) =>
  isMoment(type) ? text.replace(/(\d:\d{2}.*?)(?:Z|[+-]\d{2}(?::\d{2})?)$/, '$1') : text

/** Conditions that a cell suggests. */
export function startsOf(column: Column, cell: string | null): Simple[] {
  const missing: Simple = { is: 'missing', column: nameInCondition(column.name), negated: false }
  const there: Simple = { ...missing, negated: true }
  if (cell === null) return [missing, there]
  if (column.type === 'bytes') return [there, missing]
  const text = written(cell, column.type)
  if (column.type === 'number') return (['>', '>=', '<', '='] as const).map((each) => compared(column, each, text))
  if (isMoment(column.type))
    return [withVerb(missing, 'last', column.type), compared(column, '>=', text), compared(column, '<', text)]
  if (text.length > longest) return [there, missing]
  return [compared(column, '=', text), compared(column, '<>', text), missing]
}

/** The words of a part's comparison. */
export function verbWords(part: Simple, type: string): string {
  const code: Verb = verbOf(part)
  return (
    verbs.find(([each, , fits]) => each === code && fits(type))?.[1] ??
    operators.find(([each]) => each === code)?.[1] ??
    code
  )
}
