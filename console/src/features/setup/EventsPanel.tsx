import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { events, report } from './api'
import { rich, t } from '../../messages'

/** The outside events that rules listen to; a person can report one in place of the program that usually does. */
export function EventsPanel() {
  const all = useQuery(events)
  return (
    <section className="sheet">
      <h2>{t('setup.external_events')}</h2>
      <Loaded query={all} what={t('loading.the_events')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {rich('setup.no_rule_uses_external_events', { code: (inner) => <code>{inner}</code> })}
            </p>
          ) : (
            <ul className="list-unstyled mb-0">
              {list.map((event) => (
                <One key={event} event={event} />
              ))}
            </ul>
          )
        }
      </Loaded>
    </section>
  )
}

function One({ event }: { event: string }) {
  const [requestKey, setRequestKey] = useState(() => crypto.randomUUID())
  const tell = useMutation({
    mutationFn: () => report(event, requestKey),
    onSuccess: () => setRequestKey(crypto.randomUUID()),
  })
  return (
    <li className="mt-2">
      <code>{event}</code>{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={tell.isPending}
        onClick={() => tell.mutate()}
        aria-label={t('setup.trigger_event', { event })}
      >
        {t('setup.trigger')}
      </Button>
      <div role="status" className="small">
        {tell.data &&
          (tell.data.rules.length === 0
            ? t('setup.no_active_rule_uses_this')
            : t('setup.started_a_check_of', { rules: tell.data.rules.join(', ') }))}
        {tell.isError && <span className="callout bad">{tell.error.message}</span>}
      </div>
    </li>
  )
}
