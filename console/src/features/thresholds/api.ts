import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Instant } from '../../api/types'

export type ThresholdSummary = {
  name: string
  title: string
  unit: string | null
  description: string | null
  key: string[]
  number: number | null
  values: number
  planned: number
  rules: string[]
}

export type Value = { key: string[]; from: string | null; number: number; when: 'PAST' | 'NOW' | 'PLANNED' }
export type Given = {
  key: string[]
  from: string | null
  number: number | null
  setBy: string
  setAt: Instant
  remark: string
}
export type ThresholdPage = { threshold: ThresholdSummary; values: Value[]; history: Given[] }
export type NewValue = { key: string[]; from: string | null; number: string | null }
export type Effect = {
  rule: string
  title: string
  before: number | null
  after: number | null
  otherSeverity: number | null
  refused: string | null
}

const path = (name: string) => `/api/thresholds/${encodeURIComponent(name)}`

export const thresholds = queryOptions({
  queryKey: ['thresholds'],
  queryFn: () => api.get<ThresholdSummary[]>('/api/thresholds'),
})

export const threshold = (name: string) =>
  queryOptions({ queryKey: ['thresholds', name], queryFn: () => api.get<ThresholdPage>(path(name)) })

export const effectOf = (name: string, values: NewValue[]) => api.post<Effect[]>(`${path(name)}/effect`, { values })

export const give = (name: string, values: NewValue[], remark: string, asKnown: boolean) =>
  api.post<ThresholdPage>(`${path(name)}/values`, { values, remark, asKnown })

export const importTable = (name: string, table: string, remark: string) =>
  api.text<{ read: number; changed: number }>(
    `${path(name)}/values.csv?remark=${encodeURIComponent(remark)}`,
    table,
    'text/csv',
  )
