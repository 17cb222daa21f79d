import type { Severity } from '../api/types'
import { t } from '../messages'
import { stateWords } from './words'

const signs: Record<Severity, string> = { CRITICAL: '▲', WARNING: '◆', NOTICE: '●' }
const worstFirst: Severity[] = ['CRITICAL', 'WARNING', 'NOTICE']

/** Severity by sign and word, so that colour never speaks alone. */
export function SeverityTag({ severity, count }: { severity: Severity; count?: number }) {
  const word = stateWords(severity)
  return (
    <span className={`tag ${severity.toLowerCase()}`}>
      <span aria-hidden="true">{signs[severity]}</span>
      {count === undefined ? word : `${count} ${word}`}
    </span>
  )
}

export function OpenCounts({ open }: { open: Partial<Record<Severity, number>> }) {
  const present = worstFirst.filter((severity) => open[severity])
  if (present.length === 0) return <span className="quiet">{t('shared.none')}</span>
  return (
    <span className="d-inline-flex gap-1 flex-wrap">
      {present.map((severity) => (
        <SeverityTag key={severity} severity={severity} count={open[severity] ?? 0} />
      ))}
    </span>
  )
}
