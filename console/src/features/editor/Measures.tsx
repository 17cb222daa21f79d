import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { nameInCondition } from './builder'
import type { Column } from '../fields/parts'
import { queries } from '../queries/api'
import type { RuleDocument } from './api'
import { ConditionField } from './ConditionField'
import { freshName, measureKinds, measureOf, measureText, needsColumn, needsNumbers, withKind } from './measures'
import { t } from '../../messages'

type Measure = NonNullable<RuleDocument['measures']>[string]
type Parts = Exclude<Measure, string>

const partsOf = (measure: Measure): Parts => (typeof measure === 'string' ? { value: measure } : measure)

/** A measure that says no more than its calculation is that alone, as the service writes it. */
const written = ({ value, label, unit }: { value: string; label?: string | undefined; unit?: string | undefined }) =>
  label || unit ? { value, ...(label ? { label } : {}), ...(unit ? { unit } : {}) } : value

type Props = {
  document: RuleDocument
  columns: Column[]
  onChange: (part: Partial<RuleDocument>) => void
}

/** What is calculated of each group, and the groups that are there without rows. */
export function Measures({ document, columns, onChange }: Props) {
  const measures = document.measures ?? {}
  const names = Object.keys(measures)
  const put = (name: string, measure: Measure) => onChange({ measures: { ...measures, [name]: measure } })
  const add = () => {
    const fresh = names.length === 0 ? measureOf('count()') : withKind(measureOf('count()'), 'sum', choices(columns))
    const usable = needsColumn(fresh.kind) && fresh.column === '' ? measureOf('count()') : fresh
    put(freshName(usable, [...names, ...columns.map(({ name }) => name)]), measureText(usable))
  }
  return (
    <fieldset className="mt-2 mb-2">
      <legend className="small">{t('editor.measures')}</legend>
      {names.map((name, index) => (
        <MeasureFields
          key={name}
          name={name}
          document={document}
          columns={columns}
          earlier={Object.fromEntries(names.slice(0, index).map((each) => [each, partsOf(measures[each] ?? '').value]))}
          measure={partsOf(measures[name] ?? '')}
          onChange={(measure) => put(name, measure)}
          onRemove={() =>
            onChange({ measures: Object.fromEntries(Object.entries(measures).filter(([n]) => n !== name)) })
          }
        />
      ))}
      <Button size="sm" variant="plain" onClick={add}>
        {t('editor.add_measure')}
      </Button>
      <ExpectedGroups document={document} onChange={onChange} />
    </fieldset>
  )
}

const choices = (columns: Column[]) => columns.map(({ name, type }) => ({ name: nameInCondition(name), type }))

