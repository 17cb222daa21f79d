import type { SchedulePart } from './parts'
import { t } from '../../messages'

export const weekdays = [
  ['MO', t('editor.mon')],
  ['TU', t('editor.tue')],
  ['WE', t('editor.wed')],
  ['TH', t('editor.thu')],
  ['FR', t('editor.fri')],
  ['SA', t('editor.sat')],
  ['SU', t('editor.sun')],
] as const

const isWeekday = (code: string) => weekdays.some(([each]) => each === code)

/** A usual rhythm, as it is chosen from fields. */
export type Choice = {
  rhythm: 'none' | 'once' | 'minutes' | 'hours' | 'day' | 'week' | 'month' | 'weekday' | 'workingDay' | 'year'
  /** Weekdays; of a month, the one that counts. */
  days: string[]
  time: string
  every: number
  /** From 1; -1 for the last: the day of a month, or which of its weekdays or working days. */
  monthDay: number
  /** Hours between which a check every few minutes or hours runs; null for the whole day. */
  hours: { from: number; to: number } | null
  /** The day of a single check, or of each year. */
  date: string
}

const pad = (value: number) => String(value).padStart(2, '0')

function today(): string {
  const now = new Date()
  return `${now.getFullYear()}-${pad(now.getMonth() + 1)}-${pad(now.getDate())}`
}

export const usual = (): Choice => ({
  rhythm: 'none',
  days: [],
  time: '06:00',
  every: 1,
  monthDay: 1,
  hours: null,
  date: today(),
})

/** What suits a rhythm that was just chosen. */
export function withRhythm(choice: Choice, rhythm: Choice['rhythm']): Choice {
  const days = {
    week: choice.days.length > 0 ? choice.days : ['MO', 'TU', 'WE', 'TH', 'FR'],
    weekday: [choice.days[0] ?? 'MO'],
  }
  const every = rhythm === 'minutes' ? 10 : 1
  return {
    ...choice,
    rhythm,
    every,
    days: rhythm === 'week' || rhythm === 'weekday' ? days[rhythm] : choice.days,
    monthDay: rhythm === 'weekday' ? Math.min(choice.monthDay, 4) : choice.monthDay,
  }
}

/** `6,7,8` as the hours between which it lies; null for a list with gaps. */
function hoursOf(list: string): { from: number; to: number } | null {
  const hours = list.split(',').map(Number)
  const [first, last] = [hours[0], hours.at(-1)]
  if (first === undefined || last === undefined) return null
  return hours.every((hour, index) => hour === first + index) ? { from: first, to: last } : null
}

function fieldsOf(recurrence: string): Map<string, string> {
  return new Map(
    recurrence
      .toUpperCase()
      .replace(/^RRULE:/, '')
      .split(';')
      .map((each): [string, string] => [each.split('=')[0] ?? '', each.split('=')[1] ?? '']),
  )
}

/** The choice that means the same as a schedule; null if there is none, so that showing it loses nothing. */
export function choiceOf(schedule: SchedulePart): Choice | null {
  const { recur = [], also = [], working_days = [], start } = schedule
  const time = start?.slice(11, 16) ?? '06:00'
  if (recur.length + also.length + working_days.length === 0) return usual()
  if (recur.length + also.length + working_days.length > 1) return null
  const [single, working, only] = [also[0], working_days[0], recur[0]]
  if (single !== undefined) return { ...usual(), rhythm: 'once', date: single.slice(0, 10), time: single.slice(11, 16) }
  if (working !== undefined) return { ...usual(), rhythm: 'workingDay', monthDay: Number(working), time }
  return only === undefined ? null : ofRecurrence(fieldsOf(only), time)
}

