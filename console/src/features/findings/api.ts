import type { Schemas } from '../../api/types'
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type Found = Schemas['FindingSummary']
export type FoundList = Schemas['FindingSummaryList']
export type Sought = { q: string; rule: string; state: string; severity: string; handling: string }

export const findingsAcross = (sought: Sought) => {
  const asked = new URLSearchParams(Object.entries(sought).filter(([, value]) => value !== ''))
  return infiniteQueryOptions({
    queryKey: ['findings', asked.toString()],
    queryFn: ({ pageParam }) => {
      const page = new URLSearchParams(asked)
      if (pageParam !== null) page.set('after', pageParam)
      return api.get<FoundList>(`/api/findings${page.size ? `?${page}` : ''}`)
    },
    initialPageParam: null as string | null,
    getNextPageParam: (last) => last.next,
    placeholderData: (before) => before,
  })
}

/** The same as a request has it. */
export const filterOf = ({ q, rule, state, severity, handling }: Sought) =>
  ({
    q: q || null,
    rule: rule || null,
    state: state || null,
    severity: severity || null,
    handling: handling || null,
  }) as Schemas['FindingFilter']

export type OverTime = Schemas['OpenFindings']
export type OverTimeLine = Schemas['OpenFindingsLine']
export type LinesBy = 'RULE' | 'TEAM'

/** How many findings were open at the end of each day of this browser's zone. */
export const findingsOverTime = (days: number, by: LinesBy) => {
  const asked = new URLSearchParams({
    days: String(days),
    by,
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  })
  return queryOptions({
    // Not with each check that ends: a day's number does not need it, and the events of months are counted.
    queryKey: ['over-time', asked.toString()],
    refetchInterval: 60_000,
    queryFn: () => api.get<OverTime>(`/api/findings/over-time?${asked}`),
    placeholderData: (before: OverTime | undefined) => before,
  })
}
