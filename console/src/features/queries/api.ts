import { queryOptions } from '@tanstack/react-query'
import { api, type ApiProblem } from '../../api/client'
import type { Instant } from '../../api/types'

export type QuerySummary = {
  name: string
  title: string
  source: string
  categories: string[]
  revision: number
  savedAt: Instant
  savedBy: string | null
  columns: string[]
  rules: number
}
export type ParameterSeen = {
  name: string
  type: ParameterType
  preset: string | null
  multiple: boolean
  choices: string[] | null
  choicesFrom: string | null
  help: string | null
}
export type ColumnSeen = {
  name: string
  type: string
  label: string
  unit: string | null
  format: string | null
  words: Record<string, string>
}
export type User = { kind: 'rule' | 'query'; name: string; title: string; how: string }
export type QueryPage = {
  query: QuerySummary
  sql: string
  parameters: ParameterSeen[]
  columns: ColumnSeen[]
  usedBy: User[]
}

export const parameterTypes = ['text', 'number', 'truth', 'date', 'timestamp', 'instant'] as const
export type ParameterType = (typeof parameterTypes)[number]

/** A query's document, as the API has it. */
export type QueryDocument = {
  kind: 'query'
  id?: string
  name: string
  title: string
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
export type ColumnMeaning = { label?: string; unit?: string; format?: string; words?: Record<string, string> }

export type Table = { schema: string; name: string; columns: { name: string; type: string }[] }
export type Ran = {
  rowsRead: number
  tookMillis: number
  zone: string
  values: Record<string, string>
  columns: { name: string; type: string; label: string }[]
  rows: (string | null)[][]
  warnings: ApiProblem[]
}
export type Means = { text: string; means: string | null; refused: string | null }
export type Choice = { value: string; label: string }
export type Effect = {
  effect: 'NO_EFFECT' | 'RE_BASE' | 'RE_JUDGE' | 'NEW_AUDIENCES' | 'NEW_IDENTITY'
  rules: {
    rule: string
    title: string
    copy: string | null
    refused: string | null
    compared: {
      both: number
      otherSeverity: number
      onlyDraftCount: number
      onlyDraft: string[]
      onlyActiveCount: number
      onlyActive: string[]
    } | null
  }[]
}
export type Saved = { name: string; revision: number; changed: boolean; warnings: ApiProblem[] }

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
    queryFn: () => api.get<{ tables: Table[]; more: boolean }>(`/api/sources/${encodeURIComponent(source)}/tables`),
    staleTime: 300_000,
    retry: false,
  })

export const choicesOf = (query: string, parameter: string) =>
  queryOptions({
    queryKey: ['queries', query, 'choices', parameter],
    queryFn: () =>
      api.get<{ choices: Choice[]; more: boolean }>(`${path(query)}/choices/${encodeURIComponent(parameter)}`),
    staleTime: 60_000,
    retry: false,
  })

export type Where = { zone: string; calendar: string | null }

export const meaningOf = (texts: string[], where: Where) =>
  queryOptions({
    queryKey: ['relative-dates', texts, where],
    queryFn: () => api.post<Means[]>('/api/relative-dates', { texts, ...where }),
    staleTime: 30_000,
    placeholderData: (before: Means[] | undefined) => before,
  })

/** In which zone the source's own tools show times. */
export const sourceZone = (source: string) =>
  queryOptions({
    queryKey: ['sources', source, 'zone'],
    queryFn: () => api.get<{ zone: string }>(`/api/sources/${encodeURIComponent(source)}/zone`),
    staleTime: 600_000,
    retry: false,
  })

export const runQuery = (document: QueryDocument, values: Record<string, string>, where: Where, signal?: AbortSignal) =>
  api.post<Ran>('/api/query-runs', { document: JSON.stringify(document, null, 1), values, ...where }, undefined, signal)

export const effectOf = (document: QueryDocument) => api.document<Effect>('POST', '/api/query-effect', document)

export const saveQuery = (document: QueryDocument, remark: string, revision: number) =>
  api.document<Saved>(
    'PUT',
    `/api/definitions?${new URLSearchParams({ remark, ...(revision > 0 ? { seen: String(revision) } : {}) })}`,
    document,
  )
