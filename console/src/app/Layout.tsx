import { Suspense } from 'react'
import { Button } from 'react-bootstrap'
import { Link, NavLink, Outlet } from 'react-router'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Person } from '../api/types'
import { logOut } from '../features/access/api'
import { useChanges } from '../shared/changes'
import { Mark } from '../shared/Mark'

const pages = [['/today', 'Today'], ['/queries', 'Queries'], ['/rules', 'Rules'], ['/findings', 'Findings'], ['/outbox', 'Outbox'], ['/setup', 'Setup']] as const

/** The frame around every page. */
export function Layout({ person }: { person: Person }) {
  useChanges()
  const client = useQueryClient()
  const leave = useMutation({ mutationFn: logOut, onSuccess: () => client.resetQueries() })
  return (
    <>
      <a className="skip" href="#content">Skip to the content</a>
      <header className="top">
        <Link className="brand" to="/today"><Mark />Odd Sentry</Link>
        <nav aria-label="Pages">{pages.map(([path, name]) => <NavLink key={path} to={path}>{name}</NavLink>)}</nav>
        <span className="who">{person.name}<Button variant="plain" size="sm" onClick={() => leave.mutate()}>Log out</Button></span>
      </header>
      <main id="content" tabIndex={-1}><Suspense fallback={null}><Outlet /></Suspense></main>
    </>
  )
}
