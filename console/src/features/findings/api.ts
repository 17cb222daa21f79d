import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type Found = Schemas['FindingSummary']
export type FoundList = Schemas['FindingSummaryList']
export type Sought = { q: string; rule: string; state: string; severity: string; marked: string }

export const findingsAcross = (sought: Sought) => {
  const asked = new URLSearchParams(Object.entries(sought).filter(([, value]) => value !== ''))
  return queryOptions({
    queryKey: ['findings', asked.toString()],
    queryFn: () => api.get<FoundList>(`/api/findings${asked.size ? `?${asked}` : ''}`),
    placeholderData: (before: FoundList | undefined) => before,
  })
}
