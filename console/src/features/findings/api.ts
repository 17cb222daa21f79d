import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { FindingState, Instant, MarkOfPerson, Severity } from '../../api/types'

export type Found = {
  id: number
  rule: string
  title: string
  copy: string | null
  identity: string
  state: FindingState
  severity: Severity
  openedAt: Instant
  changedAt: Instant
  noData: boolean
  marks: MarkOfPerson[]
  cells: { label: string; text: string | null }[]
}
export type FoundList = { total: number; byRule: Record<string, number>; findings: Found[] }
export type Sought = { q: string; rule: string; state: string; severity: string; marked: string }

export const findingsAcross = (sought: Sought) => {
  const asked = new URLSearchParams(Object.entries(sought).filter(([, value]) => value !== ''))
  return queryOptions({
    queryKey: ['findings', asked.toString()],
    queryFn: () => api.get<FoundList>(`/api/findings${asked.size ? `?${asked}` : ''}`),
    placeholderData: (before: FoundList | undefined) => before,
  })
}
