import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type RecipientSummary = Schemas['RecipientSummary']
export type Gets = Schemas['RecipientEntry']
export type Reader = Schemas['RecipientPage']

export const readers = queryOptions({
  queryKey: ['Recipients'],
  queryFn: () => api.get<RecipientSummary[]>('/api/recipients'),
})
export const reader = (address: string) =>
  queryOptions({
    queryKey: ['Recipients', address],
    queryFn: () => api.get<Reader>(`/api/recipients/${encodeURIComponent(address)}`),
  })
