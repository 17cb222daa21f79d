import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type QuerySummary = Schemas['QuerySummary']
export type ParameterSeen = Schemas['QueryParameterView']
export type ColumnSeen = Schemas['QueryColumnView']
export type User = Schemas['QueryUser']
export type QueryPage = Schemas['QueryPage']

export const parameterTypes = ['text', 'number', 'truth', 'date', 'timestamp', 'instant'] as const
export type ParameterType = (typeof parameterTypes)[number]

/** A query's document, as the API has it. */
export type QueryDocument = {
  kind: 'query'
  id?: string
  name: string
  title: string
  owner?: string
  visible_to?: string[]
  categories?: string[]
  source: string
  sql: string
  parameters?: Record<string, Parameter>
  columns?: Record<string, ColumnMeaning>
}
export type Parameter = {
  type?: ParameterType
  default?: string
  multiple?: boolean
  optional?: boolean
  choices?: string[] | { from: string; value: string; label?: string }
  help?: string
}
export type ColumnMeaning = {
  label?: string
  unit?: string
  format?: string
  words?: Record<string, string>
  link?: string
}

export type Table = Schemas['SourceTable']
export type Ran = Schemas['QueryRunResult']
export type Means = Schemas['RelativeDateMeaning']
export type Choice = Schemas['ParameterChoice']
export type Effect = Schemas['QueryEffectView']
export type Saved = Schemas['Saved']

const path = (name: string) => `/api/queries/${encodeURIComponent(name)}`

export const queries = queryOptions({ queryKey: ['queries'], queryFn: () => api.get<QuerySummary[]>('/api/queries') })

export const queryPage = (name: string) =>
  queryOptions({ queryKey: ['queries', name], queryFn: () => api.get<QueryPage>(path(name)) })

export const queryDocument = (name: string) =>
  queryOptions({
    queryKey: ['documents', 'query', name, 'json'],
    queryFn: async () => {
      const [document, page] = await Promise.all([
        api.get<QueryDocument>(`/api/definitions/query/${encodeURIComponent(name)}.json`),
        api.get<QueryPage>(path(name)),
      ])
      return { document, revision: page.query.revision }
    },
    // What a person types must not be replaced under their hands.
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })

export const tablesOf = (source: string) =>
  queryOptions({
    queryKey: ['sources', source, 'tables'],
    queryFn: () => api.get<Schemas['SourceCatalogue']>(`/api/sources/${encodeURIComponent(source)}/tables`),
    staleTime: 300_000,
    retry: false,
  })

export const choicesOf = (query: string, parameter: string) =>
  queryOptions({
    queryKey: ['queries', query, 'choices', parameter],
    queryFn: () => api.get<Schemas['ParameterChoiceList']>(`${path(query)}/choices/${encodeURIComponent(parameter)}`),
    staleTime: 60_000,
    retry: false,
  })

export type Where = { zone: string; calendar: string | null }

export const meaningOf = (texts: string[], where: Where) =>
  queryOptions({
    queryKey: ['relative-dates', texts, where],
    queryFn: () => api.post<Means[]>('/api/relative-dates', { texts, ...where } satisfies Schemas['RelativeDatesBody']),
    staleTime: 30_000,
    placeholderData: (before: Means[] | undefined) => before,
  })

/** In which zone the source's own tools show times. */
export const sourceZone = (source: string) =>
  queryOptions({
    queryKey: ['sources', source, 'zone'],
    queryFn: () => api.get<Schemas['SourceZoneView']>(`/api/sources/${encodeURIComponent(source)}/zone`),
    staleTime: 600_000,
    retry: false,
  })

export const runQuery = (document: QueryDocument, values: Record<string, string>, where: Where, signal?: AbortSignal) =>
  api.post<Ran>(
    '/api/query-runs',
    { document: JSON.stringify(document, null, 1), values, ...where } satisfies Schemas['QueryRunBody'],
    undefined,
    signal,
  )

export const effectOf = (document: QueryDocument) => api.document<Effect>('POST', '/api/query-effect', document)

export const saveQuery = (document: QueryDocument, reason: string, revision: number) =>
  api.document<Saved>(
    'PUT',
    `/api/definitions?${new URLSearchParams({ reason, ...(revision > 0 ? { revision: String(revision) } : {}) })}`,
    document,
  )
