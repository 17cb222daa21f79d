import type { Check } from '../../api/types'

/** What the last checks of a rule met, against which its limits are chosen. */
export type Met = {
  checks: number
  /** When the oldest of them was. */
  since: string
  longestMillis: number
  /** How many took longer than the time limit that is being typed; null without one. */
  overLimit: number | null
  failed: number
  retries: number
  withoutRows: number
  mostOpened: number
  mostCleared: number
}

const units: Record<string, number> = { second: 1, minute: 60, hour: 3600, day: 86_400, week: 604_800 }

/** `10 minutes` in milliseconds; null for what cannot be read. */
export function millisOf(text: string): number | null {
  const [, number, unit] = /^\s*(\d+)\s*([a-z]+?)s?\s*$/.exec(text) ?? []
  const seconds = unit === undefined ? undefined : units[unit]
  return number === undefined || seconds === undefined ? null : Number(number) * seconds * 1000
}

/** Null without a finished check. */
export function metBy(checks: Check[], timeLimit: string): Met | null {
  const ended = checks.filter(({ state }) => state !== 'RUNNING')
  const oldest = ended.at(-1)
  if (!oldest) return null
  const limit = millisOf(timeLimit)
  const most = (values: (number | null)[]) => Math.max(0, ...values.map((value) => value ?? 0))
  return {
    checks: ended.length,
    since: oldest.slot,
    longestMillis: most(ended.map(({ tookMillis }) => tookMillis)),
    overLimit: limit === null ? null : ended.filter(({ tookMillis }) => (tookMillis ?? 0) > limit).length,
    failed: ended.filter(({ state }) => state === 'FAILED' || state === 'PARTLY_FAILED').length,
    retries: ended.filter(({ attempt }) => attempt > 1).length,
    withoutRows: ended.filter(({ rowsRead }) => rowsRead === 0).length,
    mostOpened: most(ended.map(({ opened }) => opened)),
    mostCleared: most(ended.map(({ cleared }) => cleared)),
  }
}
