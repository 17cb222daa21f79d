import { Link } from 'react-router'
import { Lifted } from '../../shared/CheckStrip'
import { stateWords, timeOfDay } from '../../shared/words'
import type { DayCheck, DaySeen, Lane } from './api'
import { t } from '../../messages'

const width = 460
const height = 44
const line = 32
const side = 8

/** A lane for each rule whose checks reported, failed or are late; the quiet ones of a lane join into a line, and a gap is a check that is missing. */
export function Lanes({ day }: { day: DaySeen }) {
  const from = Date.parse(day.from)
  const span = Date.parse(day.until) - from
  const x = (instant: string) => side + ((Date.parse(instant) - from) / span) * (width - 2 * side)
  if (day.lanes.length === 0)
    return (
      <p className="quiet mt-2 mb-0">
        {day.others === 0
          ? t('today.no_active_rules_yet')
          : t('today.nothing_was_reported_failed_or', { others: day.others })}
      </p>
    )
  return (
    <>
      <div className="lanes">
        {day.lanes.map((lane) => (
          <div className="lane" key={lane.rule}>
            <Link to={`/rules/${lane.rule}`}>
              {lane.title}
              {lane.pending > 0 && (
                <span className="quiet small"> {t('today.pending', { pending: lane.pending })}</span>
              )}
            </Link>
            <LaneChart lane={lane} x={x} now={day.now} />
          </div>
        ))}
        <div className="lane" aria-hidden="true">
          <span />
          <svg viewBox={`0 0 ${width} 16`} preserveAspectRatio="none" className="hours">
            {[0, 6, 12, 18, 24].map((hour) => (
              <text
                key={hour}
                x={Math.min(width - 14, Math.max(2, side + (hour / 24) * (width - 2 * side) - 6))}
                y={12}
                fontSize={11}
                fill="var(--bs-secondary-color)"
              >
                {String(hour).padStart(2, '0')}
              </text>
            ))}
          </svg>
        </div>
      </div>
      <p className="quiet small mt-2 mb-0">
        {t('today.a_dot_on_the_line', {
          moreLanes: day.moreLanes > 0 && t('today.more_rule_also_fired', { moreLanes: day.moreLanes }),
          others: day.others > 0 && t('today.other_rule_reported_nothing', { others: day.others }),
        })}
      </p>
    </>
  )
}

const said = (lane: Lane) => {
  const told = lane.checks
    .filter((check) => check.state !== 'QUIET' && check.state !== 'RUNNING')
    .map((check) => `${timeOfDay(check.slot)} ${stateWords(check.state)}${check.updates ? `, ${check.updates}` : ''}`)
  const quiet = lane.checks.filter((check) => check.state === 'QUIET').length
  return [
    `${lane.title}: ${told.join('; ') || t('today.nothing_reported')}`,
    t('today.quiet', { quiet }),
    t('today.to_come', { toCome: lane.toCome.length }),
    lane.lateSince && t('today.late_since', { lateSince: timeOfDay(lane.lateSince) }),
  ]
    .filter(Boolean)
    .join(', ')
}

/** Quiet checks one after the other, as pieces of a line, where there are too many for dots. */
function quietRuns(checks: DayCheck[], x: (slot: string) => number): [number, number][] {
  const runs: [number, number][] = []
  let before: number | null = null
  for (const check of checks) {
    const at = x(check.slot)
    if (before !== null && at - before < 9) {
      const last = runs.at(-1)
      if (last?.[1] === before) last[1] = at
      else runs.push([before, at])
    }
    before = at
  }
  return runs
}

function LaneChart({ lane, x, now }: { lane: Lane; x: (slot: string) => number; now: string }) {
  const dense = lane.checks.length > 40
  return (
    <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={said(lane)}>
      <line x1={side} x2={width - side} y1={line} y2={line} stroke="var(--bs-border-color)" />
      <line x1={x(now)} x2={x(now)} y1={0} y2={height} stroke="var(--bs-body-color)" strokeDasharray="2 3" />
      {dense &&
        quietRuns(lane.checks, x).map(([a, b]) => (
          <line key={a} x1={a} x2={b} y1={line} y2={line} stroke="var(--bs-secondary-color)" strokeWidth={2.6} />
        ))}
      {lane.toCome.length <= 40 &&
        lane.toCome.map((slot) => (
          <circle
            key={slot}
            cx={x(slot)}
            cy={line}
            r={3}
            fill="var(--sheet)"
            stroke="var(--bs-secondary-color)"
            strokeWidth={1.5}
          />
        ))}
      {lane.lateSince && (
        <text x={x(lane.lateSince)} y={line - 6} fontSize={12} fontWeight={700} textAnchor="middle" fill="var(--brick)">
          {t('today.late')}
        </text>
      )}
      {lane.checks.map((check) => (
        <Dot key={check.id} check={check} x={x(check.slot)} dense={dense} />
      ))}
    </svg>
  )
}

function Dot({ check, x, dense }: { check: DayCheck; x: number; dense: boolean }) {
  switch (check.state) {
    case 'FIRED':
      return (
        <g>
          <line
            x1={x}
            x2={x}
            y1={line}
            y2={15}
            stroke={`var(${check.worst === 'CRITICAL' ? '--brick' : '--lantern'})`}
          />
          <Lifted x={x} y={12} worst={check.worst} />
          {check.updates !== null && check.updates > 0 && (
            <text
              x={x > width - 40 ? x - 8 : x + 8}
              y={16}
              fontSize={11}
              textAnchor={x > width - 40 ? 'end' : 'start'}
              fill="var(--bs-body-color)"
            >
              {check.updates}
            </text>
          )}
        </g>
      )
    case 'FAILED':
    case 'PARTLY_FAILED':
      return <path d={`M${x - 4} ${line - 4}l8 8m0 -8l-8 8`} stroke="var(--brick)" strokeWidth={2.2} />
    case 'INCOMPLETE':
      return (
        <text x={x} y={line - 4} textAnchor="middle" fontSize={12} fontWeight={700} fill="var(--lantern-ink)">
          ?
        </text>
      )
    case 'AWAITING_APPROVAL':
      return (
        <path d={`M${x - 3.5} ${line - 3.5}h7v7h-7z`} fill="var(--sheet)" stroke="var(--lantern)" strokeWidth={2} />
      )
    default:
      return dense ? null : <circle cx={x} cy={line} r={2.4} fill="var(--bs-secondary-color)" />
  }
}
