import { MutationCache, QueryCache, QueryClient } from '@tanstack/react-query'
import { ApiError } from '../api/client'
import { noteExpiry } from '../features/access/expiry'

/** What the service answered, for all pages. */
export function newClient(): QueryClient {
  const onError = (error: Error) => noteExpiry(client, error)
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({ onError }),
    mutationCache: new MutationCache({ onError }),
    defaultOptions: {
      queries: { retry: (count, error) => count < 2 && error instanceof ApiError && error.status === 0 },
    },
  })
  return client
}
