import { queryOptions, type QueryClient } from '@tanstack/react-query'
import { ApiError } from '../../api/client'
import { session } from './api'

/** Whether the log-in of the person whose page is open has ended. */
export const expiry = queryOptions({
  queryKey: ['session-expired'],
  queryFn: () => false,
  initialData: false,
  staleTime: Infinity,
})

/** An answer that nobody is logged in: an open page stays as it is, under a log-in. */
export function noteExpiry(client: QueryClient, error: Error) {
  if (!(error instanceof ApiError) || error.status !== 401) return
  if (client.getQueryData(session.queryKey)) client.setQueryData(expiry.queryKey, true)
  else client.setQueryData(session.queryKey, null)
}
