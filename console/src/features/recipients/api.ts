import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { ReaderChoice } from './choice'

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

/** What mails recipients. */
export type Sender = { kind: 'rules' | 'round-ups'; name: string }

type UnsubscribedRecipient = Schemas['UnsubscribedRecipient']

const path = ({ kind, name }: Sender) => `/api/${kind}/${encodeURIComponent(name)}`

export const unsubscribedOf = (of: Sender) =>
  queryOptions({
    queryKey: [of.kind, of.name, 'unsubscribed'],
    queryFn: () => api.get<UnsubscribedRecipient[]>(`${path(of)}/unsubscribed`),
  })

export const resubscribe = (of: Sender, address: string) =>
  api.delete<UnsubscribedRecipient[]>(`${path(of)}/unsubscribed/${encodeURIComponent(address)}`)

export const choicesOf = (of: Sender) =>
  queryOptions({
    queryKey: [of.kind, of.name, 'reader-choices'],
    queryFn: () => api.get<ReaderChoice[]>(`${path(of)}/reader-choices`),
  })

export const endChoice = (of: Sender, address: string) =>
  api.delete<ReaderChoice[]>(`${path(of)}/reader-choices/${encodeURIComponent(address)}`)
