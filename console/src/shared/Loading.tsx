import { Alert, Spinner } from 'react-bootstrap'
import type { ReactNode } from 'react'
import type { UseQueryResult } from '@tanstack/react-query'
import { t } from '../messages'

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
          <span className="visually-hidden">{t('shared.loading', { what })}</span>
        </Spinner>
      )
    case 'error':
      return (
        <Alert variant="danger" className="mt-3">
          {t('shared.could_not_be_loaded', { what, message: query.error.message })}
        </Alert>
      )
    case 'success':
      return <>{children(query.data)}</>
  }
}
