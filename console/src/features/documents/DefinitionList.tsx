import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { RuleLinks } from '../../shared/RuleLinks'
import { t } from '../../messages'
import { definitionsOf } from './api'

type Props = {
  kind: string
  /** Where they are seen, each below it by its name. */
  at: string
  heading: string
  /** What is loaded, in words. */
  what: string
  fresh: string
  nothing: string
}

/** What is saved of one kind, with the rules that use each. */
export function DefinitionList({ kind, at, heading, what, fresh, nothing }: Props) {
  const all = useQuery(definitionsOf(kind))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{heading}</h2>
        <Link className="btn btn-plain btn-sm" to={`${at}/new`}>
          {fresh}
        </Link>
      </div>
      <Loaded query={all} what={what}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{nothing}</p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map(({ name, title, rules }) => (
                <li key={name} className="mt-1">
                  <Link to={`${at}/${name}`}>
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
