import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { numberWords } from '../../shared/words'
import { effectOf, queryPage, type Effect, type QueryDocument } from './api'
import { rich, t } from '../../messages'

/** Which rules use the query, and what the edit would break or move. */
export function UsedBy({ document }: { document: QueryDocument }) {
  const page = useQuery(queryPage(document.name))
  const effect = useMutation({ mutationFn: () => effectOf(document) })
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('shared.used_by')}</h2>
        <Button variant="plain" size="sm" disabled={effect.isPending} onClick={() => effect.mutate()}>
          {effect.isPending ? t('shared.reading_the_source') : t('queries.show_effect_on_rules')}
        </Button>
      </div>
      <Loaded query={page} what={t('loading.used_by')}>
        {({ usedBy }) =>
          usedBy.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {rich('queries.none_yet_create_rule', {
                link: (inner) => <Link to={`/rules/new?query=${document.name}`}>{inner}</Link>,
              })}
            </p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {usedBy.map((user) => (
                <li key={`${user.kind} ${user.name}`}>
                  <Link to={user.kind === 'rule' ? `/rules/${user.name}` : `/queries/${user.name}`}>{user.title}</Link>{' '}
                  <span className="small quiet">{user.how === 'watches' ? t('queries.watches_it') : user.how}</span>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
      <div role="status">
        <Refusal error={effect.error} />
        {effect.data && <Effects effect={effect.data} />}
      </div>
    </section>
  )
}

function Effects({ effect }: { effect: Effect }) {
  if (effect.effect === 'NO_EFFECT') return <p className="callout mt-2 mb-0">{t('queries.no_rule_would_find_other')}</p>
  if (effect.rules.length === 0) return <p className="callout mt-2 mb-0">{t('shared.no_rule_uses_it')}</p>
  return (
    <ul className="callout list-unstyled mt-2 mb-0">
      {effect.rules.map(({ rule, title, copy, refused, compared }) => (
        <li key={rule}>
          <Link to={`/rules/${rule}`}>{title}</Link>
          {copy && <> {t('queries.for', { copy })}</>}:{' '}
          {compared === null ? (
            <span className="problem-text">{refused}</span>
          ) : compared.onlyDraftCount + compared.onlyActiveCount + compared.otherSeverity === 0 ? (
            <>{t('queries.the_same_exception', { both: compared.both })}</>
          ) : (
            <>
              {rich('queries.added_fewer_as_before', {
                strong: (inner) => <strong>{inner}</strong>,
                onlyDraftCount: numberWords(compared.onlyDraftCount),
                onlyDraft: some(compared.onlyDraft),
                strong2: (inner) => <strong>{inner}</strong>,
                onlyActiveCount: numberWords(compared.onlyActiveCount),
                onlyActive: some(compared.onlyActive),
                both: numberWords(compared.both),
                otherSeverity:
                  compared.otherSeverity > 0 &&
                  t('shared.of_them_with_another_severity', { otherSeverity: numberWords(compared.otherSeverity) }),
              })}
            </>
          )}
        </li>
      ))}
    </ul>
  )
}

const some = (identities: string[]) =>
  identities.length === 0 ? '' : ` (${identities.slice(0, 3).join('; ')}${identities.length > 3 ? ' …' : ''})`
