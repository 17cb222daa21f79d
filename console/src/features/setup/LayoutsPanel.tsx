import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { RuleLinks } from '../../shared/RuleLinks'
import { definitionsOf } from '../documents/api'
import { t } from '../../messages'

/** The layouts that rules share, and the rules that use each. */
export function LayoutsPanel() {
  const all = useQuery(definitionsOf('layout'))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('setup.layouts')}</h2>
        <Link className="btn btn-plain btn-sm" to="/layouts/new">
          {t('layouts.new_layout')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_layouts')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('setup.no_layouts_yet')}</p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map(({ name, title, rules }) => (
                <li key={name} className="mt-1">
                  <Link to={`/layouts/${name}`}>
                    <strong>{title}</strong>
                  </Link>{' '}
                  <span className="small quiet">
                    {t('shared.used_by')} <RuleLinks rules={rules} />
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
