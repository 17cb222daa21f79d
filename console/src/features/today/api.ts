import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { CheckState, Instant, Severity } from '../../api/types'

export type DayCheck = {
  id: string
  slot: Instant
  state: CheckState
  news: number | null
  worst: Severity | null
  reason: string | null
}
export type Lane = {
  rule: string
  title: string
  checks: DayCheck[]
  toCome: Instant[]
  lateSince: Instant | null
  pending: number
}
export type OpenOfRule = {
  rule: string
  title: string
  open: Partial<Record<Severity, number>>
  criticalInNoHands: number
  newToday: number
  cleared: number
  oldest: Instant | null
  taken: number
  takenBy: string[]
  lastReported: Instant | null
  lastReaders: number
}
export type DaySeen = {
  from: Instant
  now: Instant
  until: Instant
  outcomes: Partial<Record<CheckState, number>>
  lanes: Lane[]
  moreLanes: number
  others: number
  open: OpenOfRule[]
  sent: number
  waiting: number
}

/** Where the reader's day begins and ends; a clock change makes it shorter or longer. */
export function dayAround(now: Date): { from: string; until: string } {
  const from = new Date(now.getFullYear(), now.getMonth(), now.getDate())
  const until = new Date(now.getFullYear(), now.getMonth(), now.getDate() + 1)
  return { from: from.toISOString(), until: until.toISOString() }
}

export const day = ({ from, until }: { from: string; until: string }) =>
  queryOptions({
    queryKey: ['day', from],
    queryFn: () => api.get<DaySeen>(`/api/day?from=${from}&until=${until}`),
    refetchInterval: 30_000,
  })
