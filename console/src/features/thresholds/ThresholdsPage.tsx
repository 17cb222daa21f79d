import { Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { measureWords } from '../../shared/words'
import { thresholds, type ThresholdSummary } from './api'
import { t } from '../../messages'

export function ThresholdsPage() {
  useTitle(t('shared.thresholds'))
  const all = useQuery(thresholds)
  return (
    <>
      <div className="head">
        <h1>{t('shared.thresholds')}</h1>
        <Link className="btn btn-primary" to="/thresholds/new">
          {t('thresholds.new_threshold')}
        </Link>
      </div>
      <section className="sheet">
        <Loaded query={all} what={t('loading.the_thresholds')}>
          {(list) =>
            list.length === 0 ? (
              <p className="quiet mb-0">{t('thresholds.no_thresholds_yet')}</p>
            ) : (
              <ThresholdTable list={list} />
            )
          }
        </Loaded>
      </section>
    </>
  )
}

function ThresholdTable({ list }: { list: ThresholdSummary[] }) {
  return (
    <Scroll label={t('shared.thresholds')}>
      <Table>
        <thead>
          <tr>
            <th>{t('thresholds.threshold')}</th>
            <th className="num">{t('thresholds.now')}</th>
            <th>{t('thresholds.key_columns')}</th>
            <th className="num">{t('thresholds.values')}</th>
            <th className="num">{t('thresholds.planned_heading')}</th>
            <th>{t('shared.used_by')}</th>
          </tr>
        </thead>
        <tbody>
          {list.map((each) => (
            <tr key={each.name}>
              <td>
                <Link to={`/thresholds/${each.name}`}>{each.title}</Link>
                <div className="small quiet">{each.description ?? each.name}</div>
              </td>
              <td className="num text-nowrap">
                {each.number === null ? '–' : `${measureWords(each.number)} ${each.unit ?? ''}`}
              </td>
              <td>{each.key.join(', ') || <span className="quiet">{t('thresholds.single_value')}</span>}</td>
              <td className="num">{each.values}</td>
              <td className="num">{each.planned}</td>
              <td>
                {each.rules.map((rule, index) => (
                  <span key={rule}>
                    {index > 0 && ', '}
                    <Link to={`/rules/${rule}`}>{rule}</Link>
                  </span>
                ))}
                {each.rules.length === 0 && <span className="quiet">{t('shared.no_rules')}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
