import type { Written, Definitions } from '../../api/types'
import type { DeliveryPart } from './parts'

/** How the rows of a rule's message and files look, as a document has it. */
export type Layout = Written<Definitions['delivery_layout']>
export type ShownColumn = Written<Definitions['shown_column']>
export type Sorted = { column: string; descending: boolean }

/** The rule's own layout; where it names a shared one, or nothing, one that says nothing. */
export const ownLayout = ({ layout, columns }: DeliveryPart): Layout =>
  typeof layout === 'object' ? layout : columns ? { columns } : {}

export const sharedLayout = ({ layout }: DeliveryPart) => (typeof layout === 'string' ? layout : '')

export const shownColumns = (layout: Layout): ShownColumn[] =>
  (layout.columns ?? []).map((each) => (typeof each === 'string' ? { column: each } : each))

/** `delay_min desc` as a column and its direction. */
export const sortOf = (layout: Layout): Sorted[] =>
  (layout.sort ?? []).map((each) => {
    const descending = / desc$/.test(each)
    return { column: each.replace(/ (asc|desc)$/, ''), descending }
  })

export const sortText = ({ column, descending }: Sorted) => (descending ? `${column} desc` : column)

/** A column that says nothing but its name is its name alone, as the service writes it. */
export const columnText = (shown: ShownColumn): string | ShownColumn =>
  Object.keys(shown).length === 1 ? shown.column : shown

/** The delivery with a layout of its own: a list of columns where it is no more than that. */
export function withLayout(delivery: DeliveryPart, layout: Layout): DeliveryPart {
  const rest = Object.fromEntries(
    Object.entries(delivery).filter(([name]) => name !== 'layout' && name !== 'columns'),
  ) as DeliveryPart
  const said = Object.keys(layout).filter((name) => layout[name as keyof Layout] !== undefined)
  if (said.length === 0) return rest
  const columns = layout.columns ?? []
  const bare = columns.filter((each) => typeof each === 'string')
  return said.join() === 'columns' && bare.length === columns.length ? { ...rest, columns: bare } : { ...rest, layout }
}

/** The list with the entry at a place moved one step towards its beginning. */
export const movedForward = <T>(list: T[], index: number): T[] =>
  list.map((each, i) => (i === index - 1 ? (list[index] ?? each) : i === index ? (list[index - 1] ?? each) : each))
