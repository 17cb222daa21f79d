import { Button, Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { rich, t } from '../../messages'
import type { Parameter, Table } from './api'
import { FilterFields } from './FilterFields'
import {
  columnsOf,
  placeName,
  places,
  reachedFrom,
  sqlOf,
  startingWith,
  tableQueryOf,
  withColumn,
  withoutTable,
  type TableQuery,
  type UsedTable,
} from './tableQuery'

type Parameters = Record<string, Parameter>

const fullName = ({ schema, name }: { schema: string; name: string }) =>
  schema === 'public' ? name : `${schema}.${name}`

/** A table with its columns, filters and order; they and the SQL below them are the same query. */
export function TableFields({
  sql,
  tables,
  parameters,
  onChange,
}: {
  sql: string
  tables: Table[]
  parameters: Parameters
  onChange: (sql: string, parameters: Parameters) => void
}) {
  if (tables.length === 0) return null
  const query = sql.trim() === '' ? null : tableQueryOf(sql, tables)
  if (query !== null && 'unfit' in query) {
    return (
      <p className="small quiet mt-3 mb-0">
        {rich('queries.sql_has_no_fields', { code: (inner) => <code>{inner}</code>, unfit: query.unfit || '…' })}
      </p>
    )
  }
  const change = (next: TableQuery, given: Parameters = parameters) => onChange(sqlOf(next), given)
  const first = query?.tables[0]
  const start = (name: string) => {
    const table = tables.find((each) => fullName(each) === name)
    if (table) change(startingWith(table))
  }
  const reached = query ? reachedFrom(query, tables) : []
  return (
    <fieldset className="mt-3">
      <legend>{t('queries.table_and_columns')}</legend>
      <div className="fields">
        <Choice
          id="table"
          label={t('queries.table')}
          value={first ? fullName(first) : ''}
          options={[
            ...(first ? [] : [['', t('queries.select_a_table')] as const]),
            ...tables.map((each) => [fullName(each), fullName(each)] as const),
          ]}
          onChange={start}
        />
        {reached.length > 0 && query && (
          <Choice
            id="related"
            label={t('queries.add_columns_of_related')}
            value=""
            options={[
              ['', t('queries.select_a_table')],
              ...reached.map(
                ({ table, from, columns }) =>
                  [
                    table.as,
                    t('queries.table_by_key', { table: fullName(table), from, columns: columns.join(', ') }),
                  ] as const,
              ),
            ]}
            onChange={(as) => {
              const added = reached.find(({ table }) => table.as === as)
              if (added) change({ ...query, tables: [...query.tables, added.table] })
            }}
          />
        )}
      </div>
      {query === null ? (
        <p className="small quiet mt-1 mb-0">{t('queries.or_write_sql_below')}</p>
      ) : (
        <>
          {query.tables.map((used) => (
            <Columns key={used.as} used={used} query={query} tables={tables} onChange={(next) => change(next)} />
          ))}
          <FilterFields query={query} tables={tables} parameters={parameters} onChange={change} />
          <Order query={query} tables={tables} onChange={(next) => change(next)} />
        </>
      )}
    </fieldset>
  )
}

function Columns({
  used,
  query,
  tables,
  onChange,
}: {
  used: UsedTable
  query: TableQuery
  tables: Table[]
  onChange: (query: TableQuery) => void
}) {
  const columns = columnsOf(used, tables)
  const isChosen = (column: string) => query.columns.some((each) => each.of === used.as && each.column === column)
  const setAll = (chosen: boolean) =>
    onChange(
      columns.reduce(
        (next, { name }) =>
          isChosen(name) === chosen ? next : withColumn(next, { of: used.as, column: name }, chosen),
        query,
      ),
    )
  const isFirst = used === query.tables[0]
  return (
    <div className="mt-2" role="group" aria-label={t('queries.columns_of', { table: used.as })}>
      <div className="d-flex gap-3 flex-wrap align-items-baseline small">
        <strong>{t('queries.columns_of', { table: used.as })}</strong>
        <Button variant="link" size="sm" className="p-0" onClick={() => setAll(true)}>
          {t('queries.select_all')}
        </Button>
        <Button variant="link" size="sm" className="p-0" onClick={() => setAll(false)}>
          {t('queries.clear_selection')}
        </Button>
        {!isFirst && (
          <Button variant="link" size="sm" className="p-0" onClick={() => onChange(withoutTable(query, used.as))}>
            {t('queries.remove_table', { table: used.as })}
          </Button>
        )}
      </div>
      <div className="table-columns">
        {columns.map(({ name, type }) => (
          <Form.Check
            key={name}
            id={`column-${used.as}-${name}`}
            label={
              <>
                {name} <span className="quiet">{type}</span>
              </>
            }
            checked={isChosen(name)}
            onChange={(event) => onChange(withColumn(query, { of: used.as, column: name }, event.target.checked))}
          />
        ))}
      </div>
    </div>
  )
}

function Order({
  query,
  tables,
  onChange,
}: {
  query: TableQuery
  tables: Table[]
  onChange: (query: TableQuery) => void
}) {
  const all = places(query, tables)
  const named = (name: string) => all.find((each) => placeName(query, each) === name)
  const set = (index: number, part: Partial<TableQuery['order'][number]>) =>
    onChange({ ...query, order: query.order.map((each, at) => (at === index ? { ...each, ...part } : each)) })
  return (
    <div className="mt-2 d-flex gap-2 flex-wrap align-items-end">
      {query.order.map((each, index) => (
        <div key={index} className="d-flex gap-2 flex-wrap align-items-end">
          <Choice
            id={`order-${index}`}
            label={index === 0 ? t('queries.order_by') : t('queries.then_by')}
            value={placeName(query, each)}
            options={[
              ['', t('shared.remove')],
              ...all.map((one) => [placeName(query, one), placeName(query, one)] as const),
            ]}
            onChange={(name) => {
              const place = named(name)
              if (place) set(index, { of: place.of, column: place.column })
              else onChange({ ...query, order: query.order.filter((_, at) => at !== index) })
            }}
          />
          <Choice
            id={`direction-${index}`}
            label={t('queries.direction')}
            hiddenLabel
            value={each.descending ? 'down' : 'up'}
            options={[
              ['up', t('queries.ascending')],
              ['down', t('queries.descending')],
            ]}
            onChange={(way) => set(index, { descending: way === 'down' })}
          />
        </div>
      ))}
      <Choice
        id="order-next"
        label={query.order.length === 0 ? t('queries.order_by') : t('queries.then_by')}
        value=""
        options={[
          ['', query.order.length === 0 ? t('queries.no_order') : t('queries.nothing_more')],
          ...all.map((one) => [placeName(query, one), placeName(query, one)] as const),
        ]}
        onChange={(name) => {
          const place = named(name)
          if (place) {
            onChange({ ...query, order: [...query.order, { of: place.of, column: place.column, descending: false }] })
          }
        }}
      />
    </div>
  )
}
