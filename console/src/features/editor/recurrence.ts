import type { SchedulePart } from './api'
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

/** A usual rhythm, as it is chosen from fields. */
export type Choice = {
  rhythm: 'none' | 'minutes' | 'hours' | 'day' | 'week' | 'month'
  days: string[]
  time: string
  every: number
  monthDay: number
}

const usual = { days: [], time: '06:00', every: 10, monthDay: 1 }

/** The choice that means the same as a recurrence; null if there is none, so that showing it loses nothing. */
export function choiceOf(schedule: SchedulePart): Choice | null {
  const rules = schedule.recur ?? []
  const more = (schedule['working_days'] ?? []).length + (schedule.also ?? []).length
  if (rules.length === 0) return more > 0 ? null : { rhythm: 'none', ...usual }
  const only = rules[0]
  if (rules.length > 1 || more > 0 || only === undefined) return null
  const fields = new Map(
    only
      .toUpperCase()
      .replace(/^RRULE:/, '')
      .split(';')
      .map((each): [string, string] => [each.split('=')[0] ?? '', each.split('=')[1] ?? '']),
  )
  const known = (names: string[]) => [...fields.keys()].every((name) => names.includes(name))
  const time = schedule.start?.slice(11, 16) ?? '06:00'
  const every = Number(fields.get('INTERVAL') ?? 1)
  switch (fields.get('FREQ')) {
    case 'MINUTELY':
      return known(['FREQ', 'INTERVAL']) ? { ...usual, rhythm: 'minutes', every, time } : null
    case 'HOURLY':
      return known(['FREQ', 'INTERVAL']) ? { ...usual, rhythm: 'hours', every, time } : null
    case 'DAILY':
      return known(['FREQ']) ? { ...usual, rhythm: 'day', time } : null
    case 'WEEKLY': {
      const days = (fields.get('BYDAY') ?? '').split(',').filter(Boolean)
      return known(['FREQ', 'BYDAY']) && days.length > 0 && days.every((day) => weekdays.some(([code]) => code === day))
        ? { ...usual, rhythm: 'week', days, time }
        : null
    }
    case 'MONTHLY': {
      const monthDay = Number(fields.get('BYMONTHDAY'))
      return known(['FREQ', 'BYMONTHDAY']) && Number.isInteger(monthDay) && monthDay !== 0
        ? { ...usual, rhythm: 'month', monthDay, time }
        : null
    }
    default:
      return null
  }
}

export function recurOf(choice: Choice): string[] {
  switch (choice.rhythm) {
    case 'none':
      return []
    case 'minutes':
      return [`FREQ=MINUTELY;INTERVAL=${choice.every}`]
    case 'hours':
      return [`FREQ=HOURLY;INTERVAL=${choice.every}`]
    case 'day':
      return ['FREQ=DAILY']
    case 'week':
      return choice.days.length === 0 ? [] : [`FREQ=WEEKLY;BYDAY=${choice.days.join(',')}`]
    case 'month':
      return [`FREQ=MONTHLY;BYMONTHDAY=${choice.monthDay}`]
  }
}

const pad = (value: number) => String(value).padStart(2, '0')

/** The time stands in the start; its day stays, so that what has been counted from it does. */
export function startOf(choice: Choice, before: string | undefined): string {
  if (choice.rhythm === 'none') return ''
  const today = new Date()
  const day = before?.slice(0, 10) ?? `${today.getFullYear()}-${pad(today.getMonth() + 1)}-${pad(today.getDate())}`
  const timed = choice.rhythm === 'day' || choice.rhythm === 'week' || choice.rhythm === 'month'
  return `${day}T${timed ? choice.time : (before?.slice(11, 16) ?? '00:00')}`
}
