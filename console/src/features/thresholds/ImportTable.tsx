import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { ApiError } from '../../api/client'
import { importTable, type ThresholdSummary } from './api'
import { rich, t } from '../../messages'

/** Values pasted as a table, from a spreadsheet or a CSV file. */
export function ImportTable({ threshold }: { threshold: ThresholdSummary }) {
  const [table, setTable] = useState('')
  const [reason, setReason] = useState('')
  const client = useQueryClient()
  const load = useMutation({
    mutationFn: () => importTable(threshold.name, table, reason),
    onSuccess: () => client.invalidateQueries({ queryKey: ['thresholds'] }),
  })
  const problems = load.error instanceof ApiError ? load.error.problems : []
  return (
    <section className="sheet">
      <h2>{t('thresholds.import_values')}</h2>
      <Form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          load.mutate()
        }}
      >
        <Form.Group controlId="table" className="mb-2">
          <Form.Label className="mb-0">
            {rich('thresholds.the_first_line_is', {
              code: (inner) => <code>{inner}</code>,
              value: [...threshold.key, 'from', 'number'].join(','),
            })}
          </Form.Label>
          <Form.Control
            as="textarea"
            rows={5}
            className="font-monospace"
            value={table}
            onChange={(event) => setTable(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="table-reason" className="mb-2">
          <Form.Label className="mb-0">{t('shared.reason')}</Form.Label>
          <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
        </Form.Group>
        <div className="d-flex gap-3 align-items-center">
          <Button
            type="submit"
            variant="plain"
            disabled={load.isPending || table.trim() === '' || reason.trim() === ''}
          >
            {t('thresholds.import')}
          </Button>
          <a href={`/api/thresholds/${threshold.name}/values.csv`} download={`${threshold.name}.csv`}>
            {t('thresholds.csv_file_of_the_values')}
          </a>
        </div>
      </Form>
      {(table.trim() === '' || reason.trim() === '') && (
        <p className="small quiet mt-2 mb-0">
          {table.trim() === '' ? t('thresholds.paste_a_table_a_line') : t('thresholds.give_a_reason')}
        </p>
      )}
      <div role="status">
        {load.data && (
          <p className="callout">
            {t('thresholds.value_read_of_them_changed', { read: load.data.read, changed: load.data.changed })}
          </p>
        )}
        {load.isError && (
          <ul className="callout bad list-unstyled">
            {problems.length === 0 && <li>{load.error.message}</li>}
            {problems.map((problem, index) => (
              <li key={index}>
                {problem.field && `${problem.field}: `}
                {problem.message}
              </li>
            ))}
          </ul>
        )}
      </div>
    </section>
  )
}
