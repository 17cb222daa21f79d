import { Button } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { numberWords } from '../../shared/words'
import { sources, teams, testSource, type Source } from './api'

/** The sources that queries read, and the teams that hear of trouble. */
export function SourcesPanel() {
  const all = useQuery(sources)
  const owners = useQuery(teams)
  return (
    <section className="sheet">
      <h2>Sources</h2>
      <Loaded query={all} what="The sources">
        {(list) => list.length === 0 ? <p className="quiet mt-2 mb-0">No source yet. An operator adds one with <code>odd save-source</code>.</p> : <>{list.map((source) => <One key={source.name} source={source} />)}</>}
      </Loaded>
      <h2 className="mt-3">Teams</h2>
      <Loaded query={owners} what="The teams">
        {(list) => list.length === 0
          ? <p className="quiet mt-2 mb-0">No team yet, so nobody hears of trouble by mail. An operator adds one with <code>odd save-team</code>.</p>
          : <ul className="list-unstyled mt-2 mb-0">{list.map((team) => <li key={team.name}>{team.name}: <span className="quiet">{team.addresses.join(', ')}</span></li>)}</ul>}
      </Loaded>
    </section>
  )
}

function One({ source }: { source: Source }) {
  const ask = useMutation({ mutationFn: () => testSource(source.name) })
  return (
    <div className="mt-2">
      <strong>{source.name}</strong> <Button variant="plain" size="sm" disabled={ask.isPending} onClick={() => ask.mutate()} aria-label={`Test the connection of ${source.name}`}>Test the connection</Button>
      <p className="small quiet mb-0 text-break">{source.jdbcUrl} as {source.username}; at most {numberWords(source.mostRows)} rows, {numberWords(source.timeLimitSeconds)} s, {numberWords(source.mostConnections)} at once{source.closed && `; closed ${source.closed}`}{source.spreadSeconds > 0 && `; checks begin up to ${numberWords(source.spreadSeconds)} s after their slots`}</p>
      <div role="status" className="small">{ask.data && <span className={ask.data.reached ? 'told' : 'told bad'}>{ask.data.words}</span>}{ask.isError && <span className="told bad">{ask.error.message}</span>}</div>
    </div>
  )
}
