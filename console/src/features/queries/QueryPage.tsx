import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { Link, useNavigate, useParams } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { CodeField } from '../../shared/CodeField'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { useKept } from '../../shared/kept'
import { nameFrom } from '../../shared/names'
import { useTitle } from '../../shared/title'
import { TypedHere } from '../../shared/TypedHere'
import { Retire } from '../archive/Retire'
import { useRetired } from '../archive/retired'
import { RetiredNote } from '../archive/RetiredNote'
import { SaveFields } from '../documents/SaveFields'
import { SharedBelongingFields } from '../fields/Belonging'
import { edited } from '../fields/parts'
import { Overtaken } from '../revisions/Overtaken'
import { RevisionsPanel } from '../revisions/RevisionsPanel'
import { sources } from '../setup/api'
import { queries, queryDocument, saveQuery, tablesOf, type QueryDocument, type Table } from './api'
import { ColumnsEditor } from './ColumnsEditor'
import { ParametersEditor } from './ParametersEditor'
import { newRuleOf } from './newRule'
import { RunPanel } from './RunPanel'
import { TableFields } from './TableFields'
import { UsedBy } from './UsedBy'
import { rich, t } from '../../messages'

export function QueryPage() {
  const { name = '' } = useParams()
  const found = useQuery(queryDocument(name))
  return (
    <Loaded query={found} what={t('loading.the_query')}>
      {(data) => <Editor key={name} saved={data.document} revision={data.revision} />}
    </Loaded>
  )
}

export function NewQueryPage() {
  const known = useQuery(sources)
  return (
    <Loaded query={known} what={t('loading.the_sources')}>
      {(list) =>
        list[0] === undefined ? (
          <p className="sheet">
            {rich('queries.no_sources_yet_an_operator', { code: (inner) => <code>{inner}</code> })}
          </p>
        ) : (
          <Editor saved={{ kind: 'query', name: '', title: '', source: list[0].name, sql: '' }} revision={0} />
        )
      }
    </Loaded>
  )
}

/** Tables of the usual schema by their own name, others with their schema's. */
const offered = (tables: Table[]) =>
  Object.fromEntries(
    tables.map((table) => [
      table.schema === 'public' ? table.name : `${table.schema}.${table.name}`,
      table.columns.map((column) => column.name),
    ]),
  )

