import type { LatestCheck } from '../api/types'
import { t } from '../messages'

const gap = 11
const line = 21

function describe(checks: LatestCheck[]): string {
  const fired = checks.filter((check) => check.state === 'FIRED').length
  const failed = checks.filter((check) => check.state === 'FAILED').length
  const notJudged = checks.filter((check) => check.state === 'INCOMPLETE').length
  const unclear = notJudged > 0 ? t('shared.incomplete', { notJudged }) : ''
  return t('shared.last_checks_fired_failed_others', {
    checks: checks.length,
    fired,
    failed,
    unclear,
    others: checks.length - fired - failed - notJudged,
  })
}

/**
 * The strip of dots: one for each check, oldest first. On the line it was quiet; lifted, it had something to report; a cross failed;
 * a question mark could not evaluate everything; hollow is running.
 */
export function CheckStrip({ newestFirst }: { newestFirst: LatestCheck[] }) {
  if (newestFirst.length === 0) return <span className="quiet small">{t('shared.not_checked_yet')}</span>
  const checks = newestFirst.toReversed()
  const width = checks.length * gap + 6
  return (
    <svg
      className="strip"
      width={width}
      height={28}
      viewBox={`0 0 ${width} 28`}
      role="img"
      aria-label={describe(checks)}
    >
      <line x1="0" x2={width} y1={line} y2={line} stroke="var(--bs-border-color)" />
      {checks.map((check, index) => (
        <Dot key={check.id} check={check} x={8 + index * gap} />
      ))}
    </svg>
  )
}

function Dot({ check, x }: { check: LatestCheck; x: number }) {
  switch (check.state) {
    case 'FIRED':
      return (
        <g>
          <line
            x1={x}
            x2={x}
            y1={line}
            y2={11}
            stroke={`var(${check.worst === 'CRITICAL' ? '--brick' : '--lantern'})`}
          />
          <Lifted x={x} y={8} worst={check.worst} />
        </g>
      )
    case 'FAILED':
    case 'PARTLY_FAILED':
      return <path d={`M${x - 3.5} ${line - 3.5}l7 7m0 -7l-7 7`} stroke="var(--brick)" strokeWidth={2} />
    case 'INCOMPLETE':
      return (
        <text x={x} y={line - 4} textAnchor="middle" fontSize={11} fontWeight={700} fill="var(--lantern-ink)">
          ?
        </text>
      )
    case 'RUNNING':
      return <circle cx={x} cy={line} r={3} fill="var(--sheet)" stroke="var(--bs-secondary-color)" strokeWidth={1.5} />
    default:
      return <circle cx={x} cy={line} r={2.4} fill="var(--bs-secondary-color)" />
  }
}

/** The worst that a check reported: ▲ critical, ◆ warning, ● notice. */
export function Lifted({ x, y, worst }: { x: number; y: number; worst: LatestCheck['worst'] }) {
  switch (worst) {
    case 'CRITICAL':
      return <path d={`M${x} ${y - 5}l5 9h-10z`} fill="var(--brick)" />
    case 'NOTICE':
      return <circle cx={x} cy={y} r={3.6} fill="var(--lantern)" />
    default:
      return <path d={`M${x} ${y - 4.6}l4.6 4.6l-4.6 4.6l-4.6 -4.6z`} fill="var(--lantern)" />
  }
}
