import { useQuery } from '@tanstack/react-query'
import { checksOf, type Series } from './api'
import { Trend } from './Trend'
import { t } from '../../messages'

/** The number of exceptions of each check, for rules over rows without measures. */
export function ExceptionsTrend({ name }: { name: string }) {
  const checks = useQuery(checksOf(name))
  const points = (checks.data?.checks ?? [])
    .flatMap(({ slot, exceptions }) => (exceptions === null ? [] : [{ slot, value: exceptions, backfilled: false }]))
    .toReversed()
  const series: Series = {
    group: t('shared.all_rows'),
    measure: 'exceptions',
    total: points.length,
    earlier: false,
    points,
  }
  if (points.length < 3) return null
  return (
    <section className="sheet">
      <h2>{t('rules.exceptions_per_check')}</h2>
      <Trend all={[series]} thresholds={[]} />
    </section>
  )
}
