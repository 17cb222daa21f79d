import { useState, type SyntheticEvent } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { endHold, heldWords, holdMail, holds } from './api'
import { t } from '../../messages'

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
          {t('outbox.held_by_since_message_queued', {
            each: heldWords(each),
            by: each.by ?? t('outbox.the_service'),
            at: timeWords(each.at),
            reason: each.reason,
            messages: each.messages,
          })}{' '}
          <Button
            variant="plain"
            size="sm"
            disabled={end.isPending}
            onClick={() => end.mutate({ id: each.id, throwAway: false })}
          >
            {t('outbox.release')}
          </Button>{' '}
          <Button
            variant="plain"
            size="sm"
            disabled={end.isPending}
            onClick={() =>
              window.confirm(t('outbox.discard_message_they_cannot_be', { messages: each.messages })) &&
              end.mutate({ id: each.id, throwAway: true })
            }
          >
            {t('shared.discard')}
          </Button>
        </div>
      ))}
      {asking ? (
        <Form className="d-flex gap-2 mt-2 align-items-end flex-wrap" onSubmit={submit}>
          <Form.Group controlId="why-held">
            <Form.Label className="mb-0">
              {t('outbox.reason_for_holding', { what: rule ? t('outbox.mail_of', { rule }) : t('outbox.all_mail') })}
            </Form.Label>
            <Form.Control value={why} onChange={(event) => setWhy(event.target.value)} required autoFocus />
          </Form.Group>
          <Button type="submit" disabled={hold.isPending}>
            {t('outbox.hold')}
          </Button>
          <Button variant="plain" onClick={() => setAsking(false)}>
            {t('shared.cancel')}
          </Button>
        </Form>
      ) : (
        <Button variant="plain" size="sm" className="mt-2" onClick={() => setAsking(true)}>
          {t('outbox.hold_what', { what: rule ? t('outbox.mail_of', { rule }) : t('outbox.all_mail') })}
        </Button>
      )}
      {(hold.error ?? end.error) && <p className="callout bad mt-2 mb-0">{(hold.error ?? end.error)?.message}</p>}
    </div>
  )
}
