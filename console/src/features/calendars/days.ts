import type { Definitions, Written } from '../../api/types'
import type { DayLook } from '../../shared/Month'
import { t } from '../../messages'

export type CalendarDocument = Written<Definitions['calendar']>
export type Weekday = NonNullable<CalendarDocument['week']>[number]

/** As they stand in a week, and with the words that people read. */
export const weekdays = [
  ['monday', t('shared.monday')],
  ['tuesday', t('shared.tuesday')],
  ['wednesday', t('shared.wednesday')],
  ['thursday', t('shared.thursday')],
  ['friday', t('shared.friday')],
  ['saturday', t('shared.saturday')],
  ['sunday', t('shared.sunday')],
] as const

const usualWeek: Weekday[] = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday']

export const weekOf = ({ week }: CalendarDocument): Weekday[] => week ?? usualWeek

/** In the order of a week; the usual one is left out. */
export const inOrder = (days: Weekday[]): Weekday[] | undefined => {
  const ordered = weekdays.map(([day]) => day).filter((day) => days.includes(day))
  return ordered.join() === usualWeek.join() ? undefined : ordered
}

const weekdayOf = (date: string): Weekday =>
  weekdays[(new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7]?.[0] ?? 'monday'

/** What a day is, and why. A day that is worked in spite of a holiday is a working day. */
export function dayIn(calendar: CalendarDocument, date: string): DayLook {
  const begins = (calendar.periods ?? []).includes(date) ? `; ${t('calendars.a_period_begins')}` : ''
  if ((calendar.extra_working_days ?? []).includes(date))
    return { look: 'extra', words: t('calendars.extra_working_day') + begins }
  const holiday = calendar.holidays?.[date]
  if (holiday !== undefined) return { look: 'marked', words: (String(holiday) || t('calendars.holiday')) + begins }
  return weekOf(calendar).includes(weekdayOf(date))
    ? { look: 'usual', words: t('calendars.working_day') + begins }
    : { look: 'off', words: t('calendars.day_off') + begins }
}

/** The calendar with a day made a holiday of this name, an extra working day, or left to the week. */
export function withDay(
  calendar: CalendarDocument,
  date: string,
  what: { holiday: string } | 'worked' | 'by_week',
): Pick<CalendarDocument, 'holidays' | 'extra_working_days'> {
  const holidays = Object.fromEntries(Object.entries(calendar.holidays ?? {}).filter(([each]) => each !== date))
  const extra = (calendar.extra_working_days ?? []).filter((each) => each !== date)
  if (what === 'worked') return { holidays, extra_working_days: [...extra, date].sort() }
  if (what === 'by_week') return { holidays, extra_working_days: extra }
  return {
    holidays: Object.fromEntries(Object.entries({ ...holidays, [date]: what.holiday }).sort()),
    extra_working_days: extra,
  }
}
