import type { Schemas } from '../../api/types'
import { infiniteQueryOptions } from '@tanstack/react-query'
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
