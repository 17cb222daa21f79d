import { Table } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { RuleLinks } from '../../shared/RuleLinks'
import { Scroll } from '../../shared/Scroll'
import { useMay } from '../../shared/may'
import { useTitle } from '../../shared/title'
import { measureWords, timeWords } from '../../shared/words'
import { threshold, type Given, type ThresholdPage as Page } from './api'
import { useRetired } from '../archive/retired'
import { RetiredNote } from '../archive/RetiredNote'
import { ImportTable } from './ImportTable'
import { StepChart } from './StepChart'
import { forWhom, Values } from './Values'
import { t } from '../../messages'

export function ThresholdPage() {
  const { name = '' } = useParams()
  const page = useQuery(threshold(name))
  return (
    <Loaded query={page} what={t('loading.the_threshold')}>
      {(data) => <OneThreshold page={data} />}
    </Loaded>
  )
}

function OneThreshold({ page }: { page: Page }) {
  const { threshold: summary, history } = page
  useTitle(summary.title)
  const may = useMay()
  return (
    <>
      <div className="head">
        <h1>{summary.title.charAt(0).toUpperCase() + summary.title.slice(1)}</h1>
        {may('write', summary.owner ?? undefined) && (
          <Link className="btn btn-plain" to={`/thresholds/${summary.name}/edit`}>
            {t('thresholds.edit_definition')}
          </Link>
        )}
      </div>
      <RetiredNote retired={useRetired('threshold', summary.name)} />
      <p className="quiet mb-0">
        <code>
          {t('thresholds.as_written', { name: summary.name, key: summary.key.map((each) => `, ${each}`).join('') })}
        </code>
        {summary.description && ` · ${summary.description}`}
      </p>
      <p className="mb-0">
        {t('shared.used_by')} <RuleLinks rules={summary.rules} />
        {summary.owner !== null && ` · ${t('shared.owned_by', { owner: summary.owner })}`}
      </p>
      {page.values.some(({ from }) => from !== null) && (
        <section className="sheet">
          <h2>{t('thresholds.over_time')}</h2>
          <StepChart values={page.values} unit={summary.unit} today={new Date()} />
        </section>
      )}
      <div className="two">
        <Values page={page} />
        {may('lead', summary.owner ?? undefined) && <ImportTable threshold={summary} />}
      </div>
      <section className="sheet">
        <h2>{t('thresholds.changes')}</h2>
        {history.length === 0 ? (
          <p className="quiet mt-2 mb-0">{t('thresholds.none_yet')}</p>
        ) : (
          <Changes history={history} kept={summary.key.length > 0} />
        )}
      </section>
    </>
  )
}

function Changes({ history, kept }: { history: Given[]; kept: boolean }) {
  return (
    <Scroll label={t('thresholds.changes')}>
      <Table>
        <thead>
          <tr>
            <th>{t('thresholds.when')}</th>
            <th>{t('thresholds.who')}</th>
            {kept && <th>{t('shared.for')}</th>}
            <th>{t('thresholds.from_heading')}</th>
            <th className="num">{t('thresholds.value')}</th>
            <th>{t('shared.reason')}</th>
          </tr>
        </thead>
        <tbody>
          {history.map((given, index) => (
            <tr key={index}>
              <td className="text-nowrap">{timeWords(given.setAt)}</td>
              <td>{given.setBy}</td>
              {kept && <td>{forWhom(given.key)}</td>}
              <td className="text-nowrap">{given.from ?? t('thresholds.always')}</td>
              <td className="num">{given.number === null ? t('thresholds.removed') : measureWords(given.number)}</td>
              <td>{given.reason}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
