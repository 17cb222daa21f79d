import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { leaversOf, mailAgain } from './api'

/** Readers who stopped the rule's mails; nothing where nobody did. */
export function Leavers({ name }: { name: string }) {
  const leavers = useQuery(leaversOf(name))
  const client = useQueryClient()
  const back = useMutation({
    mutationFn: (address: string) => mailAgain(name, address),
    onSuccess: () => client.invalidateQueries({ queryKey: ['rules', name, 'leavers'] }),
  })
  const gone = (leavers.data ?? []).filter(({ returnedAt }) => returnedAt === null)
  if (gone.length === 0) return null
  return (
    <section className="sheet">
      <h2>Unsubscribed</h2>
      {gone.map(({ address, leftAt }) => (
        <p key={address} className="d-flex gap-2 align-items-center flex-wrap mb-1">
          <span>
            {address} <span className="quiet">by a link in a message, {timeWords(leftAt)}</span>
          </span>
          <Button
            variant="plain"
            size="sm"
            disabled={back.isPending}
            onClick={() =>
              window.confirm(`Resubscribe ${address}? Do so only if they asked for it.`) && back.mutate(address)
            }
          >
            Resubscribe<span className="visually-hidden">: {address}</span>
          </Button>
        </p>
      ))}
      <div role="status">{back.isError && <p className="told bad mb-0">{back.error.message}</p>}</div>
    </section>
  )
}
