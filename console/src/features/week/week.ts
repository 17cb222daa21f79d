import type { Hour } from './api'

const dayMs = 86_400_000

/** A day of the calendar, whatever the zone, as `2026-11-23`. */
const text = (day: Date) => day.toISOString().slice(0, 10)

export const daysAfter = (day: string, days: number) => text(new Date(Date.parse(`${day}T00:00:00Z`) + days * dayMs))

/** The Monday of the week that an instant lies in, in the zone. */
export function mondayOf(now: Date, zone: string): string {
  const today = new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(now)
  return daysAfter(today, -((new Date(`${today}T00:00:00Z`).getUTCDay() + 6) % 7))
}

export type Cell = { day: string; hour: number; hours: Hour[] }

/** The hours of a week by day and hour of the clock: where clocks change, a cell has two of them or none. */
export function cellsOf(hours: Hour[], zone: string): Map<string, Cell> {
  const parts = new Intl.DateTimeFormat('en-CA', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    hourCycle: 'h23',
  })
  const cells = new Map<string, Cell>()
  for (const each of hours) {
    const found = Object.fromEntries(parts.formatToParts(new Date(each.from)).map(({ type, value }) => [type, value]))
    const day = `${found['year']}-${found['month']}-${found['day']}`
    const hour = Number(found['hour'])
    const key = keyOf(day, hour)
    cells.set(key, { day, hour, hours: [...(cells.get(key)?.hours ?? []), each] })
  }
  return cells
}

export const keyOf = (day: string, hour: number) => `${day} ${hour}`

export const sumOf = (hours: Hour[], of: (hour: Hour) => number) => hours.reduce((sum, hour) => sum + of(hour), 0)

/** How full a cell is between the emptiest and the fullest of its week, from 1 to 4; 0 where there is nothing. */
export function levelOf(value: number, lowest: number, highest: number): 0 | 1 | 2 | 3 | 4 {
  if (value <= 0) return 0
  const share = highest > lowest ? (value - lowest) / (highest - lowest) : 0
  return (1 + Math.min(3, Math.floor(share * 4))) as 1 | 2 | 3 | 4
}
