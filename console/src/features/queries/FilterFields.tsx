import { Button, Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { t } from '../../messages'
import type { Parameter, Table } from './api'
import {
  filterOperators,
  parameterFor,
  parameterTypeOf,
  placeName,
  places,
  type Filter,
  type FilterOperator,
  type TableQuery,
} from './tableQuery'

type Parameters = Record<string, Parameter>

const operatorWords: Record<FilterOperator, string> = {
  '=': t('queries.is'),
  '<>': t('queries.is_not'),
  '>': t('queries.is_above'),
  '>=': t('queries.is_at_least'),
  '<': t('queries.is_below'),
  '<=': t('queries.is_at_most'),
  in: t('queries.is_one_of'),
  'not in': t('queries.is_none_of'),
  'is null': t('queries.is_missing'),
  'is not null': t('queries.is_not_missing'),
}
const momentWords: Partial<Record<FilterOperator, string>> = {
  '>': t('queries.is_after'),
  '>=': t('queries.is_at_or_after'),
  '<': t('queries.is_before'),
  '<=': t('queries.is_at_or_before'),
}

const needsNone = (operator: FilterOperator) => operator === 'is null' || operator === 'is not null'
const isList = (operator: FilterOperator) => operator === 'in' || operator === 'not in'

const without = (parameter: Parameter, key: keyof Parameter): Parameter =>
  Object.fromEntries(Object.entries(parameter).filter(([each]) => each !== key))

/** The parameters that a query has still. */
const kept = (query: TableQuery, parameters: Parameters, before: TableQuery): Parameters => {
  const usedBy = (one: TableQuery) =>
    one.filters.flatMap(({ values }) => values.flatMap((each) => ('parameter' in each ? [each.parameter] : [])))
  const gone = usedBy(before).filter((name) => !usedBy(query).includes(name))
  return Object.fromEntries(Object.entries(parameters).filter(([name]) => !gone.includes(name)))
}

/**
 * The rows that are read: comparisons of a column, all of them true. The value that is typed is the default of a parameter, so
 * that a date may be relative and each rule may have its own.
 */
export function FilterFields({
  query,
  tables,
  parameters,
  onChange,
}: {
  query: TableQuery
  tables: Table[]
  parameters: Parameters
  onChange: (query: TableQuery, parameters: Parameters) => void
}) {
  const all = places(query, tables)
  const change = (filters: Filter[], given = parameters) => {
    const next = { ...query, filters }
    onChange(next, kept(next, given, query))
  }
  const put = (index: number, filter: Filter, given = parameters) =>
    change(
      query.filters.some((_, at) => at === index) ? query.filters.with(index, filter) : [...query.filters, filter],
      given,
    )
  /** With a parameter of its own, which has no value yet. */
  const begin = (index: number, name: string, operator: FilterOperator) => {
    const place = all.find((each) => placeName(query, each) === name)
    if (!place) {
      change(query.filters.filter((_, at) => at !== index))
      return
    }
    const bare: Filter = { of: place.of, column: place.column, operator, values: [] }
    if (needsNone(operator)) {
      put(index, bare)
      return
    }
    const { name: parameter, parameter: made } = parameterFor(bare, place.type, parameters)
    put(index, { ...bare, values: [{ parameter }] }, { ...parameters, [parameter]: made })
  }
  const columns = all.map((one) => [placeName(query, one), placeName(query, one)] as const)
  return (
    <div className="mt-2">
      {query.filters.map((filter, index) => {
        const type = all.find((each) => each.of === filter.of && each.column === filter.column)?.type ?? 'text'
        const isMoment = ['date', 'timestamp', 'instant'].includes(parameterTypeOf(type))
        return (
          <div key={index} className="d-flex gap-2 flex-wrap align-items-end mb-1">
            <Choice
              id={`filter-column-${index}`}
              label={index === 0 ? t('queries.only_rows_where') : t('queries.and')}
              value={placeName(query, filter)}
              options={columns}
              onChange={(name) => begin(index, name, isMoment ? '=' : filter.operator)}
            />
            <Choice
              id={`filter-operator-${index}`}
              label={t('queries.comparison')}
              hiddenLabel
              value={filter.operator}
              options={filterOperators.map(
                (each) => [each, (isMoment && momentWords[each]) || operatorWords[each]] as const,
              )}
              onChange={(operator) => {
                if (operator === '') return
                const [value] = filter.values
                if (needsNone(operator)) put(index, { ...filter, operator, values: [] })
                else if (value === undefined) begin(index, placeName(query, filter), operator)
                else if ('parameter' in value) {
                  const made = without(parameters[value.parameter] ?? {}, 'multiple')
                  if (isList(operator)) made.multiple = true
                  put(index, { ...filter, operator, values: [value] }, { ...parameters, [value.parameter]: made })
                } else put(index, { ...filter, operator, values: isList(operator) ? filter.values : [value] })
              }}
            />
            <FilterValue
              id={`filter-value-${index}`}
              filter={filter}
              isMoment={isMoment}
              parameters={parameters}
              onFilter={(next) => put(index, next)}
              onParameter={(name, parameter) => onChange(query, { ...parameters, [name]: parameter })}
            />
            <Button
              size="sm"
              variant="plain"
              aria-label={t('queries.remove_filter_on', { column: placeName(query, filter) })}
              onClick={() => change(query.filters.filter((_, at) => at !== index))}
            >
              {t('shared.remove')}
            </Button>
          </div>
        )
      })}
      <div className="d-inline-block">
        <Choice
          id="filter-next"
          label={query.filters.length === 0 ? t('queries.only_rows_where') : t('queries.and')}
          value=""
          options={[['', query.filters.length === 0 ? t('queries.all_rows') : t('queries.nothing_more')], ...columns]}
          onChange={(name) => name !== '' && begin(query.filters.length, name, '=')}
        />
      </div>
      {query.filters.length > 0 && <p className="small quiet mb-0">{t('queries.filter_values_are_parameters')}</p>}
    </div>
  )
}

function FilterValue({
  id,
  filter,
  isMoment,
  parameters,
  onFilter,
  onParameter,
}: {
  id: string
  filter: Filter
  isMoment: boolean
  parameters: Parameters
  onFilter: (filter: Filter) => void
  onParameter: (name: string, parameter: Parameter) => void
}) {
  const [value] = filter.values
  if (value === undefined) return null
  if (filter.values.length > 1) {
    return (
      <span className="small">
        {filter.values.map((each) => ('parameter' in each ? `:${each.parameter}` : each.constant)).join(', ')}
      </span>
    )
  }
  const label = 'parameter' in value ? t('queries.value_of', { parameter: value.parameter }) : t('queries.value')
  return (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Control
        size="sm"
        value={'parameter' in value ? (parameters[value.parameter]?.default ?? '') : value.constant}
        placeholder={
          isMoment ? t('queries.relative_date_example') : isList(filter.operator) ? t('editor.comma_separated') : ''
        }
        onChange={(event) => {
          const typed = event.target.value
          if ('parameter' in value) {
            const bare = without(parameters[value.parameter] ?? {}, 'default')
            onParameter(value.parameter, typed === '' ? bare : { ...bare, default: typed })
          } else if (value.isText || /^-?\d+(\.\d+)?$/.test(typed)) {
            onFilter({ ...filter, values: [{ ...value, constant: typed }] })
          }
        }}
      />
    </Form.Group>
  )
}
