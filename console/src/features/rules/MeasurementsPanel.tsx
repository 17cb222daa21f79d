import { Button, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { measureWords, numberWords, timeWords } from '../../shared/words'
import { Trend } from './Trend'
import { measurementsOf, keepMeasurements, type Series } from './api'
import { t } from '../../messages'

/** What the rule's checks measured of each group: the last value, and the way there. */
export function MeasurementsPanel({ name, thresholds = [] }: { name: string; thresholds?: string[] }) {
  const history = useQuery(measurementsOf(name))
  return (
    <section className="sheet">
      <h2>{t('rules.measurements')}</h2>
      <Loaded query={history} what={t('loading.measurements')}>
        {(all) =>
          all.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('rules.no_measurements_yet_each_scheduled')}</p>
          ) : (
            <>
              <Earlier name={name} all={all} />
              <Trend all={all.filter((series) => !series.earlier)} thresholds={thresholds} />
              <SeriesTable all={all} />
            </>
          )
        }
      </Loaded>
    </section>
  )
}

/** Measurements from before an edit are not used, unless a person says that they are comparable. */
function Earlier({ name, all }: { name: string; all: Series[] }) {
  const client = useQueryClient()
  const join = useMutation({
    mutationFn: () => keepMeasurements(name),
    onSuccess: () => client.invalidateQueries({ queryKey: ['rules', name] }),
  })
  const earlier = all.filter((series) => series.earlier)
  if (earlier.length === 0) return null
  const points = earlier.reduce((sum, series) => sum + series.total, 0)
  return (
    <div className="callout mt-2">
      {t('rules.measurement_was_recorded_before_the', { points })}{' '}
      <Button size="sm" variant="plain" disabled={join.isPending} onClick={() => join.mutate()}>
        {t('rules.keep_earlier_measurements')}
      </Button>
      <Refusal error={join.error} />
    </div>
  )
}

function SeriesTable({ all }: { all: Series[] }) {
  return (
    <Scroll label={t('rules.measurements')}>
      <Table>
        <thead>
          <tr>
            <th>{t('rules.measurements')}</th>
            <th>{t('rules.of')}</th>
            <th className="num">{t('shared.last')}</th>
            <th>{t('shared.at')}</th>
            <th>{t('rules.trend')}</th>
            <th className="num">{t('rules.count')}</th>
          </tr>
        </thead>
        <tbody>
          {all.map((series, index) => {
            const last = series.points.at(-1)
            return (
              <tr key={index}>
                <td>
                  <code>{series.measure}</code>
                </td>
                <td>
                  {series.group}
                  {series.earlier && <span className="quiet small"> {t('rules.earlier')}</span>}
                </td>
                <td className="num">{last ? measureWords(last.value) : ''}</td>
                <td className="text-nowrap">{last && timeWords(last.slot)}</td>
                <td>
                  <Line series={series} />
                </td>
                <td className="num">{numberWords(series.total)}</td>
              </tr>
            )
          })}
        </tbody>
      </Table>
    </Scroll>
  )
}

const width = 120
const height = 24

function Line({ series }: { series: Series }) {
  const values = series.points.map(({ value }) => value)
  if (values.length < 2) return null
  const low = Math.min(...values)
  const high = Math.max(...values)
  const y = (value: number) => (high === low ? height / 2 : height - 2 - ((value - low) / (high - low)) * (height - 4))
  const points = values
    .map((value, index) => `${(index / (values.length - 1)) * (width - 2) + 1},${y(value)}`)
    .join(' ')
  return (
    <svg
      className="trend"
      width={width}
      height={height}
      role="img"
      aria-label={t('rules.point_from_to', { values: values.length, low: measureWords(low), high: measureWords(high) })}
    >
      <polyline points={points} />
    </svg>
  )
}
