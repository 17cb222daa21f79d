import type { Schemas } from '../api/types'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { api } from '../api/client'
import type { HandlingKind } from '../api/types'
import { t } from '../messages'

const verbs: { kind: Act; verb: string; help: string }[] = [
  { kind: 'TAKE', verb: t('shared.take'), help: t('shared.you_are_dealing_with_them') },
  { kind: 'SNOOZE', verb: t('shared.snooze'), help: t('shared.no_reports_until_that_date') },
  {
    kind: 'ACCEPT',
    verb: t('shared.accept'),
    help: t('shared.the_findings_are_correct_they'),
  },
  { kind: 'NOTE', verb: t('shared.add_note'), help: t('shared.note_help') },
]

/** Findings that are named, or all that match a filter, with how many that were when a person saw them. */
export type Chosen = { findings: number[] } | { filter: Schemas['FindingFilter']; expected: number }

const countOf = (chosen: Chosen) => ('findings' in chosen ? chosen.findings.length : chosen.expected)

type Act = HandlingKind | 'NOTE'

/** What was not done, in words. */
const leftOver = ({ cleared, unchanged, missing }: Schemas['ManyHandled']) =>
  [
    cleared > 0 && t('shared.many_cleared', { cleared }),
    unchanged > 0 && t('shared.many_unchanged', { unchanged }),
    missing > 0 && t('shared.many_missing', { missing }),
  ].filter((each) => each !== false)

/** Takes, snoozes, accepts or notes several findings in one request; those that cannot be are counted. */
export function HandleMany({ chosen, onDone }: { chosen: Chosen; onDone: () => void }) {
  const [kind, setKind] = useState<Act>('TAKE')
  const [note, setNote] = useState('')
  const [until, setUntil] = useState('')
  const client = useQueryClient()
  const findings = countOf(chosen)
  const act = verbs.find((each) => each.kind === kind)
  const set = useMutation({
    mutationFn: (withdraw: boolean) =>
      api.post<Schemas['ManyHandled']>('/api/findings/handling', {
        findings: null,
        filter: null,
        expected: null,
        ...chosen,
        kind: kind === 'NOTE' ? null : kind,
        note,
        until: until || null,
        withdraw,
      } satisfies Schemas['ManyHandlingBody']),
    onSuccess: async (done) => {
      await client.invalidateQueries()
      if (leftOver(done).length === 0) onDone()
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
        <strong className="me-2">{t('shared.finding_selected', { findings })}</strong>
        <Form.Group controlId="mark-kind-many">
          <Form.Label className="mb-0 small quiet">{t('shared.action_for_it', { findings })}</Form.Label>
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
        {kind !== 'NOTE' && (
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
        )}
        <Form.Group controlId="mark-note-many" className="flex-grow-1">
          <Form.Label className="mb-0 small quiet">{t('shared.note')}</Form.Label>
          <Form.Control
            size="sm"
            required={kind === 'ACCEPT' || kind === 'NOTE'}
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
        </Form.Group>
        <Button size="sm" type="submit" disabled={set.isPending}>
          {act?.verb}
        </Button>
        {kind !== 'NOTE' && (
          <Button size="sm" variant="plain" disabled={set.isPending} onClick={() => set.mutate(true)}>
            {t('shared.undo')}
          </Button>
        )}
      </Form>
      <p className="small quiet mt-1 mb-0">{act?.help}</p>
      <div role="status">
        {set.data && leftOver(set.data).length > 0 && (
          <p className="callout mt-2 mb-0">
            {t('shared.many_handled', { handled: set.data.handled })} {leftOver(set.data).join(' ')}
          </p>
        )}
        {set.error && <p className="callout bad">{set.error.message}</p>}
      </div>
    </section>
  )
}
