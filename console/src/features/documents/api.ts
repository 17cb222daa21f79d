import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schema } from './yaml/schema'

/** A document's text, and the revision that it is of; 0 for one that is not saved yet. */
export type Kept = { text: string; revision: number }
export type Saved = Schemas['Saved']
export type MailSeen = Schemas['PreviewedMessage']
export type MailsSeen = Schemas['MessagePreview']

const path = (kind: string, name: string) => `/api/definitions/${encodeURIComponent(kind)}/${encodeURIComponent(name)}`

export const documentOf = (kind: string, name: string) =>
  queryOptions({
    queryKey: ['documents', kind, name],
    queryFn: async (): Promise<Kept> => {
      const [text, saved] = await Promise.all([
        api.read(path(kind, name)),
        api.get<Schemas['RevisionList']>(`${path(kind, name)}/revisions`),
      ])
      return { text, revision: saved.revisions[0]?.revision ?? 0 }
    },
    // What a person types must not be replaced under their hands.
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })

/** A definition as the service writes it, for a form, and the revision that it is of. */
export const definitionOf = <T>(kind: string, name: string) =>
  queryOptions({
    queryKey: ['documents', kind, name, 'form'],
    queryFn: async () => {
      const [value, saved] = await Promise.all([
        api.get<T>(`${path(kind, name)}.json`),
        api.get<Schemas['RevisionList']>(`${path(kind, name)}/revisions`),
      ])
      return { value, revision: saved.revisions[0]?.revision ?? 0 }
    },
    staleTime: Infinity,
    gcTime: 0,
    refetchOnWindowFocus: false,
  })

export const saveDocument = ({ text, revision, reason }: Kept & { reason: string }) =>
  api.saveText<Saved>(
    `/api/definitions?${new URLSearchParams({ reason, ...(revision > 0 ? { revision: String(revision) } : {}) })}`,
    text,
  )

export const mailsOf = (text: string) => api.text<MailsSeen>('/api/mail-preview', text, 'application/yaml')

/** Sends the person who asks what `mailsOf` shows. */
export const mailToMe = (text: string) =>
  api.text<Schemas['PreviewMessagesSent']>('/api/mail-preview/to-me', text, 'application/yaml')

export type DefinitionSummary = Schemas['DefinitionSummary']

/** What is saved of one kind, such as the layouts that rules share. */
export const definitionsOf = (kind: string) =>
  queryOptions({
    queryKey: ['definitions', kind],
    queryFn: async () => (await api.get<DefinitionSummary[]>('/api/definitions')).filter((each) => each.kind === kind),
  })

/** The JSON Schema of definition files, of the service that is asked. */
export const definitionSchema = queryOptions({
  queryKey: ['schema'],
  queryFn: () => api.get<Schema>('/api/schemas/odd-document.schema.json'),
  staleTime: Infinity,
})

/** The names of what is saved, by kind. */
export const savedNames = queryOptions({
  queryKey: ['definitions', 'names'],
  queryFn: async () => {
    const names: Record<string, string[]> = {}
    for (const { kind, name } of await api.get<DefinitionSummary[]>('/api/definitions')) (names[kind] ??= []).push(name)
    return names
  },
})

/** What a save of this text would be refused for or warned of, each with its place in the text. */
export const problemsOf = (text: string) =>
  queryOptions({
    queryKey: ['review', 'text', text],
    queryFn: async () => (await api.text<Schemas['Review']>('/api/review', text, 'application/yaml')).problems,
    enabled: text.trim() !== '',
    gcTime: 60_000,
  })
