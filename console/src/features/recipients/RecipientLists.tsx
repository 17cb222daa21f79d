import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { RuleLinks } from '../../shared/RuleLinks'
import { definitionsOf } from '../documents/api'
import { t } from '../../messages'

/** The lists of recipients, and the rules that mail each. */
export function RecipientLists() {
  const all = useQuery(definitionsOf('recipient-list'))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('recipients.lists')}</h2>
        <Link className="btn btn-plain btn-sm" to="/recipient-lists/new">
          {t('recipients.new_list')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_lists')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('recipients.no_lists_yet')}</p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map(({ name, title, rules }) => (
                <li key={name} className="mt-1">
                  <Link to={`/recipient-lists/${name}`}>
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
