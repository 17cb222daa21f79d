import type { Schemas } from '../api/types'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/client'
import type { HandlingKind } from '../api/types'
import { t } from '../messages'

const verbs: { kind: HandlingKind; verb: string; help: string }[] = [
  { kind: 'TAKE', verb: t('shared.take'), help: t('shared.you_are_dealing_with_them') },
  { kind: 'SNOOZE', verb: t('shared.snooze'), help: t('shared.no_reports_until_that_date') },
  {
    kind: 'ACCEPT',
    verb: t('shared.accept'),
    help: t('shared.the_findings_are_correct_they'),
  },
]

/** Takes, snoozes or accepts several findings; one that is refused does not stop the others. */
export function HandleMany({ findings, onDone }: { findings: { rule: string; id: number }[]; onDone: () => void }) {
  const [kind, setKind] = useState<HandlingKind>('TAKE')
  const [note, setNote] = useState('')
  const [until, setUntil] = useState('')
  const [refused, setRefused] = useState<string[]>([])
  const client = useQueryClient()
  const chosen = verbs.find((each) => each.kind === kind)
  const set = useMutation({
    mutationFn: async (withdraw: boolean) => {
      const asks = findings.map(({ rule, id }) =>
        api.post(`/api/rules/${encodeURIComponent(rule)}/handling`, {
          finding: id,
          kind,
          note,
          until: until || null,
          withdraw,
        } satisfies Schemas['HandlingBody']),
      )
      const ends = await Promise.allSettled(asks)
      return ends.flatMap((end) =>
        end.status === 'rejected' ? [end.reason instanceof Error ? end.reason.message : String(end.reason)] : [],
      )
    },
    onSuccess: async (problems) => {
      setRefused(problems)
      await client.invalidateQueries()
      if (problems.length === 0) onDone()
    },
  })
  return (
    <section className="sheet chosen" aria-label={t('shared.selected_findings')}>
      <Form
        className="d-flex flex-wrap gap-2 align-items-end"
        onSubmit={(event) => {
          event.preventDefault()
          set.mutate(false)
        }}
      >
        <strong className="me-2">{t('shared.finding_selected', { findings: findings.length })}</strong>
        <Form.Group controlId="mark-kind-many">
          <Form.Label className="mb-0 small quiet">
            {t('shared.action_for_it', { findings: findings.length })}
          </Form.Label>
          <Form.Select
            size="sm"
            value={kind}
            onChange={(event) => setKind(verbs.find((each) => each.kind === event.target.value)?.kind ?? 'TAKE')}
          >
            {verbs.map((each) => (
              <option key={each.kind} value={each.kind}>
                {each.verb}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="mark-until-many">
          <Form.Label className="mb-0 small quiet">{t('shared.until')}</Form.Label>
          <Form.Control
            size="sm"
            type="date"
            required={kind === 'SNOOZE'}
            value={until}
            onChange={(event) => setUntil(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="mark-note-many" className="flex-grow-1">
          <Form.Label className="mb-0 small quiet">{t('shared.note')}</Form.Label>
          <Form.Control
            size="sm"
            required={kind === 'ACCEPT'}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </Form.Group>
        <Button size="sm" type="submit" disabled={set.isPending}>
          {chosen?.verb}
        </Button>
        <Button size="sm" variant="plain" disabled={set.isPending} onClick={() => set.mutate(true)}>
          {t('shared.undo')}
        </Button>
      </Form>
      <p className="small quiet mt-1 mb-0">{chosen?.help}</p>
      <div role="status">
        {refused.length > 0 && (
          <ul className="callout bad list-unstyled mt-2 mb-0">
            {[...new Set(refused)].map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
        )}
        {set.error && <p className="callout bad">{set.error.message}</p>}
      </div>
    </section>
  )
}
