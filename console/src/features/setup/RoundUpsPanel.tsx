import { useState } from 'react'
import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { timeWords } from '../../shared/words'
import { actOnRoundUp, roundUpNow, roundUps, type RoundUp } from './api'
import { RecipientChoices } from '../recipients/RecipientChoices'
import { rich, t } from '../../messages'

/** One message with the updates of several rules, at its own times. */
export function RoundUpsPanel() {
  const all = useQuery(roundUps)
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('setup.round_ups')}</h2>
        <Link className="btn btn-plain btn-sm" to="/round-ups/new">
          {t('roundups.new_round_up')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_round_ups')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('setup.no_round_ups_yet')}</p>
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
      <Link to={`/round-ups/${name}`}>
        <strong>{title}</strong>
      </Link>{' '}
      <code>{name}</code>
      <p className="small mb-1">
        {rules.map((rule, index) => (
          <span key={rule}>
            {index > 0 && ', '}
            <Link to={`/rules/${rule}`}>{rule}</Link>
          </span>
        ))}{' '}
        {t('setup.to', { to: to.join(', '), when, atOnce: atOnce && t('setup.sent_immediately', { atOnce }) })}
      </p>
      <p className="small quiet mb-1">
        {paused
          ? t('setup.paused')
          : nextSlot
            ? t('setup.next_is', { at: timeWords(nextSlot) })
            : t('setup.the_schedule_has_ended')}{' '}
        {lastSlot && t('setup.last_was', { at: timeWords(lastSlot) })}
      </p>
      <Button variant="plain" size="sm" aria-expanded={shown} onClick={() => setShown(!shown)}>
        {t('shared.preview')}
      </Button>{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={act.isPending}
        onClick={() => act.mutate(paused ? 'resume' : 'pause')}
      >
        {paused ? t('setup.resume') : t('shared.pause')}
      </Button>{' '}
      <Button variant="plain" size="sm" disabled={act.isPending} onClick={() => act.mutate('send')}>
        {t('setup.send_now')}
      </Button>
      <div role="status" className="small">
        {act.isSuccess &&
          act.variables === 'send' &&
          (act.data.message ? (
            <>
              {rich('setup.sent_in_the_outbox', {
                link: (inner) => <Link to={`/outbox/${act.data.message}`}>{inner}</Link>,
              })}
            </>
          ) : (
            t('setup.nothing_to_report_so_nothing')
          ))}
        {act.isError && <span className="callout bad">{act.error.message}</span>}
      </div>
      <RecipientChoices of={{ kind: 'round-ups', name }} />
      {shown && (
        <Loaded query={now} what={t('loading.preview')}>
          {({ subject }) =>
            subject === null ? (
              <p className="small mt-2 mb-0">{t('setup.nothing_to_report_now')}</p>
            ) : (
              <>
                <p className="small mt-2 mb-1">{subject}</p>
                <iframe
                  className="mail-view"
                  title={t('setup.preview_of', { title })}
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
