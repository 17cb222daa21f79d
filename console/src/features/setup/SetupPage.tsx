import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
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
import { ThresholdsPanel } from './ThresholdsPanel'
import { SourcesPanel } from './SourcesPanel'
import { t } from '../../messages'

/** What stands around the rules: how the service does, calendars and dates, round-ups, events, sources and teams. */
export function SetupPage() {
  useTitle(t('shared.setup'))
  const now = useQuery(status)
  return (
    <>
      <div className="head">
        <h1>{t('shared.setup')}</h1>
        <Link className="btn btn-plain" to="/documents/new">
          {t('shared.new_definition')}
        </Link>
      </div>
      <section className="sheet">
        <h2>{t('setup.the_service')}</h2>
        <Loaded query={now} what={t('loading.service_status')}>
          {(seen) => <Doing seen={seen} />}
        </Loaded>
        <HandRuns />
      </section>
      <div className="two">
        <div>
          <SourcesPanel />
          <PeoplePanel />
          <ThresholdsPanel />
          <MailSetup />
        </div>
        <div>
          <CalendarsPanel />
          <DatesPanel />
          <RoundUpsPanel />
          <LanguagesPanel />
          <EventsPanel />
        </div>
      </div>
    </>
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
