import { useState, type SyntheticEvent } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { plural, timeWords } from '../../shared/words'
import { endHold, heldWords, holdMail, holds } from './api'

/** What outgoing mail is held, and holding more of it: of one rule, or of all. */
export function Holds({ rule }: { rule: string | null }) {
  const standing = useQuery(holds)
  const queries = useQueryClient()
  const [asking, setAsking] = useState(false)
  const [why, setWhy] = useState('')
  const changed = () => queries.invalidateQueries()
  const hold = useMutation({
    mutationFn: () => holdMail(rule, why),
    onSuccess: () => {
      setAsking(false)
      setWhy('')
      return changed()
    },
  })
  const end = useMutation({
    mutationFn: ({ id, throwAway }: { id: number; throwAway: boolean }) => endHold(id, throwAway),
    onSuccess: changed,
  })
  const submit = (event: SyntheticEvent) => {
    event.preventDefault()
    hold.mutate()
  }
  return (
    <div className="mb-3">
      {(standing.data ?? []).map((each) => (
        <div key={each.id} className="callout bad mt-2">
          Held: {heldWords(each)}, by {each.by ?? 'the service'} since {timeWords(each.at)}: {each.reason}.{' '}
          {plural(each.messages, 'message')} queued.{' '}
          <Button
            variant="plain"
            size="sm"
            disabled={end.isPending}
            onClick={() => end.mutate({ id: each.id, throwAway: false })}
          >
            Release
          </Button>{' '}
          <Button
            variant="plain"
            size="sm"
            disabled={end.isPending}
            onClick={() =>
              window.confirm(
                `Discard ${plural(each.messages, 'message')}? They cannot be sent later. Their findings stay reported.`,
              ) && end.mutate({ id: each.id, throwAway: true })
            }
          >
            Discard
          </Button>
        </div>
      ))}
      {asking ? (
        <Form className="d-flex gap-2 mt-2 align-items-end flex-wrap" onSubmit={submit}>
          <Form.Group controlId="why-held">
            <Form.Label className="mb-0">Reason for holding {rule ? `mail of ${rule}` : 'all mail'}</Form.Label>
            <Form.Control value={why} onChange={(event) => setWhy(event.target.value)} required autoFocus />
          </Form.Group>
          <Button type="submit" disabled={hold.isPending}>
            Hold
          </Button>
          <Button variant="plain" onClick={() => setAsking(false)}>
            Cancel
          </Button>
        </Form>
      ) : (
        <Button variant="plain" size="sm" className="mt-2" onClick={() => setAsking(true)}>
          Hold {rule ? `mail of ${rule}` : 'all mail'}
        </Button>
      )}
      {(hold.error ?? end.error) && <p className="callout bad mt-2 mb-0">{(hold.error ?? end.error)?.message}</p>}
    </div>
  )
}
