import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { ApiError } from '../../api/client'
import { plural } from '../../shared/words'
import { importTable, type ThresholdSummary } from './api'

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
      <h2>Import values</h2>
      <Form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          load.mutate()
        }}
      >
        <Form.Group controlId="table" className="mb-2">
          <Form.Label className="mb-0">
            The first line is <code>{[...threshold.key, 'from', 'number'].join(',')}</code>
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
          <Form.Label className="mb-0">Reason</Form.Label>
          <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
        </Form.Group>
        <div className="d-flex gap-3 align-items-center">
          <Button
            type="submit"
            variant="plain"
            disabled={load.isPending || table.trim() === '' || reason.trim() === ''}
          >
            Import
          </Button>
          <a href={`/api/thresholds/${threshold.name}/values.csv`} download={`${threshold.name}.csv`}>
            CSV file of the values
          </a>
        </div>
      </Form>
      {(table.trim() === '' || reason.trim() === '') && (
        <p className="small quiet mt-2 mb-0">
          {table.trim() === '' ? 'Paste a table. A line without key values is the default.' : 'Give a reason.'}
        </p>
      )}
      <div role="status">
        {load.data && (
          <p className="callout">
            {plural(load.data.read, 'value')} read, {load.data.changed} of them changed.
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
