import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { measureWords } from '../../shared/words'
import { thresholds } from '../thresholds/api'
import { rich, t } from '../../messages'

/** The named numbers, each leading to its values over time. */
export function ThresholdsPanel() {
  const all = useQuery(thresholds)
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('shared.thresholds')}</h2>
        <Link className="small quiet" to="/thresholds">
          {t('setup.all')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_thresholds')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {rich('setup.no_thresholds_yet_a_threshold', {
                link: (inner) => <Link to="/documents/new">{inner}</Link>,
              })}
            </p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map((each) => (
                <li key={each.name}>
                  <Link to={`/thresholds/${each.name}`}>{each.title}</Link>{' '}
                  <span className="quiet small">
                    {each.number === null ? t('shared.no_value') : `${measureWords(each.number)} ${each.unit ?? ''}`}
                    {each.key.length > 0 && t('setup.by', { key: each.key.join(', ') })}
                    {each.planned > 0 && t('setup.value_planned', { planned: each.planned })}
                  </span>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
    </section>
  )
}
