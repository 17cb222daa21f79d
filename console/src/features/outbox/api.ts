import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { MessagePage, MessageSummary } from '../../api/types'

export const outbox = (rule: string | null) =>
  queryOptions({
    queryKey: ['outbox', rule],
    queryFn: () => api.get<MessageSummary[]>(`/api/outbox${rule ? `?rule=${encodeURIComponent(rule)}` : ''}`),
    refetchInterval: 10_000,
  })

export const message = (id: string) =>
  queryOptions({ queryKey: ['outbox', 'message', id], queryFn: () => api.get<MessagePage>(`/api/outbox/${id}`), refetchInterval: 10_000 })
