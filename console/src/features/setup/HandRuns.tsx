import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { plural } from '../../shared/words'
import { handRuns, stopRun, type HandRun } from './api'

/** The queries that people run by hand now, each with a way to stop it; nothing while there are none. */
export function HandRuns() {
  const runs = useQuery(handRuns)
  if (!runs.data || runs.data.length === 0) return null
  return (
    <>
      <h3 className="h6 mt-3">Queries run by hand</h3>
      <ul className="list-unstyled mb-0">
        {runs.data.map((run) => (
          <One key={run.id} run={run} />
        ))}
      </ul>
    </>
  )
}

function One({ run }: { run: HandRun }) {
  const client = useQueryClient()
  const stop = useMutation({
    mutationFn: () => stopRun(run.id),
    onSettled: () => client.invalidateQueries({ queryKey: handRuns.queryKey }),
  })
  return (
    <li className="d-flex gap-2 align-items-baseline flex-wrap">
      <span className="text-break">
        {run.query} on {run.source}, by {run.login}, {plural(run.rows, 'row')} so far
      </span>
      <Button
        size="sm"
        variant="plain"
        disabled={stop.isPending}
        onClick={() => stop.mutate()}
        aria-label={`Stop ${run.query} by ${run.login}`}
      >
        Stop
      </Button>
      <Refusal error={stop.error} />
    </li>
  )
}
