import type { CheckState } from '../api/types'
import { stateWords } from './words'

const looks: Record<CheckState, { sign: string; look: string }> = {
  RUNNING: { sign: '…', look: '' },
  QUIET: { sign: '–', look: '' },
  FIRED: { sign: '!', look: 'warning' },
  INCOMPLETE: { sign: '?', look: 'warning' },
  FAILED: { sign: '✕', look: 'bad' },
  PARTLY_FAILED: { sign: '✕', look: 'bad' },
  AWAITING_APPROVAL: { sign: '!', look: 'warning' },
  STOPPED: { sign: '–', look: '' },
  RESTARTED: { sign: '–', look: '' },
  SKIPPED: { sign: '–', look: '' },
}

export function CheckTag({ state }: { state: CheckState }) {
  const { sign, look } = looks[state]
  return (
    <span className={`tag ${look}`}>
      <span aria-hidden="true">{sign}</span>
      {stateWords(state)}
    </span>
  )
}
