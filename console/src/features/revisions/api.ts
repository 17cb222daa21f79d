import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type Revision = Schemas['RevisionView']

const path = (kind: string, name: string) => `/api/definitions/${encodeURIComponent(kind)}/${encodeURIComponent(name)}`

/** All pages: any two revisions may be compared. */
async function allRevisions(list: string) {
  const all: Revision[] = []
  let after = ''
  for (;;) {
    const page = await api.get<Schemas['RevisionList']>(list + after)
    all.push(...page.revisions)
    if (!page.next) return all
    after = `?after=${page.next}`
  }
}

/** Newest first; read again, so that an editor shows the revisions of others. */
export const revisionsOf = (kind: string, name: string) =>
  queryOptions({
    queryKey: ['revisions', kind, name],
    queryFn: () => allRevisions(`${path(kind, name)}/revisions`),
    refetchInterval: 10_000,
  })

export const revisionText = (kind: string, name: string, revision: number) =>
  queryOptions({
    queryKey: ['revisions', kind, name, revision],
    queryFn: () => api.read(`${path(kind, name)}/revisions/${revision}`),
    staleTime: Infinity,
  })

export const restore = (kind: string, name: string, revision: number, reason: string) =>
  api.post<{ revision: number }>(`${path(kind, name)}/revisions/${revision}/restore?${new URLSearchParams({ reason })}`)
