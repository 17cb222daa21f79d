import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type DayCheck = Schemas['DayCheck']
export type Lane = Schemas['DayLane']
export type OpenOfRule = Schemas['DayOpenFindings']
export type DaySeen = Schemas['DayView']

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
