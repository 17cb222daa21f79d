import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type ThresholdSummary = Schemas['ThresholdSummary']

export type Value = Schemas['ThresholdValueView']
export type Given = Schemas['ThresholdValue']
export type ThresholdPage = Schemas['ThresholdPage']
/** @property number as text, since a double would round it */
export type NewValue = { key: string[]; from: string | null; number: string | null }
export type Effect = Schemas['ThresholdEffectOnRule']

const path = (name: string) => `/api/thresholds/${encodeURIComponent(name)}`

export const thresholds = queryOptions({
  queryKey: ['thresholds'],
  queryFn: () => api.get<ThresholdSummary[]>('/api/thresholds'),
})

export const threshold = (name: string) =>
  queryOptions({ queryKey: ['thresholds', name], queryFn: () => api.get<ThresholdPage>(path(name)) })

export const effectOf = (name: string, values: NewValue[]) => api.post<Effect[]>(`${path(name)}/effect`, { values })

export const give = (name: string, values: NewValue[], reason: string, treatAsKnown: boolean) =>
  api.post<ThresholdPage>(`${path(name)}/values`, {
    values,
    reason,
    treatAsKnown,
  })

export const importTable = (name: string, table: string, reason: string) =>
  api.text<{ read: number; changed: number }>(
    `${path(name)}/values.csv?reason=${encodeURIComponent(reason)}`,
    table,
    'text/csv',
  )
