import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { numberWords, plural } from '../../shared/words'
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

/** What stands around the rules: how the service does, calendars and dates, round-ups, events, sources and teams. */
export function SetupPage() {
  useTitle('Setup')
  const now = useQuery(status)
  return (
    <>
      <div className="head">
        <h1>Setup</h1>
        <Link className="btn btn-plain" to="/documents/new">
          New definition
        </Link>
      </div>
      <section className="sheet">
        <h2>The service</h2>
        <Loaded query={now} what="Service status">
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
        <p className="callout mt-2">No problems.</p>
      ) : (
        <ul className="callout bad list-unstyled mt-2">
          {seen.problems.map((problem) => (
            <li key={problem}>{problem}</li>
          ))}
        </ul>
      )}
      <p className="quiet small mb-0">
        {plural(seen.running, 'check')} running, {numberWords(seen.due)} due
        {seen.due > 0 && `, longest wait ${numberWords(seen.highestLatenessSeconds)} s`};{' '}
        {numberWords(seen.awaitingApproval)} awaiting approval; {plural(seen.queuedMessages, 'message')} queued.
      </p>
    </>
  )
}
