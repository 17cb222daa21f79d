import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { blockedAddresses, unblock } from './api'

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
      <h2>Blocked address:</h2>
      {bad.data.map(({ address, reason, message, since }) => (
        <div key={address} className="need">
          <div className="flex-grow-1">
            <b>{address}</b>{' '}
            <span className="quiet">
              since {timeWords(since)}, <Link to={`/outbox/${message}`}>this message</Link>: “{reason}”
            </span>
          </div>
          <Button
            variant="plain"
            size="sm"
            className="align-self-start"
            disabled={right.isPending}
            onClick={() =>
              window.confirm(`Unblock ${address}? Messages are sent to it again.`) && right.mutate(address)
            }
          >
            Unblock address<span className="visually-hidden">: {address}</span>
          </Button>
        </div>
      ))}
      <p className="quiet small mb-0">
        No rule sends to this address. Findings that reached nobody else are reported after you unblock it.
      </p>
      <div role="status">{right.isError && <p className="callout bad mb-0">{right.error.message}</p>}</div>
    </section>
  )
}
