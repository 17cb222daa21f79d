import { Button } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { handRuns, stopRun, type HandRun } from './api'
import { t } from '../../messages'

/** The queries that people run by hand now, each with a way to stop it; nothing while there are none. */
export function HandRuns() {
  const runs = useQuery(handRuns)
  if (!runs.data || runs.data.length === 0) return null
  return (
    <>
      <h3 className="h6 mt-3">{t('setup.queries_run_by_hand')}</h3>
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
        {t('setup.on_by_row_so_far', { query: run.query, source: run.source, login: run.login, rows: run.rows })}
      </span>
      <Button
        size="sm"
        variant="plain"
        disabled={stop.isPending}
        onClick={() => stop.mutate()}
        aria-label={t('setup.stop_by', { query: run.query, login: run.login })}
      >
        {t('shared.stop')}
      </Button>
      <Refusal error={stop.error} />
    </li>
  )
}
