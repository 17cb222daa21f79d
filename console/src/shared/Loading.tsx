import { Alert, Spinner } from 'react-bootstrap'
import type { ReactNode } from 'react'
import type { UseQueryResult } from '@tanstack/react-query'

/** Shows what a query brought, or that it is on its way, or why it did not come. */
export function Loaded<T>({
  query,
  what,
  children,
}: {
  query: UseQueryResult<T>
  what: string
  children: (data: T) => ReactNode
}) {
  switch (query.status) {
    case 'pending':
      return (
        <Spinner role="status" size="sm" className="m-3">
          <span className="visually-hidden">Loading {what}</span>
        </Spinner>
      )
    case 'error':
      return (
        <Alert variant="danger" className="mt-3">
          {what} could not be loaded. {query.error.message}
        </Alert>
      )
    case 'success':
      return <>{children(query.data)}</>
  }
}
