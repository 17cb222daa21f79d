import { Link, useLocation } from 'react-router'
import { useTitle } from '../../shared/title'

export function NotFoundPage() {
  const { pathname } = useLocation()
  useTitle('Page not found')
  return (
    <>
      <h1>Page not found</h1>
      <p className="sheet">
        No page at <code className="text-break">{pathname}</code>. Check the address, or go to{' '}
        <Link to="/today">Today</Link> or <Link to="/rules">Rules</Link>.
      </p>
    </>
  )
}