function ofRecurrence(fields: Map<string, string>, time: string): Choice | null {
  const known = (names: string[]) => [...fields.keys()].every((name) => name === 'FREQ' || names.includes(name))
  const every = Number(fields.get('INTERVAL') ?? 1)
  const byHour = fields.get('BYHOUR')
  const hours = byHour === undefined ? null : hoursOf(byHour)
  const all = (fields.get('BYDAY') ?? '').split(',').filter(Boolean)
  const monthDay = Number(fields.get('BYMONTHDAY'))
  switch (fields.get('FREQ')) {
    case 'MINUTELY':
    case 'HOURLY': {
      const rhythm = fields.get('FREQ') === 'HOURLY' ? 'hours' : 'minutes'
      const readable = known(['INTERVAL', 'BYHOUR']) && (byHour === undefined || hours !== null)
      return readable ? { ...usual(), rhythm, every, hours, time } : null
    }
    case 'DAILY':
      return known([]) ? { ...usual(), rhythm: 'day', time } : null
    case 'WEEKLY':
      return known(['BYDAY', 'INTERVAL']) && all.length > 0 && all.every(isWeekday)
        ? { ...usual(), rhythm: 'week', days: all, every, time }
        : null
    case 'MONTHLY': {
      if (known(['BYMONTHDAY']) && Number.isInteger(monthDay) && monthDay !== 0)
        return { ...usual(), rhythm: 'month', monthDay, time }
      const [, ordinal, day] = /^(-1|[1-4])([A-Z]{2})$/.exec(all.join()) ?? []
      return known(['BYDAY']) && ordinal !== undefined && day !== undefined && isWeekday(day)
        ? { ...usual(), rhythm: 'weekday', monthDay: Number(ordinal), days: [day], time }
        : null
    }
    case 'YEARLY': {
      const month = Number(fields.get('BYMONTH'))
      return known(['BYMONTH', 'BYMONTHDAY']) && month >= 1 && month <= 12 && monthDay >= 1 && monthDay <= 31
        ? { ...usual(), rhythm: 'year', date: `${today().slice(0, 4)}-${pad(month)}-${pad(monthDay)}`, time }
        : null
    }
    default:
      return null
  }
}

const everyOf = ({ every }: Choice) => (every > 1 ? `;INTERVAL=${every}` : '')

function betweenOf({ hours }: Choice): string {
  if (hours === null) return ''
  const all = Array.from({ length: Math.max(1, hours.to - hours.from + 1) }, (_, index) => hours.from + index)
  return `;BYHOUR=${all.join(',')}`
}

export function recurOf(choice: Choice): string[] {
  switch (choice.rhythm) {
    case 'none':
    case 'once':
    case 'workingDay':
      return []
    case 'minutes':
      return [`FREQ=MINUTELY;INTERVAL=${choice.every}${betweenOf(choice)}`]
    case 'hours':
      return [`FREQ=HOURLY;INTERVAL=${choice.every}${betweenOf(choice)}`]
    case 'day':
      return ['FREQ=DAILY']
    case 'week':
      return choice.days.length === 0 ? [] : [`FREQ=WEEKLY${everyOf(choice)};BYDAY=${choice.days.join(',')}`]
    case 'month':
      return [`FREQ=MONTHLY;BYMONTHDAY=${choice.monthDay}`]
    case 'weekday':
      return [`FREQ=MONTHLY;BYDAY=${choice.monthDay}${choice.days[0] ?? 'MO'}`]
    case 'year':
      return [`FREQ=YEARLY;BYMONTH=${Number(choice.date.slice(5, 7))};BYMONTHDAY=${Number(choice.date.slice(8, 10))}`]
  }
}

/** The time stands in the start; its day stays, so that what has been counted from it does. */
export function startOf(choice: Choice, before: string | undefined): string {
  if (choice.rhythm === 'none' || choice.rhythm === 'once') return ''
  const day = before?.slice(0, 10) ?? today()
  const timed = choice.rhythm !== 'minutes' && choice.rhythm !== 'hours'
  return `${day}T${timed ? choice.time : (before?.slice(11, 16) ?? '00:00')}`
}

/** What a schedule says of a choice. */
export const scheduleOf = (choice: Choice, before: string | undefined) => ({
  recur: recurOf(choice),
  start: startOf(choice, before),
  working_days: choice.rhythm === 'workingDay' ? [choice.monthDay] : [],
  also: choice.rhythm === 'once' ? [`${choice.date}T${choice.time}`] : [],
})
