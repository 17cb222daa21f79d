import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { blockedAddresses, unblock } from './api'
import { rich, t } from '../../messages'

/** Addresses from which mail comes back, to which nothing goes; nothing where there is none. */
export function BlockedAddresses() {
  const bad = useQuery(blockedAddresses)
  const client = useQueryClient()
  const right = useMutation({
    mutationFn: unblock,
    onSuccess: () => client.invalidateQueries({ queryKey: ['blocked-addresses'] }),
  })
  if (!bad.data?.length) return null
  return (
    <section className="sheet">
      <h2>{t('outbox.blocked_address')}</h2>
      {bad.data.map(({ address, reason, message, since }) => (
        <div key={address} className="need">
          <div className="flex-grow-1">
            <b>{address}</b>{' '}
            <span className="quiet">
              {rich('outbox.since_this_message', {
                since: timeWords(since),
                link: (inner) => <Link to={`/outbox/${message}`}>{inner}</Link>,
                reason,
              })}
            </span>
          </div>
          <Button
            variant="plain"
            size="sm"
            className="align-self-start"
            disabled={right.isPending}
            onClick={() =>
              window.confirm(t('outbox.unblock_messages_are_sent_to', { address })) && right.mutate(address)
            }
          >
            {rich('outbox.unblock_address', {
              span: (inner) => <span className="visually-hidden">{inner}</span>,
              address,
            })}
          </Button>
        </div>
      ))}
      <p className="quiet small mb-0">{t('outbox.no_rule_sends_to_this')}</p>
      <div role="status">{right.isError && <p className="callout bad mb-0">{right.error.message}</p>}</div>
    </section>
  )
}
