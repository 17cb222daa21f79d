import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { useQueries } from '@tanstack/react-query'
import { measureWords, timeWords } from '../../shared/words'
import { threshold, type ThresholdPage } from '../thresholds/api'
import type { Series } from './api'
import { t } from '../../messages'

const width = 720
const height = 180
const left = 56
const bottom = 22

type Step = { from: number; number: number; planned: boolean }
type Drawn = { name: string; steps: Step[] }

/** The values of a threshold for one group, oldest first; for all others where the group has none of its own. */
export function stepsFor(page: ThresholdPage, group: string): Step[] {
  const own = page.values.filter(({ key }) => key.length > 0 && key.join(', ') === group)
  const values = own.length > 0 ? own : page.values.filter(({ key }) => key.length === 0)
  return values
    .map(({ from, number, when }) => ({
      from: from === null ? -Infinity : Date.parse(`${from}T00:00:00`),
      number,
      planned: when === 'PLANNED',
    }))
    .sort((a, b) => a.from - b.from)
}

/** How one measured value moved, with the thresholds that it is compared with drawn in. */
export function Trend({ all, thresholds }: { all: Series[]; thresholds: string[] }) {
  const [chosen, setChosen] = useState(0)
  const pages = useQueries({ queries: thresholds.map((name) => threshold(name)) })
  const series = all[chosen] ?? all[0]
  if (!series || series.points.length < 2) return null
  const drawn = pages.flatMap(({ data }): Drawn[] =>
    data ? [{ name: data.threshold.title, steps: stepsFor(data, series.group) }] : [],
  )
  return (
    <>
      {all.length > 1 && (
        <Form.Select
          size="sm"
          className="w-auto mt-2"
          aria-label={t('rules.measure')}
          value={chosen}
          onChange={(event) => setChosen(Number(event.target.value))}
        >
          {all.map((each, index) => (
            <option key={index} value={index}>
              {t('rules.measure_of_group', { measure: each.measure, group: each.group })}
            </option>
          ))}
        </Form.Select>
      )}
      <Chart series={series} drawn={drawn} />
    </>
  )
}

function Chart({ series, drawn }: { series: Series; drawn: Drawn[] }) {
  const times = series.points.map(({ slot }) => Date.parse(slot))
  const [start, end] = [times[0] ?? 0, times.at(-1) ?? 1]
  const values = [
    ...series.points.map(({ value }) => value),
    ...drawn.flatMap(({ steps }) => steps.filter((step) => step.from <= end).map(({ number }) => number)),
  ]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const room = high === low ? Math.abs(high) || 1 : (high - low) * 0.08
  const x = (time: number) =>
    left + ((Math.max(start, Math.min(end, time)) - start) / (end - start || 1)) * (width - left - 8)
  const y = (value: number) => 8 + ((high + room - value) / (high - low + 2 * room)) * (height - bottom - 8)
  const last = series.points.at(-1)
  const label = t('rules.of_measurements_from_to_last', {
    measure: series.measure,
    group: series.group,
    points: series.points.length,
    low: measureWords(low),
    high: measureWords(high),
    last: last ? measureWords(last.value) : '',
    drawn: drawn
      .map(({ name, steps }) =>
        steps.length > 0
          ? t('rules.threshold', {
              name,
              number: measureWords(steps.filter((step) => step.from <= end).at(-1)?.number ?? 0),
            })
          : '',
      )
      .join(''),
  })
  return (
    <svg className="chart" viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      {(low === high ? [low] : [low, (low + high) / 2, high]).map((value, index) => (
        <g key={index}>
          <line x1={left} x2={width - 8} y1={y(value)} y2={y(value)} stroke="var(--bs-border-color)" />
          <text x={left - 6} y={y(value) + 4} textAnchor="end">
            {measureWords(value)}
          </text>
        </g>
      ))}
      <text x={left} y={height - 4}>
        {timeWords(new Date(start).toISOString())}
      </text>
      <text x={width - 8} y={height - 4} textAnchor="end">
        {timeWords(new Date(end).toISOString())}
      </text>
      {drawn.map(({ name, steps }) =>
        steps
          .filter((step) => step.from <= end)
          .map((step, index, all) => {
            const until = all[index + 1]?.from ?? end
            return (
              <g key={`${name}${step.from}`}>
                <line
                  x1={x(step.from)}
                  x2={x(until)}
                  y1={y(step.number)}
                  y2={y(step.number)}
                  stroke="var(--brick)"
                  strokeWidth={1.6}
                  strokeDasharray="6 3"
                />
                {index === all.length - 1 && (
                  <text x={width - 10} y={y(step.number) - 5} textAnchor="end" className="limit">
                    {name} {measureWords(step.number)}
                  </text>
                )}
              </g>
            )
          }),
      )}
      <polyline
        fill="none"
        stroke="var(--bs-body-color)"
        strokeWidth={1.8}
        points={series.points.map(({ value }, index) => `${x(times[index] ?? 0)},${y(value)}`).join(' ')}
      />
      {series.points.length <= 80 &&
        series.points.map(({ value, backfilled }, index) => (
          <circle
            key={index}
            cx={x(times[index] ?? 0)}
            cy={y(value)}
            r={2.6}
            fill={backfilled ? 'var(--sheet)' : 'var(--bs-body-color)'}
            stroke="var(--bs-body-color)"
          />
        ))}
    </svg>
  )
}
