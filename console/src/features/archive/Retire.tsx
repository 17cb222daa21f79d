import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMay } from '../../shared/may'
import { Refusal } from '../../shared/Refusal'
import { retire } from './api'
import { useRetired } from './retired'
import { t } from '../../messages'

type Props = {
  kind: string
  name: string
  /** The team that owns it; none for what all teams share. */
  owner: string | undefined
}

/** Takes a definition out of use. What still uses it is said by the service. */
export function Retire({ kind, name, owner }: Props) {
  const [reason, setReason] = useState('')
  const may = useMay()
  const retired = useRetired(kind, name)
  const client = useQueryClient()
  const act = useMutation({
    mutationFn: () => retire(kind, name, reason),
    onSuccess: async () => {
      setReason('')
      await client.invalidateQueries()
      window.scrollTo({ top: 0 })
    },
  })
  if (retired || !may('write', owner)) return null
  return (
    <section className="sheet">
      <details>
        <summary>{t('archive.retire_heading')}</summary>
        <p className="small quiet mt-2 mb-2">
          {kind === 'rule'
            ? t('archive.retire_rule_help')
            : kind === 'round-up'
              ? t('archive.retire_round_up_help')
              : t('archive.retire_help')}
        </p>
        <Form
          className="d-flex gap-2 flex-wrap align-items-end"
          onSubmit={(event) => {
            event.preventDefault()
            act.mutate()
          }}
        >
          <Form.Group controlId="retire-reason" className="flex-grow-1">
            <Form.Label className="mb-0 small quiet">{t('archive.why_it_is_retired')}</Form.Label>
            <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
          </Form.Group>
          <Button type="submit" size="sm" variant="plain" disabled={act.isPending || reason.trim() === ''}>
            {t('archive.retire')}
          </Button>
        </Form>
        <div role="status">
          <Refusal error={act.error} />
        </div>
      </details>
    </section>
  )
}
