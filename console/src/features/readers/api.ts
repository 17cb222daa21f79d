import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Instant, RuleState } from '../../api/types'

export type ReaderSummary = { address: string; rules: number; messages: number; lastAt: Instant | null; bad: boolean }
export type Gets = {
  kind: 'rule' | 'round-up'
  name: string
  title: string
  state: RuleState | null
  how: string[]
  messages: number
  lastAt: Instant | null
  leftAt: Instant | null
}
export type Reader = { address: string; language: string | null; bad: string | null; gets: Gets[] }

export const readers = queryOptions({
  queryKey: ['Recipients'],
  queryFn: () => api.get<ReaderSummary[]>('/api/readers'),
})
export const reader = (address: string) =>
  queryOptions({
    queryKey: ['Recipients', address],
    queryFn: () => api.get<Reader>(`/api/readers/${encodeURIComponent(address)}`),
  })
