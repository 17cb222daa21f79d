import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { timeWords } from '../../shared/words'
import { actOnRoundUp, roundUpNow, roundUps, type RoundUp } from './api'

/** One message with the updates of several rules, at its own times. */
export function RoundUpsPanel() {
  const all = useQuery(roundUps)
  return (
    <section className="sheet">
      <h2>Round-ups</h2>
      <Loaded query={all} what="The round-ups">
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              No round-ups yet. A definition of kind <code>round-up</code> creates one: one message about several rules
              at its own times.
            </p>
          ) : (
            <>
              {list.map((roundUp) => (
                <One key={roundUp.name} roundUp={roundUp} />
              ))}
            </>
          )
        }
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
      <strong>{title}</strong>{' '}
      <Link to={`/documents/round-up/${name}`}>
        <code>{name}</code>
      </Link>
      <p className="small mb-1">
        {rules.map((rule, index) => (
          <span key={rule}>
            {index > 0 && ', '}
            <Link to={`/rules/${rule}`}>{rule}</Link>
          </span>
        ))}{' '}
        to {to.join(', ')}; {when}
        {atOnce && `; ${atOnce} sent immediately`}.
      </p>
      <p className="small quiet mb-1">
        {paused ? 'Paused.' : nextSlot ? `Next: ${timeWords(nextSlot)}.` : 'The schedule has ended.'}{' '}
        {lastSlot && `Last: ${timeWords(lastSlot)}.`}
      </p>
      <Button variant="plain" size="sm" aria-expanded={shown} onClick={() => setShown(!shown)}>
        Preview
      </Button>{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={act.isPending}
        onClick={() => act.mutate(paused ? 'resume' : 'pause')}
      >
        {paused ? 'Resume' : 'Pause'}
      </Button>{' '}
      <Button variant="plain" size="sm" disabled={act.isPending} onClick={() => act.mutate('send')}>
        Send now
      </Button>
      <div role="status" className="small">
        {act.isSuccess &&
          act.variables === 'send' &&
          (act.data.message ? (
            <>
              Sent: <Link to={`/outbox/${act.data.message}`}>in the outbox</Link>.
            </>
          ) : (
            'Nothing to report, so nothing was sent.'
          ))}
        {act.isError && <span className="callout bad">{act.error.message}</span>}
      </div>
      {shown && (
        <Loaded query={now} what="Preview">
          {({ subject }) =>
            subject === null ? (
              <p className="small mt-2 mb-0">Nothing to report now.</p>
            ) : (
              <>
                <p className="small mt-2 mb-1">{subject}</p>
                <iframe
                  className="mail-view"
                  title={`Preview of ${title}`}
                  sandbox=""
                  src={`/api/round-ups/${encodeURIComponent(name)}/preview.html`}
                />
              </>
            )
          }
        </Loaded>
      )}
    </div>
  )
}
