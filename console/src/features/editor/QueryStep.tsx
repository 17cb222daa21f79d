import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { nameFrom } from '../../shared/names'
import { numberWords } from '../../shared/words'
import { queries, queryDocument, runQuery, type QueryDocument } from '../queries/api'
import { ParameterFields } from '../queries/ParameterFields'
import { RowsTable } from '../queries/RowsTable'
import { BelongingFields } from '../fields/Belonging'
import { ZoneField } from '../fields/OwnerAndZone'
import type { RuleDocument } from './api'
import type { Simple } from './builder'
import { CellStarts, type Picked } from './CellStarts'
import { kindOf, type Kind } from './kind'
import { KindField } from './KindField'
import { rich, t } from '../../messages'

const shownRows = 5

type Props = {
  document: RuleDocument
  isNew: boolean
  onChange: (part: Partial<RuleDocument>) => void
  onKind: (kind: Kind) => void
}

/** What the rule watches, under which name, and with which values of the query's parameters. */
export function QueryStep({ document, isNew, onChange, onKind }: Props) {
  const all = useQuery(queries)
  const asked = useQuery({ ...queryDocument(document.query), enabled: document.query !== '' })
  const retitle = (title: string) =>
    onChange({
      title,
      ...(isNew && (document.name === '' || document.name === nameFrom(document.title))
        ? { name: nameFrom(title) }
        : {}),
    })
  return (
    <>
      <div className="fields">
        <Form.Group controlId="title" className="whole">
          <Form.Label className="mb-0 small quiet">{t('shared.title')}</Form.Label>
          <Form.Control value={document.title} onChange={(event) => retitle(event.target.value)} />
        </Form.Group>
        {isNew && (
          <Form.Group controlId="name">
            <Form.Label className="mb-0 small quiet">{t('shared.name_for_urls_and_commands')}</Form.Label>
            <Form.Control
              size="sm"
              value={document.name}
              onChange={(event) => onChange({ name: event.target.value })}
            />
          </Form.Group>
        )}
        <Form.Group controlId="query-name">
          <Form.Label className="mb-0 small quiet">{t('shared.query')}</Form.Label>
          <Form.Select size="sm" value={document.query} onChange={(event) => onChange({ query: event.target.value })}>
            {document.query === '' && <option value="">{t('editor.select_one')}</option>}
            {(all.data ?? []).map((query) => (
              <option key={query.name} value={query.name}>
                {query.title}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <BelongingFields value={document} onChange={onChange} />
        <ZoneField value={document.zone} onChange={(zone) => onChange({ zone })} />
        <Form.Group controlId="labels">
          <Form.Label className="mb-0 small quiet">{t('editor.labels_comma_separated')}</Form.Label>
          <Form.Control
            size="sm"
            key={document.labels?.join()}
            defaultValue={document.labels?.join(', ') ?? ''}
            onBlur={(event) =>
              onChange({
                labels: event.target.value
                  .split(',')
                  .map((each) => each.trim())
                  .filter(Boolean),
              })
            }
          />
        </Form.Group>
      </div>
      <KindField kind={kindOf(document)} onChange={onKind} />
      {document.query === '' ? (
        <p className="small quiet mt-2 mb-0">
          {rich('editor.no_suitable_query_write_one', { link: (inner) => <Link to="/queries/new">{inner}</Link> })}
        </p>
      ) : (
        asked.data && (
          <ParameterFields
            id="rule"
            parameters={withCopies(asked.data.document, document)}
            values={document.parameters ?? {}}
            onChange={(parameters) => onChange({ parameters })}
            where={{ zone: document.zone || 'UTC', calendar: document.schedule?.calendar ?? null }}
            query={document.query}
          />
        )
      )}
      {document.copies && (
        <p className="callout mt-2 mb-0">
          {rich('editor.checked_once_for_each_row', {
            code: (inner) => <code>{inner}</code>,
            from: document.copies.from,
          })}
        </p>
      )}
    </>
  )
}

/** Those that personal copies give have no field. */
function withCopies(query: QueryDocument, rule: RuleDocument) {
  const given = (rule.copies as { parameters?: Record<string, string> } | undefined)?.parameters ?? {}
  return Object.fromEntries(Object.entries(query.parameters ?? {}).filter(([name]) => !(name in given)))
}

/** The rows that the rule would look at now. */
export function QueryEffect({ document, onStart }: { document: RuleDocument; onStart: (part: Simple) => void }) {
  const [picked, setPicked] = useState<Picked | null>(null)
  const asked = useQuery({ ...queryDocument(document.query), enabled: document.query !== '' })
  const run = useMutation({
    mutationFn: (query: QueryDocument) =>
      runQuery(query, document.parameters ?? {}, {
        zone: document.zone || 'UTC',
        calendar: document.schedule?.calendar ?? null,
      }),
  })
  const query = asked.data?.document
  if (!query) return <p className="quiet mb-0">{t('editor.select_a_query_to_see')}</p>
  return (
    <>
      <div className="d-flex justify-content-between gap-2 flex-wrap">
        <span>
          <Link to={`/queries/${query.name}`}>{query.title}</Link>{' '}
          <span className="quiet">{t('editor.on', { source: query.source })}</span>
        </span>
        <Button size="sm" variant="plain" disabled={run.isPending} onClick={() => run.mutate(query)}>
          {run.isPending ? t('shared.running') : t('editor.show_rows')}
        </Button>
      </div>
      <div role="status">
        <Refusal error={run.error} />
        {run.data && (
          <>
            <p className="mt-2 mb-0">
              {rich('editor.row_in_ms', {
                strong: (inner) => <strong>{inner}</strong>,
                rowsRead: run.data.rowsRead,
                tookMillis: numberWords(run.data.tookMillis),
              })}
            </p>
            {run.data.rows.length > 0 && (
              <RowsTable
                query={document.query}
                ran={run.data}
                most={shownRows}
                {...(!document.per && {
                  onCell: (index: number, cell: string | null) => {
                    const column = run.data.columns[index]
                    if (column) setPicked({ column, cell })
                  },
                })}
              />
            )}
            {picked ? (
              <CellStarts
                picked={picked}
                onStart={(part) => {
                  onStart(part)
                  setPicked(null)
                }}
              />
            ) : (
              !document.per &&
              run.data.rows.length > 0 && <p className="small quiet mt-1 mb-0">{t('editor.select_a_cell')}</p>
            )}
          </>
        )}
      </div>
    </>
  )
}
