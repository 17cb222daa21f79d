import { createContext, useContext } from 'react'
import { useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../api/types'
import { api } from '../../api/client'
import { columnNamed } from './builder'

export type Offers = Schemas['ColumnValueList']

/** With what a query is run for the values of its columns. Without a query nothing is offered. */
export type OfferInput = { query: string; values: Record<string, string>; zone: string; calendar: string | null }

export const OfferContext = createContext<OfferInput | null>(null)

/**
 * The values that a column has now; asked for only once a person is about to choose one.
 *
 * @param written the column as conditions write it; of what is calculated nothing is offered
 */
export function useOffers(written: string | null, asked: boolean) {
  const input = useContext(OfferContext)
  const column = written === null ? null : columnNamed(written)
  return useQuery({
    queryKey: ['column-values', input, column],
    queryFn: () =>
      api.post<Offers>(`/api/queries/${encodeURIComponent(input?.query ?? '')}/column-values`, {
        column: column ?? '',
        values: input?.values ?? {},
        zone: input?.zone ?? null,
        calendar: input?.calendar ?? null,
      } satisfies Schemas['ColumnValuesBody']),
    enabled: asked && input !== null && input.query !== '' && column !== null,
    staleTime: 120_000,
    retry: false,
  })
}
