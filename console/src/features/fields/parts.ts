import type { Definitions, Written } from '../../api/types'

type Rule = Written<Definitions['rule']>
export type SchedulePart = NonNullable<Rule['schedule']>
export type DeliveryPart = NonNullable<Rule['delivery']>
/** Times at which something happens, of a rule or of a round-up. */
export type Times = Written<Definitions['times']>

/** A column that a field can name. */
export type Column = { name: string; label: string; type: string }

/** What a form says of a part of a document: an empty text takes a field out. */
export type Edits<T> = { [K in keyof T]?: T[K] | '' | undefined }

/**
 * The part with these edits. Fields that say nothing are left out, as the service leaves them out.
 *
 * @param saysEmpty fields in which an empty list means something
 */
export function edited<T extends object>(part: T, edits: Edits<T>, saysEmpty: (keyof T & string)[] = []): T {
  const saysNothing = (name: string, value: unknown) =>
    value === '' ||
    value === false ||
    value === undefined ||
    (Array.isArray(value) && value.length === 0 && !saysEmpty.some((each) => each === name))
  return Object.fromEntries(
    Object.entries({ ...part, ...edits }).filter(([name, value]) => !saysNothing(name, value)),
  ) as T
}