function Editor({ saved, revision }: { saved: QueryDocument; revision: number }) {
  const isNew = revision === 0
  useTitle(isNew ? t('queries.new_query') : saved.title)
  const typed = useKept<QueryDocument>(`query/${saved.name}`, saved, revision)
  const document = typed.value
  const retired = useRetired('query', saved.name)
  const [reason, setReason] = useState('')
  const [tried, setTried] = useState<Record<string, string>>({})
  const [returned, setReturned] = useState<string[]>([])
  const known = useQuery(sources)
  const others = useQuery(queries)
  const tables = useQuery({ ...tablesOf(document.source), enabled: document.source !== '' })
  const client = useQueryClient()
  const go = useNavigate()
  const change = (part: Partial<QueryDocument>) => typed.change((before) => ({ ...before, ...part }))
  const save = useMutation({
    mutationFn: () => saveQuery(document, reason, typed.base),
    onSuccess: async (kept) => {
      typed.reset(document, kept.revision)
      setReason('')
      await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'documents' })
      if (isNew) await go(`/queries/${kept.name}`, { replace: true })
    },
  })
  const columns =
    returned.length > 0 ? returned : (others.data?.find((query) => query.name === saved.name)?.columns ?? [])
  return (
    <>
      <div className="head">
        <div>
          <h1>{isNew ? t('queries.new_query') : saved.title}</h1>
          <span className="quiet">
            {isNew ? (
              t('queries.one_select_on_a_source')
            ) : (
              <>
                {rich('queries.revision_all_queries_edit_as', {
                  code: (inner) => <code>{inner}</code>,
                  name: saved.name,
                  base: typed.base,
                  link: (inner) => <Link to="/queries">{inner}</Link>,
                  link2: (inner) => <Link to={`/documents/query/${saved.name}`}>{inner}</Link>,
                })}
              </>
            )}
          </span>
        </div>
        {!isNew && !retired && (
          <Link className="btn btn-plain" to={newRuleOf(saved.name, tried)}>
            {t('queries.create_rule')}
          </Link>
        )}
      </div>
      <RetiredNote retired={retired} />
      <TypedHere typed={typed} onDiscard={() => typed.reset(saved, revision)} />
      {!isNew && <Overtaken kind="query" name={saved.name} base={typed.base} onSeen={typed.setBase} />}
      <div className="two wide-left">
        <section className="sheet">
          <Form
            onSubmit={(event) => {
              event.preventDefault()
              save.mutate()
            }}
          >
            <div className="fields">
              <Form.Group controlId="title">
                <Form.Label className="mb-0 small quiet">{t('shared.title')}</Form.Label>
                <Form.Control
                  value={document.title}
                  required
                  onChange={(event) =>
                    change({
                      title: event.target.value,
                      ...(isNew && (document.name === '' || document.name === nameFrom(document.title))
                        ? { name: nameFrom(event.target.value) }
                        : {}),
                    })
                  }
                />
              </Form.Group>
              {isNew && (
                <Form.Group controlId="name">
                  <Form.Label className="mb-0 small quiet">{t('shared.name_for_urls_and_commands')}</Form.Label>
                  <Form.Control
                    value={document.name}
                    required
                    pattern="[a-z0-9][a-z0-9_\-]{0,79}"
                    onChange={(event) => change({ name: event.target.value })}
                  />
                </Form.Group>
              )}
              <Form.Group controlId="source">
                <Form.Label className="mb-0 small quiet">{t('shared.source')}</Form.Label>
                <Form.Select value={document.source} onChange={(event) => change({ source: event.target.value })}>
                  {[...new Set([document.source, ...(known.data ?? []).map((source) => source.name)])].map((each) => (
                    <option key={each}>{each}</option>
                  ))}
                </Form.Select>
              </Form.Group>
              <SharedBelongingFields
                value={document}
                onChange={(part) => typed.change((before) => edited(before, part))}
              />
              <Form.Group controlId="categories">
                <Form.Label className="mb-0 small quiet">{t('queries.categories_comma_separated')}</Form.Label>
                <Form.Control
                  key={document.id ?? 'new'}
                  defaultValue={document.categories?.join(', ') ?? ''}
                  list="known-categories"
                  onBlur={(event) =>
                    change({
                      categories: event.target.value
                        .split(',')
                        .map((each) => each.trim())
                        .filter(Boolean),
                    })
                  }
                />
                <datalist id="known-categories">
                  {[...new Set((others.data ?? []).flatMap((query) => query.categories))].map((each) => (
                    <option key={each}>{each}</option>
                  ))}
                </datalist>
              </Form.Group>
            </div>
            {tables.data && (
              <TableFields
                sql={document.sql}
                tables={tables.data.tables}
                parameters={document.parameters ?? {}}
                onChange={(sql, parameters) => change({ sql, parameters })}
              />
            )}
            <div className="mt-3">
              <div className="small quiet mb-1">
                {t('queries.sql_ctrl_space_suggestions')}
                {tables.error && <span className="problem-text"> {tables.error.message}</span>}
              </div>
              <CodeField
                label={t('queries.sql')}
                language="sql"
                value={document.sql}
                onChange={(sql) => change({ sql })}
                tables={offered(tables.data?.tables ?? [])}
              />
            </div>
            <ParametersEditor
              parameters={document.parameters ?? {}}
              sql={document.sql}
              queries={(others.data ?? []).map((query) => query.name).filter((each) => each !== saved.name)}
              onChange={(parameters) => change({ parameters })}
            />
            <ColumnsEditor
              key={columns.join()}
              names={columns}
              columns={document.columns ?? {}}
              onChange={(next) => change({ columns: next })}
            />
            {!retired && (
              <SaveFields
                owner={isNew ? undefined : saved.owner}
                reason={reason}
                onReason={setReason}
                disabled={save.isPending}
                saving={save.isPending}
              />
            )}
          </Form>
          <div role="status">
            <Refusal error={save.error} />
            {save.isSuccess && !typed.dirty && (
              <p className="callout mt-2 mb-0">
                {save.data.changed
                  ? t('shared.saved_as_revision', { revision: save.data.revision })
                  : t('shared.no_changes_to_save')}
                {save.data.warnings.map((warning, index) => (
                  <span key={index}> {t('queries.warning', { message: warning.message })}</span>
                ))}
              </p>
            )}
          </div>
        </section>
        <div>
          <RunPanel
            document={document}
            saved={!isNew}
            values={tried}
            onValues={setTried}
            onRan={(ran) => setReturned(ran.columns.map((column) => column.name))}
          />
          {!isNew && <UsedBy document={document} />}
          {!isNew && (
            <RevisionsPanel
              kind="query"
              name={saved.name}
              onRestored={() => {
                typed.forget()
                client.removeQueries({ queryKey: ['documents', 'query', saved.name] })
                void go(0)
              }}
            />
          )}
          {!isNew && <Retire kind="query" name={saved.name} owner={saved.owner} />}
          {tables.data && <Tables tables={tables.data.tables} more={tables.data.more} />}
        </div>
      </div>
    </>
  )
}

function Tables({ tables, more }: { tables: Table[]; more: boolean }) {
  return (
    <section className="sheet">
      <h2>{t('queries.tables_and_columns')}</h2>
      {tables.map((table) => (
        <details key={`${table.schema}.${table.name}`} className="entry">
          <summary>
            {table.schema !== 'public' && `${table.schema}.`}
            {table.name}{' '}
            <span className="small quiet">{t('queries.count_columns', { columns: table.columns.length })}</span>
          </summary>
          <ul className="list-unstyled small mb-0 ms-3">
            {table.columns.map((column) => (
              <li key={column.name}>
                <code>{column.name}</code> <span className="quiet">{column.type}</span>
              </li>
            ))}
          </ul>
        </details>
      ))}
      {more && <p className="small quiet mb-0">{t('queries.the_list_is_not_complete')}</p>}
    </section>
  )
}
