import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type {
  Check,
  CheckCopy,
  FindingList,
  FindingState,
  HandlingKind,
  RulePage,
  RuleSummary,
  Explanation,
} from '../../api/types'

const path = (name: string) => `/api/rules/${encodeURIComponent(name)}`

export const rules = queryOptions({
  queryKey: ['rules'],
  queryFn: () => api.get<RuleSummary[]>('/api/rules'),
  refetchInterval: 15_000,
})

export const rule = (name: string) =>
  queryOptions({ queryKey: ['rules', name], queryFn: () => api.get<RulePage>(path(name)), refetchInterval: 15_000 })

export const findingsOf = (name: string, state: FindingState | null) =>
  queryOptions({
    queryKey: ['rules', name, 'findings', state],
    queryFn: () => api.get<FindingList>(`${path(name)}/findings${state ? `?state=${state}` : ''}`),
  })

export const checksOf = (name: string) =>
  queryOptions({
    queryKey: ['rules', name, 'checks'],
    queryFn: () => api.get<Schemas['CheckList']>(`${path(name)}/checks`),
    refetchInterval: ({ state }) => (state.data?.checks.some((check) => check.state === 'RUNNING') ? 1_500 : 15_000),
  })

export const copiesOf = (check: string) =>
  queryOptions({
    queryKey: ['checks', check, 'copies'],
    queryFn: () => api.get<CheckCopy[]>(`/api/checks/${check}/copies`),
  })

/** Stops a running check; approves or discards one that awaits approval. */
export const moveCheck = (id: string, move: 'stop' | 'approve' | 'discard') =>
  api.post<Check>(`/api/checks/${id}/${move}`)

export type Point = Schemas['MeasurementPoint']
/** @property earlier measured before an edit, so that the rule does not look back at it */
export type Series = Schemas['MeasurementSeries']

export const measurementsOf = (name: string) =>
  queryOptions({ queryKey: ['rules', name, 'history'], queryFn: () => api.get<Series[]>(`${path(name)}/measurements`) })

export const sendOpen = (name: string, to: string) =>
  api.post<Schemas['QueuedMessages']>(`${path(name)}/send-open`, { to } satisfies Schemas['SendOpenBody'])

export const keepMeasurements = (name: string) =>
  api.post<Schemas['KeptMeasurements']>(`${path(name)}/measurements/keep`)

/** A key that stays the same while one press is being answered, so that a repeat asks for the same check. */
export const checkNow = (name: string, requestKey: string, again = false) =>
  api.post<Check>(`${path(name)}/checks${again ? '?again=true' : ''}`, undefined, { 'Idempotency-Key': requestKey })

/** What the next check of an activated rule reports of existing findings. */
export type ReportOnActivation = 'NEW' | 'OPEN' | 'NOTHING'

export const activate = (name: string, tell: ReportOnActivation) =>
  api.post<RulePage>(`${path(name)}/activate?report=${tell}`)

/** @param finding its number, or the digest of its key, as links in mail have it */
export const explanationOf = (name: string, finding: string, copy: string | null = null) => {
  const asked = new URLSearchParams({ finding, ...(copy === null ? {} : { copy }) })
  return queryOptions({
    queryKey: ['rules', name, 'explanation', asked.toString()],
    queryFn: () => api.get<Explanation>(`${path(name)}/explanation?${asked}`),
  })
}

export type MarkAsk = { finding: number; kind: HandlingKind; note: string; until: string | null; withdraw: boolean }

export const addNote = (name: string, finding: number, note: string) =>
  api.post<Schemas['HandlingResult']>(`/api/rules/${encodeURIComponent(name)}/handling/notes`, {
    finding,
    note,
  } satisfies Schemas['NoteBody'])

export const mark = (name: string, ask: MarkAsk) =>
  api.post(`${path(name)}/handling`, ask satisfies Schemas['HandlingBody'])

export const pause = (name: string) => api.post<RulePage>(`${path(name)}/pause`)

export type BulkAction = Schemas['BulkActionBody']
export type BulkActionResult = Schemas['BulkActionResult']

/** @param really false for the list of what would be done */
export const bulkAction = (ask: BulkAction, really: boolean) =>
  api.post<BulkActionResult[]>(`/api/bulk-actions?apply=${really}`, ask)

/** A copy of the rule: a draft without memory and recipients. */
export const copyRule = (name: string, copy: { name: string; title: string }) =>
  api.post<{ name: string }>(`${path(name)}/copies`, copy satisfies Schemas['CopyRuleBody'])

export type SavedFilter = Schemas['SavedFilter']
export const filters = queryOptions({ queryKey: ['filters'], queryFn: () => api.get<SavedFilter[]>('/api/filters') })
/** @param team that shares the filter; null for one's own */
export const keepFilter = (name: string, filter: string, team: string | null) =>
  api.put<SavedFilter[]>(`/api/filters/${encodeURIComponent(name)}`, {
    filter,
    team,
  } satisfies Schemas['SavedFilterBody'])
export const removeFilter = ({ name, team }: SavedFilter) =>
  api.delete<SavedFilter[]>(
    `/api/filters/${encodeURIComponent(name)}${team === null ? '' : `?${new URLSearchParams({ team })}`}`,
  )

export const previewToMe = (name: string) => api.post<Schemas['QueuedMessages']>(`${path(name)}/preview-to-me`)
