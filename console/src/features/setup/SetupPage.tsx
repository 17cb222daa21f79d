import { lazy, type ReactNode } from 'react'
import { Link, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { useTitle } from '../../shared/title'
import { numberWords } from '../../shared/words'
import { status, type Status } from './api'
import { CalendarsPanel } from './CalendarsPanel'
import { DatesPanel } from './DatesPanel'
import { HandRuns } from './HandRuns'
import { LanguagesPanel } from './LanguagesPanel'
import { EventsPanel } from './EventsPanel'
import { RoundUpsPanel } from './RoundUpsPanel'
import { MailSetup } from './MailPanel'
import { PeoplePanel } from './PeoplePanel'
import { LayoutsPanel } from './LayoutsPanel'
import { SignOnPanel } from './SignOnPanel'
import { SourcesPanel } from './SourcesPanel'
import { t } from '../../messages'

const parts = [
  ['', t('setup.service_and_sources')],
  ['schedules', t('setup.calendars_and_schedules')],
  ['mail', t('setup.mail_and_round_ups')],
  ['people', t('setup.users_and_teams')],
  ['archive', t('setup.archive')],
] as const
/** For operators and auditors. */
const auditPart = ['audit', t('setup.audit')] as const
const ArchivePanel = lazy(() =>
  import('../archive/ArchivePanel').then(({ ArchivePanel: panel }) => ({ default: panel })),
)
const AuditPanel = lazy(() => import('../audit/AuditPanel').then(({ AuditPanel: panel }) => ({ default: panel })))

/** What stands around the rules, a page for each part: the service and its sources, calendars and events, mail, people. */
export function SetupPage() {
  const { part = '' } = useParams()
  useTitle(t('shared.setup'))
  const { role } = usePerson()
  const oversees = role === 'OPERATOR' || role === 'AUDITOR'
  return (
    <>
      <div className="head">
        <h1>{t('shared.setup')}</h1>
        <Link className="btn btn-plain" to="/documents/new">
          {t('shared.new_definition')}
        </Link>
      </div>
      <nav className="parts" aria-label={t('setup.parts')}>
        {(oversees ? [...parts, auditPart] : parts).map(([code, words]) => (
          <Link key={code} to={code ? `/setup/${code}` : '/setup'} {...(code === part && { 'aria-current': 'page' })}>
            {words}
          </Link>
        ))}
        <Link to="/thresholds">{t('shared.thresholds')}</Link>
      </nav>
      {part === 'schedules' ? (
        <Two left={<CalendarsPanel />} right={[<DatesPanel key="dates" />, <EventsPanel key="events" />]} />
      ) : part === 'mail' ? (
        <Two
          left={<RoundUpsPanel />}
          right={[<LayoutsPanel key="layouts" />, <MailSetup key="servers" />, <LanguagesPanel key="languages" />]}
        />
      ) : part === 'people' ? (
        <>
          <PeoplePanel />
          {oversees && <SignOnPanel />}
        </>
      ) : part === 'archive' ? (
        <ArchivePanel />
      ) : part === 'audit' && oversees ? (
        <AuditPanel />
      ) : (
        <Two left={<ServicePanel />} right={<SourcesPanel />} />
      )}
    </>
  )
}

function Two({ left, right }: { left: ReactNode; right: ReactNode }) {
  return (
    <div className="two">
      <div>{left}</div>
      <div>{right}</div>
    </div>
  )
}

function ServicePanel() {
  const now = useQuery(status)
  return (
    <section className="sheet">
      <h2>{t('setup.the_service')}</h2>
      <Loaded query={now} what={t('loading.service_status')}>
        {(seen) => <Doing seen={seen} />}
      </Loaded>
      <HandRuns />
    </section>
  )
}

function Doing({ seen }: { seen: Status }) {
  return (
    <>
      {seen.problems.length === 0 ? (
        <p className="callout mt-2">{t('setup.no_problems')}</p>
      ) : (
        <ul className="callout bad list-unstyled mt-2">
          {seen.problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
      <p className="quiet small mb-0">
        {t('setup.check_running_due_awaiting_approval', {
          running: seen.running,
          due: numberWords(seen.due),
          wait:
            seen.due > 0 &&
            t('setup.longest_wait_s', { highestLatenessSeconds: numberWords(seen.highestLatenessSeconds) }),
          awaitingApproval: numberWords(seen.awaitingApproval),
          queuedMessages: seen.queuedMessages,
        })}
      </p>
    </>
  )
}
