import { Link } from 'react-router'
import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { badAddresses, rightAgain } from './api'

/** Addresses from which mail comes back, to which nothing goes; nothing where there is none. */
export function BadAddresses() {
  const bad = useQuery(badAddresses)
  const client = useQueryClient()
  const right = useMutation({ mutationFn: rightAgain, onSuccess: () => client.invalidateQueries({ queryKey: ['bad-addresses'] }) })
  if (!bad.data?.length) return null
  return (
    <section className="sheet">
      <h2>Mail comes back from</h2>
      {bad.data.map(({ address, words, message, since }) => (
        <div key={address} className="need">
          <div className="flex-grow-1"><b>{address}</b> <span className="quiet">since {timeWords(since)}, <Link to={`/outbox/${message}`}>this mail</Link>: “{words}”</span></div>
          <Button variant="plain" size="sm" className="align-self-start" disabled={right.isPending} onClick={() => window.confirm(`Is ${address} right? Mail goes there again.`) && right.mutate(address)}>It is right again<span className="visually-hidden">: {address}</span></Button>
        </div>
      ))}
      <p className="quiet small mb-0">Nothing goes there, of any rule. What nobody else was told waits until then.</p>
      <div role="status">{right.isError && <p className="told bad mb-0">{right.error.message}</p>}</div>
    </section>
  )
}
