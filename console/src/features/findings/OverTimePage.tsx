import { Table } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { ageWords, durationWords, numberWords } from '../../shared/words'
import { findingsOverTime, type LinesBy, type OverTime, type OverTimeLine } from './api'
import { dayAfter, dayWords, pointsOf, scaleOf } from './overTime'
import { t } from '../../messages'

const spans = [30, 90, 365]

/** How the number of open findings moved, over all and for each rule or team, and for how long findings stay open. */
export function OverTimePage() {
  useTitle(t('findings.over_time'))
  const [search, setSearch] = useSearchParams()
  const by: LinesBy = search.get('by') === 'TEAM' ? 'TEAM' : 'RULE'
  const days = spans.find((each) => String(each) === search.get('days')) ?? 90
  const found = useQuery(findingsOverTime(days, by))
  const put = (next: { by?: LinesBy; days?: number }) =>
    setSearch({ by: next.by ?? by, days: String(next.days ?? days) }, { replace: true })
  return (
    <>
      <div className="head">
        <h1>{t('findings.over_time')}</h1>
        <div className="d-flex flex-wrap gap-2">
          <Choice
            id="over-time-by"
            label={t('findings.lines')}
            hiddenLabel
            large
            value={by}
            options={[
              ['RULE', t('findings.by_rule')],
              ['TEAM', t('findings.by_team')],
            ]}
            onChange={(next) => put({ by: next || 'RULE' })}
          />
          <Choice
            id="over-time-days"
            label={t('findings.period')}
            hiddenLabel
            large
            value={String(days)}
            options={spans.map((each) => [String(each), t('findings.last_days', { days: each })])}
            onChange={(next) => put({ days: Number(next) })}
          />
        </div>
      </div>
      <Loaded query={found} what={t('loading.the_findings')}>
        {(data) =>
          data.lines.length === 0 ? (
            <p className="quiet">{t('findings.none_in_these_days')}</p>
          ) : (
            <>
              <section className="sheet">
                <h2>{t('findings.open_findings')}</h2>
                <Chart all={data} />
              </section>
              <section className="sheet">
                <Lines all={data} by={by} />
              </section>
            </>
          )
        }
      </Loaded>
    </>
  )
}

const width = 900
const height = 180
const left = 48
const bottom = 22

function Chart({ all }: { all: OverTime }) {
  const { top, steps } = scaleOf(Math.max(...all.open))
  const y = (value: number) => 8 + (1 - value / top) * (height - bottom - 8)
  const [first, last] = [all.open[0] ?? 0, all.open.at(-1) ?? 0]
  const label = t('findings.chart_of_open_findings', {
    from: dayWords(all.from),
    first,
    last,
    highest: Math.max(...all.open),
  })
  return (
    <svg className="chart" viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label}>
      {steps.map((value) => (
        <g key={value}>
          <line x1={left} x2={width - 8} y1={y(value)} y2={y(value)} stroke="var(--bs-border-color)" />
          <text x={left - 6} y={y(value) + 4} textAnchor="end">
            {numberWords(value)}
          </text>
        </g>
      ))}
      <text x={left} y={height - 4}>
        {dayWords(all.from)}
      </text>
      <text x={width - 8} y={height - 4} textAnchor="end">
        {t('findings.today')}
      </text>
      <polyline
        fill="none"
        stroke="var(--bs-body-color)"
        strokeWidth={1.8}
        points={pointsOf(all.open, top, { left, right: width - 8, top: 8, bottom: height - bottom })}
      />
      {all.open.map((value, day) => (
        <rect
          key={day}
          x={left + ((day - 0.5) / Math.max(1, all.open.length - 1)) * (width - left - 8)}
          y={0}
          width={(width - left - 8) / Math.max(1, all.open.length - 1)}
          height={height - bottom}
          fill="transparent"
        >
          <title>{t('findings.open_on_day', { day: dayWords(dayAfter(all.from, day)), count: value })}</title>
        </rect>
      ))}
    </svg>
  )
}

function Lines({ all, by }: { all: OverTime; by: LinesBy }) {
  // One scale for all, so that the rows can be compared.
  const { top } = scaleOf(Math.max(...all.lines.flatMap(({ open }) => open)))
  return (
    <Scroll label={t('findings.over_time')}>
      <Table className="cards">
        <thead>
          <tr>
            <th>{by === 'RULE' ? t('shared.rule') : t('shared.team')}</th>
            <th>{t('findings.open_each_day')}</th>
            <th className="num">{t('findings.open_now')}</th>
            <th className="num">{t('findings.opened')}</th>
            <th className="num">{t('findings.cleared_in_period')}</th>
            <th className="num">{t('findings.aged_out_in_period')}</th>
            <th className="num">{t('findings.usually_open_for')}</th>
            <th className="num">{t('findings.oldest_open')}</th>
          </tr>
        </thead>
        <tbody>
          {all.lines.map((line) => (
            <tr key={line.name}>
              <td>{by === 'RULE' ? <Link to={`/rules/${line.name}`}>{line.title}</Link> : line.title}</td>
              <td data-label={t('findings.open_each_day')}>
                <Spark line={line} top={top} />
              </td>
              <td className="num" data-label={t('findings.open_now')}>
                {by === 'RULE' && (line.open.at(-1) ?? 0) > 0 ? (
                  <Link to={`/findings?${new URLSearchParams({ rule: line.name, state: 'OPEN' })}`}>
                    {numberWords(line.open.at(-1) ?? 0)}
                  </Link>
                ) : (
                  numberWords(line.open.at(-1) ?? 0)
                )}
              </td>
              <td className="num" data-label={t('findings.opened')}>
                {numberWords(line.opened)}
              </td>
              <td className="num" data-label={t('findings.cleared_in_period')}>
                {numberWords(line.cleared)}
              </td>
              <td className="num" data-label={t('findings.aged_out_in_period')}>
                {numberWords(line.agedOut)}
              </td>
              <td className="num" data-label={t('findings.usually_open_for')}>
                {line.medianSeconds === null ? '–' : durationWords(line.medianSeconds)}
              </td>
              <td className="num" data-label={t('findings.oldest_open')}>
                {line.oldest === null ? '–' : ageWords(line.oldest, new Date().toISOString())}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}

function Spark({ line, top }: { line: OverTimeLine; top: number }) {
  const label = t('findings.line_of_open_findings', {
    first: line.open[0] ?? 0,
    last: line.open.at(-1) ?? 0,
    highest: Math.max(...line.open),
  })
  return (
    <svg className="trend" width={180} height={28} viewBox="0 0 180 28" role="img" aria-label={label}>
      <polyline points={pointsOf(line.open, top, { left: 1, right: 179, top: 2, bottom: 26 })} />
    </svg>
  )
}
