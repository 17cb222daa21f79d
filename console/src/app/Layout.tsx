import { Suspense, useState } from 'react'
import { Button } from 'react-bootstrap'
import { Link, Outlet, useLocation } from 'react-router'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { Person } from '../api/types'
import { logOut } from '../features/access/api'
import { useChanges } from '../shared/changes'
import { mayDo } from '../shared/may'
import { Mark } from '../shared/Mark'
import { t } from '../messages'

/** Address and name, and the addresses besides that belong there. */
const pages: [string, string, ...string[]][] = [
  ['/today', t('shared.today')],
  ['/queries', t('shared.queries')],
  ['/rules', t('shared.rules'), '/recipients', '/recipient-lists', '/statements', '/week'],
  ['/findings', t('shared.findings')],
  ['/outbox', t('shared.outbox'), '/extracts'],
  ['/setup', t('shared.setup'), '/thresholds', '/calendars', '/round-ups', '/layouts', '/documents'],
]

/** Where a reader would be refused is no page of theirs. */
const forReaders = ['/today', '/rules', '/findings']
const pagesFor = (person: Person) =>
  mayDo(person, false, 'look') ? pages : pages.filter(([path]) => forReaders.includes(path))

const here = (pathname: string, addresses: string[]) =>
  addresses.some((each) => pathname === each || pathname.startsWith(`${each}/`))

/** The zone of every time that says no other. */
const readersZone = Intl.DateTimeFormat().resolvedOptions().timeZone

/** The frame around every page. */
export function Layout({ person }: { person: Person }) {
  useChanges()
  const { pathname } = useLocation()
  // Another page folds the menu again.
  const [unfoldedAt, setUnfoldedAt] = useState<string | null>(null)
  const unfolded = unfoldedAt === pathname
  const client = useQueryClient()
  const leave = useMutation({
    mutationFn: logOut,
    onSuccess: ({ continueAt }) => (continueAt ? location.assign(continueAt) : client.resetQueries()),
  })
  return (
    <>
      <a className="skip" href="#content">
        {t('app.skip_to_content')}
      </a>
      <header className={unfolded ? 'top unfolded' : 'top'}>
        <Link className="brand" to="/today">
          <Mark />
          {t('shared.odd_sentry')}
        </Link>
        {/* On a narrow screen alone: where one is, and the pages when they are asked for. */}
        <Button
          variant="plain"
          size="sm"
          className="fold"
          aria-expanded={unfolded}
          aria-controls="pages"
          onClick={() => setUnfoldedAt(unfolded ? null : pathname)}
        >
          {t('app.menu')}
        </Button>
        <nav id="pages" aria-label={t('app.pages')}>
          {pagesFor(person).map(([path, name, ...within]) => (
            <Link
              key={path}
              to={path}
              {...(here(pathname, [path, ...within]) ? { className: 'active', 'aria-current': 'page' } : {})}
            >
              {name}
            </Link>
          ))}
        </nav>
        <span className="who">
          <span className="zone">{t('app.times', { readersZone })}</span>
          <Link to="/account">{person.name}</Link>
          <Button variant="plain" size="sm" onClick={() => leave.mutate()}>
            {t('app.log_out')}
          </Button>
        </span>
      </header>
      <main id="content" tabIndex={-1}>
        <Suspense fallback={null}>
          <Outlet />
        </Suspense>
      </main>
    </>
  )
}
