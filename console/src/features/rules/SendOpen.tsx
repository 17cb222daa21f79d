import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { sendOpen } from './api'
import { t } from '../../messages'

/** Sends one recipient everything that is open: a person who is added later is not sent what was reported before. */
export function SendOpen({ name, named, plain }: { name: string; named: string[]; plain: boolean }) {
  const [to, setTo] = useState('')
  const client = useQueryClient()
  const send = useMutation({
    mutationFn: () => sendOpen(name, to.trim()),
    onSuccess: () => client.invalidateQueries({ queryKey: ['outbox'] }),
  })
  return (
    <details className="entry mt-2">
      <summary>{plain ? t('rules.send_report_to_one') : t('rules.send_open_findings_to_one')}</summary>
      <Form
        className="d-flex gap-2 align-items-end flex-wrap mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          send.mutate()
        }}
      >
        <Form.Group controlId="send-open-to" className="flex-grow-1">
          <Form.Label className="mb-0 small quiet">{t('rules.recipient_of_the_rule')}</Form.Label>
          <Form.Control
            size="sm"
            type="email"
            required
            value={to}
            list="send-open-named"
            onChange={(event) => setTo(event.target.value)}
          />
          <datalist id="send-open-named">
            {named
              .filter((each) => each.includes('@'))
              .map((each) => (
                <option key={each} value={each} />
              ))}
          </datalist>
        </Form.Group>
        <Button type="submit" size="sm" variant="plain" disabled={send.isPending}>
          {plain ? t('rules.send_report') : t('rules.send_open_findings')}
        </Button>
      </Form>
      <div role="status">
        {send.data && <p className="callout mt-2 mb-0">{t('rules.the_message_is_queued')}</p>}
        <Refusal error={send.error} />
      </div>
    </details>
  )
}
