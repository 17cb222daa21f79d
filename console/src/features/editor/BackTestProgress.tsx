import { Button, ProgressBar } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import { t } from '../../messages'
import { numberWords } from '../../shared/words'
import { stopWork, type Work } from './api'

/** How far a back-test has come, or why it ended without a result. */
export function BackTestProgress({ now, onStopped }: { now: Work; onStopped: () => void }) {
  const stop = useMutation({ mutationFn: () => stopWork(now.id), onSuccess: onStopped })
  const { state, stepsDone, steps, reason } = now
  if (state === 'FAILED' || state === 'STOPPED') return <p className="callout bad">{reason}</p>
  return (
    <div className="d-flex gap-2 align-items-center mt-2">
      <ProgressBar className="flex-grow-1" now={stepsDone} max={steps || 1} aria-label={t('editor.back_test')} />
      <span className="small quiet">{t('editor.of_slot', { stepsDone: numberWords(stepsDone), steps })}</span>
      <Button size="sm" variant="plain" onClick={() => stop.mutate()}>
        {t('shared.stop')}
      </Button>
    </div>
  )
}
