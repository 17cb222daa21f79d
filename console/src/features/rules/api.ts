import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Check, FindingList, FindingState, RulePage, RuleSummary } from '../../api/types'

const path = (name: string) => `/api/rules/${encodeURIComponent(name)}`

export const rules = queryOptions({
  queryKey: ['rules'],
  queryFn: () => api.get<RuleSummary[]>('/api/rules'),
  refetchInterval: 15_000,
})

export const rule = (name: string) =>
  queryOptions({ queryKey: ['rules', name], queryFn: () => api.get<RulePage>(path(name)), refetchInterval: 15_000 })

export const findingsOf = (name: string, state: FindingState | null) =>
  queryOptions({
    queryKey: ['rules', name, 'findings', state],
    queryFn: () => api.get<FindingList>(`${path(name)}/findings${state ? `?state=${state}` : ''}`),
  })

export const checksOf = (name: string) =>
  queryOptions({ queryKey: ['rules', name, 'checks'], queryFn: () => api.get<Check[]>(`${path(name)}/checks`) })

export type Point = { slot: string; value: number; filledIn: boolean }
export type Series = { group: string; measured: string; total: number; points: Point[] }

export const historyOf = (name: string) =>
  queryOptions({ queryKey: ['rules', name, 'history'], queryFn: () => api.get<Series[]>(`${path(name)}/history`) })

/** A key that stays the same while one press is being answered, so that a repeat asks for the same check. */
export const checkNow = (name: string, requestKey: string) =>
  api.post<Check>(`${path(name)}/checks`, undefined, { 'Idempotency-Key': requestKey })

export const activate = (name: string) => api.post<RulePage>(`${path(name)}/activate`)

export const pause = (name: string) => api.post<RulePage>(`${path(name)}/pause`)
