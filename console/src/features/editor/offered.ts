import type { Column } from '../fields/parts'
import type { RuleDocument } from './api'
import { nameInCondition } from './builder'
import { t } from '../../messages'

/** What a comparison begins with: a column, a measure, or what is calculated from one. */
export type Offered = Column & {
  /** Whether what earlier checks measured is kept, so that it can be compared with the past. */
  measured?: boolean
}

const isDay = (type: string) => type === 'date' || type === 'timestamp'

const daysUntil = ({ name, label }: Column): Offered => ({
  name: `days_between(today(), ${nameInCondition(name)})`,
  label: t('editor.days_until', { label }),
  type: 'number',
})

/** What the conditions of a rule may compare, by the names that conditions use. */
export function offeredOf(document: Pick<RuleDocument, 'per' | 'measures'>, columns: Column[]): Offered[] {
  const named = ({ name, ...column }: Column): Offered => ({ ...column, name: nameInCondition(name) })
  if (!document.per) return [...columns.map(named), ...columns.filter(({ type }) => isDay(type)).map(daysUntil)]
  const measures = Object.entries(document.measures ?? {}).map(([name, measure]): Offered => {
    const label = typeof measure === 'string' ? undefined : measure.label
    return { name, label: label ?? name.replaceAll('_', ' '), type: 'number', measured: true }
  })
  return [
    ...columns.filter(({ name }) => document.per?.includes(name)).map(named),
    ...measures,
    ...measures.flatMap(({ name, label }): Offered[] => [
      { name: `change_pct(${name})`, label: t('editor.change_pct_of', { label }), type: 'number' },
      { name: `change(${name})`, label: t('editor.change_of', { label }), type: 'number' },
      { name: `previous(${name})`, label: t('editor.previous_of', { label }), type: 'number' },
    ]),
  ]
}
