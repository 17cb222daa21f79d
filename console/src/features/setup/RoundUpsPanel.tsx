import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { timeWords } from '../../shared/words'
import { actOnRoundUp, roundUpNow, roundUps, type RoundUp } from './api'

/** One mail with the news of several rules, at times of its own. */
export function RoundUpsPanel() {
  const all = useQuery(roundUps)
  return (
    <section className="sheet">
      <h2>Round-ups</h2>
      <Loaded query={all} what="The round-ups">
        {(list) => list.length === 0
          ? <p className="quiet mt-2 mb-0">No round-up yet. A document of kind <code>round-up</code> makes one: one mail with the news of several rules, at times of its own.</p>
          : <>{list.map((roundUp) => <One key={roundUp.name} roundUp={roundUp} />)}</>}
      </Loaded>
    </section>
  )
}

function One({ roundUp }: { roundUp: RoundUp }) {
  const { name, title, rules, to, atOnce, when, paused, nextSlot, lastSlot } = roundUp
  const queries = useQueryClient()
  const [shown, setShown] = useState(false)
  const now = useQuery({ queryKey: ['round-ups', name, 'now'], queryFn: () => roundUpNow(name), enabled: shown })
  const act = useMutation({
    mutationFn: (what: 'send' | 'pause' | 'resume') => actOnRoundUp(name, what),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['round-ups'] }),
  })
  return (
    <div className="mt-2">
      <strong>{title}</strong> <Link to={`/documents/round-up/${name}`}><code>{name}</code></Link>
      <p className="small mb-1">
        {rules.map((rule, index) => <span key={rule}>{index > 0 && ', '}<Link to={`/rules/${rule}`}>{rule}</Link></span>)} to {to.join(', ')}; {when}{atOnce && `; ${atOnce} at once`}.
      </p>
      <p className="small quiet mb-1">{paused ? 'Paused.' : nextSlot ? `Next: ${timeWords(nextSlot)}.` : 'No time comes any more.'} {lastSlot && `Last: ${timeWords(lastSlot)}.`}</p>
      <Button variant="plain" size="sm" aria-expanded={shown} onClick={() => setShown(!shown)}>What it would say now</Button>{' '}
      <Button variant="plain" size="sm" disabled={act.isPending} onClick={() => act.mutate(paused ? 'resume' : 'pause')}>{paused ? 'Resume' : 'Pause'}</Button>{' '}
      <Button variant="plain" size="sm" disabled={act.isPending} onClick={() => act.mutate('send')}>Send it now</Button>
      <div role="status" className="small">
        {act.isSuccess && act.variables === 'send' && (act.data.message ? <>Sent: <Link to={`/outbox/${act.data.message}`}>in the outbox</Link>.</> : 'It has nothing to say, so nothing is sent.')}
        {act.isError && <span className="told bad">{act.error.message}</span>}
      </div>
      {shown && (
        <Loaded query={now} what="What it would say">
          {({ subject }) => subject === null
            ? <p className="small mt-2 mb-0">It has nothing to say now.</p>
            : <><p className="small mt-2 mb-1">{subject}</p><iframe className="mail-view" title={`What ${title} would say now`} sandbox="" src={`/api/round-ups/${encodeURIComponent(name)}/preview.html`} /></>}
        </Loaded>
      )}
    </div>
  )
}
