import { infiniteQueryOptions, keepPreviousData } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schemas } from '../../api/types'

export type AuditEntry = Schemas['AuditEntry']
type Page = Schemas['AuditPage']

/** @param from a day of the reader's zone, its beginning; empty for none. @param to a day, its end */
export type Sought = { kind: AuditEntry['kind'] | ''; by: string; q: string; from: string; to: string }

/** The moment at which a day of the reader's zone begins, so many days later. */
function dayBegins(day: string, later = 0): string {
  const [year = 0, month = 1, date = 1] = day.split('-').map(Number)
  return new Date(year, month - 1, date + later).toISOString()
}

function asked({ kind, by, q, from, to }: Sought): URLSearchParams {
  const query = new URLSearchParams()
  if (kind) query.set('kind', kind)
  if (by) query.set('by', by)
  if (q.trim()) query.set('q', q.trim())
  if (from) query.set('from', dayBegins(from))
  if (to) query.set('to', dayBegins(to, 1))
  return query
}

export const audit = (sought: Sought) =>
  infiniteQueryOptions({
    queryKey: ['audit', asked(sought).toString()],
    queryFn: ({ pageParam }) => {
      const query = asked(sought)
      if (pageParam !== null) query.set('before', String(pageParam))
      return api.get<Page>(`/api/audit${query.size ? `?${query}` : ''}`)
    },
    initialPageParam: null as number | null,
    getNextPageParam: (last) => last.next,
    placeholderData: keepPreviousData,
  })

/** Where all that match are had as a file. */
export const auditFile = (form: 'csv' | 'jsonl', sought: Sought) => {
  const query = asked(sought)
  return `/api/audit.${form}${query.size ? `?${query}` : ''}`
}
