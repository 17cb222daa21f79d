import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type {
  Check,
  CopyOfCheck,
  FindingList,
  FindingState,
  Instant,
  MarkKind,
  RulePage,
  RuleSummary,
  Story,
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
    queryFn: () => api.get<Check[]>(`${path(name)}/checks`),
    refetchInterval: ({ state }) => (state.data?.some((check) => check.state === 'RUNNING') ? 1_500 : 15_000),
  })

export const copiesOf = (check: string) =>
  queryOptions({
    queryKey: ['checks', check, 'copies'],
    queryFn: () => api.get<CopyOfCheck[]>(`/api/checks/${check}/copies`),
  })

/** Ends a running check; lets one through that was kept back; throws one away that was. */
export const moveCheck = (id: string, move: 'stop' | 'release' | 'discard') =>
  api.post<Check>(`/api/checks/${id}/${move}`)

export type Point = { slot: string; value: number; filledIn: boolean }
/** @property earlier measured before an edit, so that the rule does not look back at it */
export type Series = { group: string; measured: string; total: number; earlier: boolean; points: Point[] }

export const historyOf = (name: string) =>
  queryOptions({ queryKey: ['rules', name, 'history'], queryFn: () => api.get<Series[]>(`${path(name)}/history`) })

export const sendOpen = (name: string, to: string) => api.post<{ messages: number }>(`${path(name)}/send-open`, { to })

export const joinHistory = (name: string) => api.post<{ moved: number }>(`${path(name)}/history/join`)

/** A key that stays the same while one press is being answered, so that a repeat asks for the same check. */
export const checkNow = (name: string, requestKey: string, again = false) =>
  api.post<Check>(`${path(name)}/checks${again ? '?again=true' : ''}`, undefined, { 'Idempotency-Key': requestKey })

/** What the next check of a rule that becomes active tells of what is there already. */
export type Tell = 'NEW' | 'OPEN' | 'NOTHING'

export const activate = (name: string, tell: Tell) => api.post<RulePage>(`${path(name)}/activate?tell=${tell}`)

/** @param finding its number, or the digest of its key, as links in mail have it */
export const storyOf = (name: string, finding: string, copy: string | null = null) => {
  const asked = new URLSearchParams({ finding, ...(copy === null ? {} : { copy }) })
  return queryOptions({
    queryKey: ['rules', name, 'story', asked.toString()],
    queryFn: () => api.get<Story>(`${path(name)}/story?${asked}`),
  })
}

export type Leaver = { address: string; leftAt: Instant; returnedAt: Instant | null; returnedBy: string | null }

export const leaversOf = (name: string) =>
  queryOptions({ queryKey: ['rules', name, 'leavers'], queryFn: () => api.get<Leaver[]>(`${path(name)}/leavers`) })

export const mailAgain = (name: string, address: string) =>
  api.delete<Leaver[]>(`${path(name)}/leavers/${encodeURIComponent(address)}`)

export type MarkAsk = { finding: number; kind: MarkKind; note: string; until: string | null; withdraw: boolean }

export const mark = (name: string, ask: MarkAsk) => api.post(`${path(name)}/marks`, ask)

export const pause = (name: string) => api.post<RulePage>(`${path(name)}/pause`)

export type ActAsk = {
  act: 'PAUSE' | 'ACTIVATE' | 'CHECK' | 'HAND_OVER' | 'RECIPIENTS'
  rules: string[]
  owner?: string
  add?: string[]
  remove?: string[]
  remark?: string
}
export type ActDone = { rule: string; title: string; words: string; refused: string | null }

/** @param really false for the list of what would be done */
export const actOnRules = (ask: ActAsk, really: boolean) => api.post<ActDone[]>(`/api/rule-acts?really=${really}`, ask)

/** A draft that says the same, remembers nothing and tells nobody. */
export const copyRule = (name: string, copy: { name: string; title: string }) =>
  api.post<{ name: string }>(`${path(name)}/copies`, copy)

export type SavedFilter = { name: string; filter: string }
export const filters = queryOptions({ queryKey: ['filters'], queryFn: () => api.get<SavedFilter[]>('/api/filters') })
export const keepFilter = (name: string, filter: string) =>
  api.put<SavedFilter[]>(`/api/filters/${encodeURIComponent(name)}`, { filter })
export const removeFilter = (name: string) => api.delete<SavedFilter[]>(`/api/filters/${encodeURIComponent(name)}`)

export const previewToMe = (name: string) => api.post<{ messages: number }>(`${path(name)}/preview-to-me`)
