import type { Severity, SeverityLook } from '../api/types'
import { t } from '../messages'
import { stateWords } from './words'

const signs: Record<Severity, string> = { CRITICAL: '▲', WARNING: '◆', NOTICE: '●' }
const usualColours: Record<Severity, string> = { CRITICAL: 'red', WARNING: 'amber', NOTICE: 'grey' }
const worstFirst: Severity[] = ['CRITICAL', 'WARNING', 'NOTICE']

type Props = { severity: Severity; look?: SeverityLook | null; count?: number }

/** Severity by sign and word, so that colour never speaks alone. A rule may have a look of its own for it. */
export function SeverityTag({ severity, look, count }: Props) {
  const word = look?.word ?? stateWords(severity)
  const colour = look?.colour.toLowerCase() ?? usualColours[severity]
  return (
    <span className={`tag tone-${colour}`}>
      <span aria-hidden="true">{colour === 'green' ? '✓' : signs[severity]}</span>
      {count === undefined ? word : `${count} ${word}`}
    </span>
  )
}

type OpenProps = { open: Partial<Record<Severity, number>>; looks: Partial<Record<Severity, SeverityLook>> }

export function OpenCounts({ open, looks }: OpenProps) {
  const present = worstFirst.filter((severity) => open[severity])
  if (present.length === 0) return <span className="quiet">{t('shared.none')}</span>
  return (
    <span className="d-inline-flex gap-1 flex-wrap">
      {present.map((severity) => (
        <SeverityTag key={severity} severity={severity} look={looks[severity] ?? null} count={open[severity] ?? 0} />
      ))}
    </span>
  )
}
