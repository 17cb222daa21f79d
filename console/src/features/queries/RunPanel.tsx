import { useEffect, useRef, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { numberWords } from '../../shared/words'
import { runQuery, sourceZone, type QueryDocument, type Ran, type Where } from './api'
import { ParameterFields } from './ParameterFields'
import { RowsTable } from './RowsTable'
import { rich, t } from '../../messages'

const shownAtFirst = 12

/** Runs the query as it stands in the editor: what came, how much, how long. */
export function RunPanel({
  document,
  saved,
  values,
  onValues,
  onRan,
}: {
  document: QueryDocument
  saved: boolean
  /** For parameters; a rule that is made of the query begins with them. */
  values: Record<string, string>
  onValues: (values: Record<string, string>) => void
  onRan: (ran: Ran) => void
}) {
  const usual = useQuery({ ...sourceZone(document.source), enabled: document.source !== '' })
  const [chosen, setChosen] = useState<string | null>(null)
  const zone = chosen ?? usual.data?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone
  const [all, setAll] = useState(false)
  const where: Where = { zone, calendar: null }
  const waiting = useRef<AbortController>(null)
  const run = useMutation({
    mutationFn: () => {
      waiting.current = new AbortController()
      return runQuery(document, values, where, waiting.current.signal)
    },
    onSuccess: onRan,
  })
  // The service cancels a query that nobody waits for.
  useEffect(() => () => waiting.current?.abort(), [])
  return (
    <section className="sheet">
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          run.mutate()
        }}
      >
        <div className="head">
          <h2>{t('queries.run_query')}</h2>
          <div className="d-flex gap-2">
            {run.isPending && (
              <Button variant="plain" onClick={() => waiting.current?.abort()}>
                {t('shared.stop')}
              </Button>
            )}
            <Button type="submit" variant="plain" disabled={run.isPending}>
              {run.isPending ? t('shared.running') : t('shared.run')}
            </Button>
          </div>
        </div>
        <ParameterFields
          id="run"
          parameters={document.parameters ?? {}}
          values={values}
          onChange={onValues}
          where={where}
          query={saved ? document.name : null}
        />
        <Form.Group controlId="run-zone" className="mt-2">
          <Form.Label className="mb-0 small quiet">{t('queries.time_zone_of_the_query')}</Form.Label>
          <Form.Control size="sm" value={zone} list="zones" onChange={(event) => setChosen(event.target.value)} />
          {usual.data && chosen !== null && chosen !== usual.data.zone && (
            <Form.Text>{t('queries.the_sources_own_is', { zone: usual.data.zone })}</Form.Text>
          )}
        </Form.Group>
      </Form>
      <div role="status">
        <Refusal error={run.error} />
        {!run.data && !run.error && <p className="quiet small mt-2 mb-0">{t('queries.read_only_within_the_limits')}</p>}
        {run.data && (
          <>
            <p className="mt-2 mb-0">
              {rich('queries.row_in_ms', {
                strong: (inner) => <strong>{inner}</strong>,
                rowsRead: run.data.rowsRead,
                tookMillis: numberWords(run.data.tookMillis),
                shown: run.data.rowsRead > Math.min(shownAtFirst, run.data.rows.length) && !all && (
                  <>{t('queries.the_first_shown', { shownAtFirst: Math.min(shownAtFirst, run.data.rows.length) })}</>
                ),
              })}
            </p>
            {run.data.warnings.map((warning, index) => (
              <p key={index} className="small callout">
                {t('shared.warning', { message: warning.message })}
              </p>
            ))}
            {run.data.rows.length > 0 && (
              <RowsTable query={document.name} ran={run.data} most={all ? run.data.rows.length : shownAtFirst} />
            )}
            {!all && run.data.rows.length > shownAtFirst && (
              <Button size="sm" variant="plain" className="mt-2" onClick={() => setAll(true)}>
                {t('queries.show', { rows: numberWords(run.data.rows.length) })}
              </Button>
            )}
          </>
        )}
      </div>
    </section>
  )
}
