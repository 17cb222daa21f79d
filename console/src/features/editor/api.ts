import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api, type ApiProblem } from '../../api/client'
import type { Definitions, DraftNote, RulePage, RuleState, Written } from '../../api/types'

/** Severity's word, and its condition; the last has no condition. */
export type SeverityLevel = NonNullable<RuleDocument['severity']>[number]

/** A rule's document as the API has it. What the editor has no field for goes back as it came. */
export type RuleDocument = Omit<Written<Definitions['rule']>, 'title' | 'parameters'> & {
  title: string
  parameters?: Record<string, string>
}

export type MemoryPart = NonNullable<RuleDocument['memory']>

export type Place = {
  per?: string[] | undefined
  measures?: Record<string, string> | undefined
  place?: 'check' | 'measure' | undefined
}
export type ConditionSeen = Omit<Schemas['ConditionView'], 'tree'> & { tree?: Tree | null }

/** A condition's tree, as far as the builder reads it. */
export type Tree = {
  is: string
  text?: string
  name?: string
  operator?: string
  negated?: boolean
  key?: Tree[]
  left?: Tree
  right?: Tree
  operand?: Tree
  operands?: Tree[]
  options?: Tree[]
  low?: Tree
  high?: Tree
  pattern?: Tree
  escape?: string | null
  window?: string
  quoted?: boolean
  arguments?: Tree[]
  kind?: string
  measured?: Tree
  points?: number | null
  target?: Tree
  within?: string | null
}
export type Option = Schemas['CompletionOption']
export type Options = Schemas['CompletionOptions']

export type Offer = Schemas['UnknownRowsSuggestion']
export type ShownRow = Schemas['PreviewRow']
export type Seen = Schemas['PreviewResult']
export type Compared = Schemas['PreviewComparison']
export type DraftSeen = Schemas['DraftPreview']

export type Slot = Schemas['SlotResult']
export type Variant = Schemas['VariantResult']
export type Work = Schemas['LongWorkView']

const query = (name: string) => `/api/queries/${encodeURIComponent(name)}`

export type Editing = { document: RuleDocument; state: RuleState | null; revision: number; draft: DraftNote | null }

const definition = (name: string) => `/api/definitions/rule/${encodeURIComponent(name)}.json`
const draftOf = (name: string) => `/api/rules/${encodeURIComponent(name)}/draft`

/** The draft that lies beside the rule, or the rule itself where there is none. */
export const editing = (name: string) =>
  queryOptions({
    queryKey: ['document', name],
    queryFn: async (): Promise<Editing> => {
      const {
        rule: { state, revision },
        draft,
      } = await api.get<RulePage>(`/api/rules/${encodeURIComponent(name)}`)
      const document = draft
        ? (await api.get<{ document: RuleDocument }>(draftOf(name))).document
        : await api.get<RuleDocument>(definition(name))
      return { document, state, revision, draft }
    },
    staleTime: Infinity,
    gcTime: 0,
  })

/** Saves a draft based on the revision that the editor was opened with, so that applying it does not undo what was saved since. */
export const keepDraft = (document: RuleDocument, { draft, revision }: Editing) =>
  api.document<{ version: number }>(
    'PUT',
    `${draftOf(document.name)}?baseRevision=${revision}${draft ? `&version=${draft.version}` : ''}`,
    document,
  )

export const discardDraft = (name: string) => api.delete(draftOf(name))

/** Applies the document to the rule; through the draft if there is one, so that no other draft is lost. */
export async function applyToRule(document: RuleDocument, found: Editing, reason: string) {
  if (!found.draft) return save(document, reason, found.revision)
  const kept = await keepDraft(document, found)
  return api.post<Kept>(`${draftOf(document.name)}/apply?reason=${encodeURIComponent(reason)}&version=${kept.version}`)
}

type Kept = { name?: string; revision: number; changed: boolean; warnings: ApiProblem[] }

export const conditionSeen = (queryName: string, text: string, place: Place) =>
  queryOptions({
    queryKey: ['condition', queryName, text, place],
    queryFn: () => api.post<ConditionSeen>(`${query(queryName)}/condition`, { text, ...place }),
    placeholderData: (before: ConditionSeen | undefined) => before,
  })

export const complete = (queryName: string, text: string, offset: number, place: Place) =>
  api.post<Options>(`${query(queryName)}/completion`, {
    text,
    offset,
    ...place,
  })

export const previewDraft = (document: RuleDocument) => api.document<DraftSeen>('POST', '/api/preview', document)

const save = (document: RuleDocument, reason: string, revision: number) =>
  api.document<Kept>(
    'PUT',
    `/api/definitions?reason=${encodeURIComponent(reason)}${revision > 0 ? `&revision=${revision}` : ''}`,
    document,
  )

export type MemorySetting = NonNullable<Variant['without']>

export const backTest = (
  days: number,
  onTrial: { thresholds: Record<string, string[]>; conditions: string[]; without?: MemorySetting[] },
  document: RuleDocument,
  copy: string | null,
) =>
  api.post<Work>('/api/back-tests', {
    days,
    ...onTrial,
    copy,
    document: JSON.stringify(document, null, 1),
  })

export const work = (id: string) =>
  queryOptions({
    queryKey: ['long-work', id],
    queryFn: () => api.get<Work>(`/api/long-work/${id}`),
    refetchInterval: ({ state }) => (state.data?.endedAt ? false : 500),
  })

export const stopWork = (id: string) => api.post<Work>(`/api/long-work/${id}/stop`)

export type Review = {
  kind: string | null
  name: string | null
  text: string | null
  before: string | null
  revision: number
  effect: string | null
  added: string[]
  problems: ApiProblem[]
}

/** What the document would be and do if it were saved now. */
export const reviewOf = (document: object) =>
  queryOptions({
    queryKey: ['review', JSON.stringify(document)],
    queryFn: () => api.document<Review>('POST', '/api/review', document),
    staleTime: 30_000,
    retry: false,
    placeholderData: (before: Review | undefined) => before,
  })

export const livePreview = (document: RuleDocument) =>
  queryOptions({
    queryKey: [
      'preview',
      JSON.stringify({
        ...document,
        delivery: { columns: document.delivery?.columns, split_by: document.delivery?.['split_by'] },
      }),
    ],
    queryFn: () => previewDraft(document),
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    refetchOnWindowFocus: false,
    placeholderData: (before: DraftSeen | undefined) => before,
  })

/** A rule that was never saved: a draft first, which nothing checks. */
export const saveNew = (document: RuleDocument, reason: string) => save(document, reason, 0)

export type Audience = Schemas['AudienceView']

/** Who would get what, as the data is now. */
export const audiencesOf = (document: string) =>
  api.text<Schemas['AudienceList']>('/api/audiences', document, 'application/yaml')
