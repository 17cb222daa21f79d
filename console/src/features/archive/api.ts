import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schemas } from '../../api/types'

export type Retired = Schemas['RetiredDefinition']
export type Removal = Schemas['RemovalCounts']

export const archive = queryOptions({
  queryKey: ['archive'],
  queryFn: () => api.get<Retired[]>('/api/archive'),
})

const path = (kind: string, name: string) => `/api/definitions/${kind}/${encodeURIComponent(name)}`

export const retire = (kind: string, name: string, reason: string) =>
  api.post<Retired>(`${path(kind, name)}/retire`, { reason })

export const restore = (kind: string, name: string) => api.post<unknown>(`${path(kind, name)}/restore`)

export const removalOf = (kind: string, name: string) =>
  queryOptions({
    queryKey: ['archive', kind, name, 'removal'],
    queryFn: () => api.get<Removal>(`${path(kind, name)}/removal`),
    retry: false,
    gcTime: 0,
  })

export const remove = (kind: string, name: string) => api.delete(path(kind, name))
