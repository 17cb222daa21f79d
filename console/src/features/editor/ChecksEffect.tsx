import { useQuery } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { checksOf } from '../rules/api'
import { metBy } from './checksEffect'
import { t } from '../../messages'

/** What the last checks of the saved rule met, one sentence for each limit that can be set. */
export function ChecksEffect({ name, timeLimit }: { name: string; timeLimit: string }) {
  const checks = useQuery(checksOf(name))
  const met = metBy(checks.data?.checks ?? [], timeLimit)
  if (!met) return null
  return (
    <>
      <h3 className="mt-3">{t('editor.the_last_checks')}</h3>
      <p className="small quiet mb-1">
        {t('editor.last_checks_since', { checks: met.checks, since: timeWords(met.since) })}
      </p>
      <ul className="small mb-0">
        <li>
          {t('editor.met_time', { seconds: Math.ceil(met.longestMillis / 100) / 10 })}
          {met.overLimit !== null && ` ${t('editor.met_over', { over: met.overLimit, limit: timeLimit })}`}
        </li>
        <li>{t('editor.met_failed', { failed: met.failed, retries: met.retries })}</li>
        <li>{t('editor.met_no_rows', { count: met.withoutRows })}</li>
        <li>{t('editor.met_moves', { opened: met.mostOpened, cleared: met.mostCleared })}</li>
      </ul>
    </>
  )
}
