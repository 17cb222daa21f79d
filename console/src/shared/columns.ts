import { useCallback, useState } from 'react'
import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/client'
import type { Schemas } from '../api/types'

/** A column of a table: the key that it is kept by, and its heading. */
export type Column = { key: string; label: string }

export type TableView = Schemas['TableView']

export const tableViews = queryOptions({
  queryKey: ['table-views'],
  queryFn: () => api.get<TableView[]>('/api/table-views'),
  staleTime: Infinity,
})

const path = (table: string) => `/api/table-views/${encodeURIComponent(table)}`

const save = ({ table, hidden, widths }: TableView) =>
  hidden.length === 0 && Object.keys(widths).length === 0
    ? api.delete(path(table))
    : api.put(path(table), { hidden, widths } satisfies Schemas['TableViewBody'])

export const narrowest = 40
export const widest = 1200

/** Which columns a person sees of a table, and how wide: kept with the person, so that another browser shows the same. */
export function useColumns(table: string, all: Column[]) {
  const client = useQueryClient()
  const views = useQuery(tableViews)
  const saving = useMutation({ mutationFn: save })
  // While an edge is pulled, before anything is kept.
  const [pulled, setPulled] = useState<{ key: string; width: number } | null>(null)
  const view = views.data?.find((each) => each.table === table) ?? { table, hidden: [], widths: {} }
  const change = (next: Partial<TableView>) => {
    const changed = { ...view, ...next }
    client.setQueryData(tableViews.queryKey, (before: TableView[] = []) => [
      ...before.filter((each) => each.table !== table),
      changed,
    ])
    saving.mutate(changed)
  }
  const hides = (key: string) => view.hidden.includes(key)
  // One column always stays, also where others have gone since.
  const shown = all.some(({ key }) => !hides(key)) ? all.filter(({ key }) => !hides(key)) : all
  const widthOf = useCallback(
    (key: string) => (pulled?.key === key ? pulled.width : view.widths[key]),
    [pulled, view.widths],
  )
  return {
    all,
    shown,
    isShown: (key: string) => shown.some((each) => each.key === key),
    widthOf,
    pull: (key: string, width: number) => setPulled({ key, width: within(width) }),
    resize: (key: string, width: number) => {
      setPulled(null)
      change({ widths: { ...view.widths, [key]: within(width) } })
    },
    show: (keys: string[]) => change({ hidden: all.map(({ key }) => key).filter((key) => !keys.includes(key)) }),
    reset: () => change({ hidden: [], widths: {} }),
    isChanged: view.hidden.length > 0 || Object.keys(view.widths).length > 0,
    error: saving.error,
  }
}

export type Columns = ReturnType<typeof useColumns>

const within = (width: number) => Math.min(widest, Math.max(narrowest, Math.round(width)))
