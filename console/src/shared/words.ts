import type { Check, Instant, HandlingEntry } from '../api/types'

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
export function ageWords(since: Instant, now: Instant): string {
  const minutes = Math.max(0, Math.floor((Date.parse(now) - Date.parse(since)) / 60_000))
  if (minutes < 120) return `${ages.format(minutes)} min`
  const hours = Math.floor(minutes / 60)
  return hours < 48 ? `${ages.format(hours)} hours` : `${ages.format(Math.floor(hours / 24))} days`
}

/** The same, with the time of the rule's zone beside it where that differs. */
export const zonedWords = (instant: Instant, zone: string) => {
  const there = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit', timeZone: zone }).format(
    new Date(instant),
  )
  const here = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' }).format(new Date(instant))
  return here === there
    ? timeWords(instant)
    : `${timeWords(instant)} (${there} in ${zone.split('/').at(-1)?.replaceAll('_', ' ') ?? zone})`
}

const measures = new Intl.NumberFormat(undefined, {
  maximumFractionDigits: 3,
  maximumSignificantDigits: 3,
  roundingPriority: 'morePrecision',
})

/** A measured value with three decimals, or three digits where that says more. */
export const measureWords = (value: number) => measures.format(value)

export const numberWords = (value: number) => numbers.format(value)

/** `AGED_OUT` as `out of sight`. */
export const stateWords = (state: string) => state.toLowerCase().replaceAll('_', ' ')

export const plural = (count: number, one: string, many = `${one}s`) =>
  `${numberWords(count)} ${count === 1 ? one : many}`

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
  return words.join('; ') + (more > 0 ? `; and ${numberWords(more)} more` : '')
}

/** How a check ended, in one sentence. */
export function outcomeWords(check: Check): string {
  const read = `${plural(check.rowsRead ?? 0, 'row')} read, ${plural(check.exceptions ?? 0, 'exception')}`
  const unknown = check.unknownRows ? `, ${plural(check.unknownRows, 'row')} unknown (value missing)` : ''
  switch (check.state) {
    case 'RUNNING':
      return 'The check is still running.'
    case 'QUIET':
      return `Nothing new, so nothing was sent. ${read}${unknown}.`
    case 'FIRED':
      return `${plural(check.updates ?? 0, 'finding')} reported in ${plural(check.messages ?? 0, 'message')}. ${read}${unknown}.`
    case 'INCOMPLETE':
      return `${plural(check.unevaluated ?? 0, 'group')} could not be evaluated: ${unevaluatedWords(check)}. ${read}.`
    default:
      return `The check ${stateWords(check.state) === 'failed' ? 'failed' : `ended: ${stateWords(check.state)}`}. ${check.reason ?? ''}`
  }
}

const markDone = { TAKE: 'taken', SNOOZE: 'snoozed', ACCEPT: 'accepted' } as const

/** `taken by Ines Holm until Mon 30 Nov 09:00`. */
export const markWords = (mark: HandlingEntry) =>
  `${markDone[mark.kind]} by ${mark.by}${mark.until ? ` until ${timeWords(mark.until)}` : ''}`
