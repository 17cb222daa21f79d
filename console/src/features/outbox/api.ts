import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { MessagePage } from '../../api/types'
import { t } from '../../messages'

export type Sought = { rule?: string | null; q?: string; state?: string }
export const heldWords = ({ rule, source }: Hold) =>
  rule ? t('outbox.mail_of', { rule }) : source ? t('outbox.mail_of_the_rules_on', { source }) : t('outbox.all_mail')

export type Hold = Schemas['Hold']
export type MessageAct = 'cancel' | 'resend' | 'report-again' | 'confirm'

/** @param after where the page begins; left out for the newest */
export const outbox = ({ rule, q, state }: Sought, after?: string) => {
  const asked = new URLSearchParams()
  if (rule) asked.set('rule', rule)
  if (q) asked.set('q', q)
  if (state) asked.set('state', state)
  if (after) asked.set('after', after)
  return queryOptions({
    queryKey: ['outbox', asked.toString()],
    queryFn: () => api.get<Schemas['MessageList']>(`/api/outbox${asked.size ? `?${asked}` : ''}`),
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
  api.post<Schemas['MessageActionResult']>(`/api/outbox/${id}/${what}`, {})

export const holds = queryOptions({
  queryKey: ['true'],
  queryFn: () => api.get<Hold[]>('/api/holds'),
  refetchInterval: 10_000,
})
export const holdMail = (rule: string | null, reason: string) =>
  api.post<Hold[]>('/api/holds', { rule, reason } satisfies Schemas['HoldBody'])
export const endHold = (id: number, throwAway: boolean) =>
  api.post<Schemas['EndedHold']>(`/api/holds/${id}/end?discard=${throwAway}`, {})

export type BlockedAddress = Schemas['BlockedAddress']

export const blockedAddresses = queryOptions({
  queryKey: ['blocked-addresses'],
  queryFn: () => api.get<BlockedAddress[]>('/api/blocked-addresses'),
  refetchInterval: 30_000,
})
export const unblock = (address: string) =>
  api.delete<BlockedAddress[]>(`/api/blocked-addresses/${encodeURIComponent(address)}`)

export type KeptExtract = Schemas['ReportView']

export const keptExtract = (id: string) =>
  queryOptions({ queryKey: ['extracts', id], queryFn: () => api.get<KeptExtract>(`/api/extracts/${id}`) })