function MeasureFields({
  name,
  document,
  columns,
  earlier,
  measure,
  onChange,
  onRemove,
}: {
  name: string
  document: RuleDocument
  columns: Column[]
  earlier: Record<string, string>
  measure: Parts
  onChange: (measure: Measure) => void
  onRemove: () => void
}) {
  const measured = measureOf(measure.value)
  const { kind, where } = measured
  const calculate = (next: typeof measured) => onChange(written({ ...measure, value: measureText(next) }))
  const offered = columns.filter(({ type }) => !needsNumbers(kind) || type === 'number')
  const known = offered.some((column) => nameInCondition(column.name) === measured.column)
  const place = { per: document.per, measures: earlier }
  return (
    <div className="measure" role="group" aria-label={measure.label ?? name}>
      <div className="fields">
        <Choice
          id={`measure-kind-${name}`}
          label={t('editor.measure_calculation')}
          value={kind}
          options={measureKinds}
          onChange={(next) => next && calculate(withKind(measured, next, choices(columns)))}
        />
        {needsColumn(kind) && (
          <Choice
            id={`measure-column-${name}`}
            label={t('editor.measure_column')}
            value={measured.column}
            options={[
              ...(known ? [] : [[measured.column, measured.column] as const]),
              ...offered.map((column) => [nameInCondition(column.name), column.label] as const),
            ]}
            onChange={(column) => calculate({ ...measured, column })}
          />
        )}
        {kind === 'percentile' && (
          <Form.Group controlId={`measure-percent-${name}`}>
            <Form.Label className="mb-0 small quiet">{t('editor.measure_percent')}</Form.Label>
            <Form.Control
              size="sm"
              type="number"
              min={0}
              max={100}
              value={measured.percent}
              onChange={(event) => event.target.value && calculate({ ...measured, percent: event.target.value })}
            />
          </Form.Group>
        )}
        <Form.Group controlId={`measure-label-${name}`}>
          <Form.Label className="mb-0 small quiet">{t('editor.measure_label')}</Form.Label>
          <Form.Control
            size="sm"
            placeholder={name.replaceAll('_', ' ')}
            value={measure.label ?? ''}
            onChange={(event) => onChange(written({ ...measure, label: event.target.value }))}
          />
        </Form.Group>
        <Form.Group controlId={`measure-unit-${name}`}>
          <Form.Label className="mb-0 small quiet">{t('editor.measure_unit')}</Form.Label>
          <Form.Control
            size="sm"
            placeholder={t('shared.none')}
            value={measure.unit ?? ''}
            onChange={(event) => onChange(written({ ...measure, unit: event.target.value }))}
          />
        </Form.Group>
      </div>
      {kind === 'formula' ? (
        <ConditionField
          label={t('editor.measure_formula_of', { name })}
          query={document.query}
          place={{ ...place, place: 'measure' }}
          value={where}
          onChange={(text) => calculate({ ...measured, where: text })}
        />
      ) : (
        <details className="entry" open={where !== ''}>
          <summary className="small">
            {kind === 'share' ? t('editor.measure_share_where') : t('editor.measure_only_rows')}
          </summary>
          <ConditionField
            label={kind === 'share' ? t('editor.measure_share_where') : t('editor.measure_only_rows_where')}
            query={document.query}
            place={{}}
            value={where}
            onChange={(text) => calculate({ ...measured, where: text })}
          />
        </details>
      )}
      <p className="small quiet mb-0">
        {t('editor.measure_name', { name })}{' '}
        <Button
          size="sm"
          variant="plain"
          onClick={onRemove}
          aria-label={t('editor.remove', { name: measure.label ?? name })}
        >
          {t('shared.remove')}
        </Button>
      </p>
    </div>
  )
}

const lastChecks = /^last (\d+) checks?$/

/** Groups that are evaluated even if no row is theirs. */
function ExpectedGroups({ document, onChange }: Pick<Props, 'document' | 'onChange'>) {
  const all = useQuery(queries)
  const expected = document.expected_groups ?? ''
  const [, checks] = lastChecks.exec(expected) ?? []
  const how = expected === '' ? '' : checks ? 'checks' : 'query'
  const others = (all.data ?? []).filter((query) => query.name !== document.query)
  const put = (text: string | undefined) => onChange({ expected_groups: text } as Partial<RuleDocument>)
  if ((document.per ?? []).length === 0) return null
  return (
    <div className="fields mt-2">
      <Choice
        id="expected-groups"
        label={t('editor.expected_groups')}
        value={how}
        options={[
          ['', t('editor.expected_groups_none')],
          ['checks', t('editor.expected_groups_checks')],
          ...(others.length > 0 || how === 'query' ? [['query', t('editor.expected_groups_query')] as const] : []),
        ]}
        onChange={(next) =>
          put(next === '' ? undefined : next === 'checks' ? 'last 5 checks' : (others[0]?.name ?? ''))
        }
      />
      {how === 'checks' && (
        <Form.Group controlId="expected-groups-checks">
          <Form.Label className="mb-0 small quiet">{t('editor.expected_groups_how_many')}</Form.Label>
          <Form.Control
            size="sm"
            type="number"
            min={1}
            value={checks ?? ''}
            onChange={(event) => event.target.value && put(`last ${event.target.value} checks`)}
          />
        </Form.Group>
      )}
      {how === 'query' && (
        <Choice
          id="expected-groups-query"
          label={t('shared.query')}
          value={expected}
          options={[
            ...(others.some((query) => query.name === expected) ? [] : [[expected, expected] as const]),
            ...others.map((query) => [query.name, query.title || query.name] as const),
          ]}
          onChange={put}
        />
      )}
    </div>
  )
}
