import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Instant, MessagePage, MessageSummary } from '../../api/types'

export type Sought = { rule?: string | null; q?: string; state?: string }
export const heldWords = ({ rule, source }: Hold) =>
  rule ? `mail of ${rule}` : source ? `mail of the rules on ${source}` : 'all mail'

export type Hold = {
  id: number
  source: string | null
  rule: string | null
  why: string
  by: string | null
  at: Instant
  messages: number
}
export type MessageAct = 'stop' | 'send-again' | 'report-again' | 'arrived'

export const outbox = ({ rule, q, state }: Sought) => {
  const asked = new URLSearchParams()
  if (rule) asked.set('rule', rule)
  if (q) asked.set('q', q)
  if (state) asked.set('state', state)
  return queryOptions({
    queryKey: ['outbox', asked.toString()],
    queryFn: () => api.get<MessageSummary[]>(`/api/outbox${asked.size ? `?${asked}` : ''}`),
    refetchInterval: 10_000,
  })
}

export const message = (id: string) =>
  queryOptions({
    queryKey: ['outbox', 'message', id],
    queryFn: () => api.get<MessagePage>(`/api/outbox/${id}`),
    refetchInterval: 10_000,
  })

export const act = (id: string, what: MessageAct) =>
  api.post<{ count: number; message: string | null }>(`/api/outbox/${id}/${what}`, {})

export const holds = queryOptions({
  queryKey: ['true'],
  queryFn: () => api.get<Hold[]>('/api/holds'),
  refetchInterval: 10_000,
})
export const holdMail = (rule: string | null, why: string) => api.post<Hold[]>('/api/holds', { rule, why })
export const endHold = (id: number, throwAway: boolean) =>
  api.post<{ messages: number }>(`/api/holds/${id}/end?throwAway=${throwAway}`, {})

export type BadAddress = { address: string; words: string; message: string; since: Instant }

export const badAddresses = queryOptions({
  queryKey: ['bad-addresses'],
  queryFn: () => api.get<BadAddress[]>('/api/bad-addresses'),
  refetchInterval: 30_000,
})
export const rightAgain = (address: string) =>
  api.delete<BadAddress[]>(`/api/bad-addresses/${encodeURIComponent(address)}`)

export type KeptExtract = {
  message: string
  subject: string
  rule: string | null
  slot: Instant
  files: { name: string; mediaType: string; bytes: number }[]
}

export const keptExtract = (id: string) =>
  queryOptions({ queryKey: ['extracts', id], queryFn: () => api.get<KeptExtract>(`/api/extracts/${id}`) })
