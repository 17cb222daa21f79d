import type { Check, Instant, HandlingEntry } from '../api/types'
import { t, type MessageKey } from '../messages'

const time = new Intl.DateTimeFormat(undefined, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})
const timeOfYear = new Intl.DateTimeFormat(undefined, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})
const numbers = new Intl.NumberFormat()

/** An instant in the reader's zone; with its year unless that is this one. */
export const timeWords = (instant: Instant) => {
  const at = new Date(instant)
  return (at.getFullYear() === new Date().getFullYear() ? time : timeOfYear).format(at)
}

const dayTime = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' })

/** The time of an instant's day, where the day is known. */
export const timeOfDay = (instant: Instant) => dayTime.format(new Date(instant))

const exact = new Intl.NumberFormat(undefined, { maximumFractionDigits: 20, useGrouping: false })

const localDay = (year: boolean) =>
  new Intl.DateTimeFormat(undefined, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(year ? { year: 'numeric' as const } : {}),
    timeZone: 'UTC',
  })
const days = { short: localDay(false), full: localDay(true) }

/** How far the reader's clock is from UTC at that instant, as `+01:00`. */
const readersOffset = (instant: Date) => {
  const minutes = -instant.getTimezoneOffset()
  const two = (number: number) => String(number).padStart(2, '0')
  return `${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`
}

/** `2026-11-22 13:14:05+01:00` as it is there, in the rule's zone; with the offset if the reader's clock shows another time. */
function momentWords(date: string, clock: string, offset: string): string {
  const day = (date.startsWith(String(new Date().getFullYear())) ? days.short : days.full).format(
    new Date(`${date}T00:00:00Z`),
  )
  const same = readersOffset(new Date(`${date}T${clock.slice(0, 5)}:00${offset}`)) === offset.replace('Z', '+00:00')
  return `${day}, ${clock}${same ? '' : ` ${offset === 'Z' ? 'UTC' : offset}`}`
}

/** A cell in the reader's way of writing numbers and times; every digit of a number is kept, and an instant is shown in the rule's zone. */
export function cellWords(text: string, type?: string): string {
  if (type === 'number' && /^-?\d+(\.\d+)?$/.test(text)) return exact.format(text as Intl.StringNumericLiteral)
  const [, date, clock, offset] =
    /^(\d{4}-\d\d-\d\d) (\d\d:\d\d(?::\d\d(?:\.\d+)?)?)(Z|[+-]\d\d:\d\d)$/.exec(text) ?? []
  if (date && clock && offset) return momentWords(date, clock, offset)
  return text
}

const ages = new Intl.NumberFormat(undefined, { maximumFractionDigits: 0 })

/** `3 days`, `40 min`: how long ago. */
export const ageWords = (since: Instant, now: Instant) => durationWords((Date.parse(now) - Date.parse(since)) / 1000)

/** `3 days`, `40 min`. */
export function durationWords(seconds: number): string {
  const minutes = Math.max(0, Math.floor(seconds / 60))
  if (minutes < 120) return t('shared.min', { ages: ages.format(minutes) })
  const hours = Math.floor(minutes / 60)
  return hours < 48
    ? t('shared.hours', { ages: ages.format(hours) })
    : t('shared.days', { ages: ages.format(Math.floor(hours / 24)) })
}

/** The same, with the time of the rule's zone beside it where that differs. */
export const zonedWords = (instant: Instant, zone: string) => {
  const there = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', timeZone: zone }).format(
    new Date(instant),
  )
  const here = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' }).format(new Date(instant))
  return here === there
    ? timeWords(instant)
    : t('shared.in', { instant: timeWords(instant), there, zone: zone.split('/').at(-1)?.replaceAll('_', ' ') ?? zone })
}

const measures = new Intl.NumberFormat(undefined, {
  maximumFractionDigits: 3,
  maximumSignificantDigits: 3,
  roundingPriority: 'morePrecision',
})

/** A measured value with three decimals, or three digits where that says more. */
export const measureWords = (value: number) => measures.format(value)

export const numberWords = (value: number) => numbers.format(value)

/** All that has a state: checks, rules, findings, deliveries, values of thresholds. */
export type StateCode = Extract<MessageKey, `state.${string}`> extends `state.${infer Code}` ? Uppercase<Code> : never

/** `AGED_OUT` as `out of sight`. */
export const stateWords = (state: StateCode) => t(`state.${state.toLowerCase() as Lowercase<StateCode>}`)

/** `3 rows`, or groups of them. */
export const countWords = (count: number, grouped: boolean) =>
  t(grouped ? 'shared.count_groups' : 'shared.count_rows', { count })

/** `Terna, Skua: still learning usual(fuel, 8), 3 of 8`, one for each reason, and how many more. */
export function unevaluatedWords({
  unevaluated,
  unevaluatedGroups,
}: Pick<Check, 'unevaluated' | 'unevaluatedGroups'>): string {
  const reasons = [...new Set(unevaluatedGroups.map(({ reason }) => reason))]
  const words = reasons.map(
    (reason) =>
      `${unevaluatedGroups
        .filter((each) => each.reason === reason)
        .map(({ group }) => group)
        .join(', ')}: ${reason}`,
  )
  const more = (unevaluated ?? 0) - unevaluatedGroups.length
  return words.join('; ') + (more > 0 ? t('shared.and_more', { more: numberWords(more) }) : '')
}

/** How a check ended, in one sentence. */
export function outcomeWords(check: Check): string {
  const read = t('shared.row_read_exception', { rowsRead: check.rowsRead ?? 0, exceptions: check.exceptions ?? 0 })
  const unknown = check.unknownRows ? t('shared.row_unknown_value_missing', { unknownRows: check.unknownRows }) : ''
  switch (check.state) {
    case 'RUNNING':
      return t('shared.the_check_is_still_running')
    case 'QUIET':
      return t('shared.nothing_new_so_nothing_was', { read, unknown })
    case 'FIRED':
      return t('shared.finding_reported_in_message', {
        updates: check.updates ?? 0,
        messages: check.messages ?? 0,
        read,
        unknown,
      })
    case 'INCOMPLETE':
      return t('shared.group_could_not_be_evaluated', {
        unevaluated: check.unevaluated ?? 0,
        check: unevaluatedWords(check),
        read,
      })
    default:
      return t('shared.the_check_ended', {
        outcome:
          check.state === 'FAILED' ? stateWords(check.state) : t('shared.ended', { state: stateWords(check.state) }),
        reason: check.reason ?? '',
      })
  }
}

/** `taken by Ines Holm until Mon 30 Nov 09:00`. */
export const markWords = (mark: HandlingEntry) =>
  t('shared.by', {
    done: t(`handling.${mark.kind.toLowerCase() as Lowercase<HandlingEntry['kind']>}`),
    by: mark.by,
    until: mark.until ? t('shared.until_time', { until: timeWords(mark.until) }) : '',
  })

/** The size of a file. */
export const bytesWords = (bytes: number) =>
  bytes < 100_000
    ? t('shared.kb', { bytes: Math.ceil(bytes / 1000) })
    : t('shared.mb', { bytes: (bytes / 1_000_000).toFixed(1) })
