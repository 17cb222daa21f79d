import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { numberWords, plural } from '../../shared/words'
import { effectOf, queryPage, type Effect, type QueryDocument } from './api'

/** Which rules use the query, and what the edit would break or move. */
export function UsedBy({ document }: { document: QueryDocument }) {
  const page = useQuery(queryPage(document.name))
  const effect = useMutation({ mutationFn: () => effectOf(document) })
  return (
    <section className="sheet">
      <div className="head">
        <h2>Used by</h2>
        <Button variant="plain" size="sm" disabled={effect.isPending} onClick={() => effect.mutate()}>
          {effect.isPending ? 'Reading the source …' : 'Show effect on rules'}
        </Button>
      </div>
      <Loaded query={page} what="Used by">
        {({ usedBy }) =>
          usedBy.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              None yet. <Link to={`/rules/new?query=${document.name}`}>Create rule</Link>
            </p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {usedBy.map((user) => (
                <li key={`${user.kind} ${user.name}`}>
                  <Link to={user.kind === 'rule' ? `/rules/${user.name}` : `/queries/${user.name}`}>{user.title}</Link>{' '}
                  <span className="small quiet">{user.how === 'watches' ? 'watches it' : user.how}</span>
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
  if (effect.effect === 'NO_EFFECT') return <p className="callout mt-2 mb-0">No rule would find other exceptions.</p>
  if (effect.rules.length === 0) return <p className="callout mt-2 mb-0">No rule uses it.</p>
  return (
    <ul className="callout list-unstyled mt-2 mb-0">
      {effect.rules.map(({ rule, title, copy, refused, compared }) => (
        <li key={rule}>
          <Link to={`/rules/${rule}`}>{title}</Link>
          {copy && <> (for {copy})</>}:{' '}
          {compared === null ? (
            <span className="problem-text">{refused}</span>
          ) : compared.onlyDraftCount + compared.onlyActiveCount + compared.otherSeverity === 0 ? (
            <>the same {plural(compared.both, 'exception')}</>
          ) : (
            <>
              <strong>{numberWords(compared.onlyDraftCount)} added</strong>
              {some(compared.onlyDraft)}, <strong>{numberWords(compared.onlyActiveCount)} fewer</strong>
              {some(compared.onlyActive)}, {numberWords(compared.both)} as before
              {compared.otherSeverity > 0 && `, ${numberWords(compared.otherSeverity)} of them with another severity`}
            </>
          )}
        </li>
      ))}
    </ul>
  )
}

const some = (identities: string[]) =>
  identities.length === 0 ? '' : ` (${identities.slice(0, 3).join('; ')}${identities.length > 3 ? ' …' : ''})`
