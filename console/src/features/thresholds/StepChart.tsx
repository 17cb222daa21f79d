import { measureWords } from '../../shared/words'
import type { Value } from './api'
import { forWhom } from './Values'
import { t } from '../../messages'

const width = 720
const height = 190
const left = 56
const bottom = 22
const day = 86_400_000

const dayWords = new Intl.DateTimeFormat(undefined, {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
const dashes = ['', '1 4', '8 3 2 3', '12 4']

type Line = { key: string[]; steps: { from: number | null; number: number; planned: boolean }[] }

/** For each key its values in the order in which they apply. */
export function linesOf(values: Value[]): Line[] {
  const lines = new Map<string, Line>()
  for (const value of values) {
    const name = value.key.join('\n')
    const line = lines.get(name) ?? { key: value.key, steps: [] }
    line.steps.push({
      from: value.from === null ? null : Date.parse(`${value.from}T00:00:00Z`),
      number: value.number,
      planned: value.when === 'PLANNED',
    })
    lines.set(name, line)
  }
  return [...lines.values()].map((line) => ({
    ...line,
    steps: line.steps.sort((a, b) => (a.from ?? -Infinity) - (b.from ?? -Infinity)),
  }))
}

const mostLines = 6

/** The values over time as steps; planned ones are dashed. */
export function StepChart({ values, unit, today }: { values: Value[]; unit: string | null; today: Date }) {
  const all = linesOf(values)
  const lines = all.slice(0, mostLines)
  const now = today.getTime()
  const dates = lines.flatMap((line) => line.steps.flatMap((step) => (step.from === null ? [] : [step.from])))
  if (dates.length === 0) return null
  const start = Math.min(...dates, now) - 30 * day
  const end = Math.max(...dates, now) + 60 * day
  const numbers = lines.flatMap((line) => line.steps.map((step) => step.number))
  const [low, high] = [Math.min(...numbers), Math.max(...numbers)]
  const room = high === low ? Math.abs(high) * 0.2 || 1 : (high - low) * 0.12
  const x = (time: number) =>
    left + ((Math.max(start, Math.min(end, time)) - start) / (end - start)) * (width - left - 8)
  const y = (value: number) => 10 + ((high + room - value) / (high - low + 2 * room)) * (height - bottom - 10)
  const said = lines
    .map(
      (line) =>
        `${line.key.length > 0 || lines.length > 1 ? `${forWhom(line.key)}: ` : ''}${line.steps.map((step) => `${measureWords(step.number)}${step.from === null ? '' : t('thresholds.from', { dayWords: dayWords.format(step.from) })}${step.planned ? t('thresholds.planned') : ''}`).join('; ')}`,
    )
    .join('. ')
  return (
    <>
      <svg
        className="chart"
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={t('thresholds.values_over_time', { said })}
      >
        {[...new Set([low, high])].map((value) => (
          <g key={value}>
            <line x1={left} x2={width - 8} y1={y(value)} y2={y(value)} stroke="var(--bs-border-color)" />
            <text x={left - 6} y={y(value) + 4} textAnchor="end">
              {measureWords(value)}
            </text>
          </g>
        ))}
        <line x1={x(now)} x2={x(now)} y1={4} y2={height - bottom} stroke="var(--bs-body-color)" strokeDasharray="2 3" />
        <text x={x(now) + 4} y={14}>
          {t('thresholds.today')}
        </text>
        {lines.map((line, index) => (
          <Steps key={line.key.join()} line={line} dash={dashes[index % dashes.length] ?? ''} x={x} y={y} end={end} />
        ))}
        <text x={left} y={height - 4}>
          {dayWords.format(start)}
        </text>
        <text x={width - 8} y={height - 4} textAnchor="end">
          {dayWords.format(end)}
        </text>
      </svg>
      <p className="small quiet mb-0">
        {t('thresholds.what_is_planned_is_dashed', {
          unit: unit && t('thresholds.in', { unit }),
          all: all.length > mostLines && t('thresholds.the_first_of_are_drawn', { mostLines, all: all.length }),
        })}
      </p>
    </>
  )
}

function Steps({
  line,
  dash,
  x,
  y,
  end,
}: {
  line: Line
  dash: string
  x: (time: number) => number
  y: (value: number) => number
  end: number
}) {
  const last = line.steps.at(-1)
  return (
    <g>
      {line.steps.map((step, index) => {
        const from = step.from ?? -Infinity
        const until = line.steps[index + 1]?.from ?? end
        const before = line.steps[index - 1]
        const look = step.planned
          ? { stroke: 'var(--lantern)', strokeDasharray: '7 4' }
          : { stroke: 'var(--bs-body-color)', strokeDasharray: dash }
        return (
          <g key={index} strokeWidth={2}>
            {before && <line x1={x(from)} x2={x(from)} y1={y(before.number)} y2={y(step.number)} {...look} />}
            <line x1={x(from)} x2={x(until)} y1={y(step.number)} y2={y(step.number)} {...look} />
          </g>
        )
      })}
      {last && line.key.length > 0 && (
        <text x={x(end) - 4} y={y(last.number) - 5} textAnchor="end">
          {forWhom(line.key)}
        </text>
      )}
    </g>
  )
}
