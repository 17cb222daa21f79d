import { Button, Form } from 'react-bootstrap'
import { numberWords } from '../../shared/words'
import type { ThresholdSummary } from '../thresholds/api'
import {
  columnNamed,
  isMoment,
  literal,
  unquoted,
  type Operand,
  type Part,
  type Relative,
  type Simple,
} from './builder'
import type { Offered } from './offered'
import { LengthFields, RelativeFields, WindowFields } from './TimeFields'
import { Value, Values } from './ValueFields'
import { lookingFor, lookOf, verbOf, verbs, verbsFor, withColumn, withVerb } from './verbs'
import { t } from '../../messages'

export type Known = { columns: Offered[]; thresholds: ThresholdSummary[] }

/** The fields of one part of a condition; a part that has none is edited as it is written. */
export function PartFields({
  part,
  index,
  columns,
  thresholds,
  onChange,
}: Known & { part: Part; index: number; onChange: (part: Part) => void }) {
  const name = t('editor.part', { index: index + 1 })
  switch (part.is) {
    case 'text':
      return (
        <Form.Control
          size="sm"
          className="font-monospace"
          aria-label={t('editor.as_it_is_written', { name })}
          defaultValue={part.text}
          key={part.text}
          onBlur={(event) =>
            event.target.value.trim() !== part.text &&
            event.target.value.trim() !== '' &&
            onChange({ is: 'text', text: event.target.value.trim() })
          }
        />
      )
    case 'either':
      return (
        <div>
          {part.parts.map((each, i) => (
            <div key={i} className="d-flex gap-1 align-items-start mb-1">
              <span className="quiet small pt-1">{i === 0 ? t('editor.either') : t('editor.or')}</span>
              <SimpleFields
                name={`${name}.${i + 1}`}
                part={each}
                columns={columns}
                thresholds={thresholds}
                onChange={(next) =>
                  onChange({ is: 'either', parts: part.parts.map((old, j) => (j === i ? next : old)) })
                }
              />
              {part.parts.length > 1 && (
                <Button
                  size="sm"
                  variant="plain"
                  className="x"
                  aria-label={t('editor.remove_item', { name, i: i + 1 })}
                  onClick={() => {
                    const left = part.parts.filter((_, j) => j !== i)
                    onChange(left.length === 1 && left[0] ? left[0] : { is: 'either', parts: left })
                  }}
                >
                  ✕
                </Button>
              )}
            </div>
          ))}
          <Button
            size="sm"
            variant="plain"
            onClick={() => {
              const last = part.parts.at(-1)
              if (last) onChange({ is: 'either', parts: [...part.parts, last] })
            }}
          >
            {t('editor.add_or')}
          </Button>
        </div>
      )
    default:
      return <SimpleFields name={name} part={part} columns={columns} thresholds={thresholds} onChange={onChange} />
  }
}

function SimpleFields({
  name,
  part,
  columns,
  thresholds,
  onChange,
}: Known & { name: string; part: Simple; onChange: (part: Simple) => void }) {
  const now = columns.find((column) => column.name === part.column)
  // What is calculated in a way that is not offered is a number.
  const type = now?.type ?? (columnNamed(part.column) === null ? 'number' : 'text')
  return (
    <span className="d-inline-flex flex-wrap gap-1 align-items-center">
      <Form.Select
        size="sm"
        className="slot"
        aria-label={t('editor.column', { name })}
        value={part.column}
        onChange={(event) => {
          const next = columns.find(({ name: each }) => each === event.target.value)
          if (!next) return
          const fitting = part.is === 'reaches' && !next.measured ? withVerb(part, '>', type) : part
          onChange(withColumn(fitting, next.name, type, next.type))
        }}
      >
        {!columns.some((column) => column.name === part.column) && <option>{part.column}</option>}
        {columns.map((column) => (
          <option key={column.name} value={column.name}>
            {column.label}
          </option>
        ))}
      </Form.Select>
      <Form.Select
        size="sm"
        className="slot"
        aria-label={t('editor.comparison', { name })}
        value={verbOf(part)}
        onChange={(event) => {
          const verb = verbs.find(([code]) => code === event.target.value)?.[0]
          if (verb) onChange(withVerb(part, verb, type))
        }}
      >
        {verbsFor(type, verbOf(part), now?.measured).map(([code, words]) => (
          <option key={code} value={code}>
            {words}
          </option>
        ))}
      </Form.Select>
      {(part.is === 'compare' || part.is === 'reaches') && (
        <OperandFields
          name={name}
          operand={part.operand}
          column={part.column}
          measured={now?.measured ?? false}
          type={type}
          columns={columns}
          thresholds={thresholds}
          onChange={(operand) => onChange({ ...part, operand })}
        />
      )}
      {part.is === 'reaches' && (
        <>
          <span>{t('editor.within')}</span>
          <LengthFields
            name={name}
            amount={part.amount}
            unit={part.unit}
            least={1}
            type="timestamp"
            onChange={(length) => onChange({ ...part, ...length })}
          />
        </>
      )}
      {part.is === 'between' && (
        <>
          <Value
            name={t('editor.from', { name })}
            text={part.low}
            type={type}
            column={part.column}
            onChange={(low) => onChange({ ...part, low })}
          />
          <span>{t('editor.and')}</span>
          <Value
            name={t('editor.up_to', { name })}
            text={part.high}
            type={type}
            column={part.column}
            onChange={(high) => onChange({ ...part, high })}
          />
        </>
      )}
      {part.is === 'like' && <LookFields name={name} part={part} onChange={onChange} />}
      {part.is === 'within' && (
        <WindowFields
          name={name}
          window={part.window}
          type={type}
          onChange={(window) => onChange({ ...part, window })}
        />
      )}
      {part.is === 'in' && (
        <Values
          name={t('editor.values_with_commas', { name })}
          options={part.options}
          type={type}
          column={part.column}
          onChange={(options) => onChange({ ...part, options })}
        />
      )}
    </span>
  )
}

function LookFields({
  name,
  part,
  onChange,
}: {
  name: string
  part: Extract<Simple, { is: 'like' }>
  onChange: (part: Simple) => void
}) {
  const { way, text } = lookOf(part)
  return (
    <Value
      name={way === 'like' ? t('editor.pattern_for_anything', { name }) : t('editor.value', { name })}
      text={literal(text, 'text')}
      type="text"
      column={part.column}
      onChange={(typed) => onChange(lookingFor(part.column, way, unquoted(typed), part.negated))}
    />
  )
}

const codeOf = (operand: Operand) =>
  operand.kind === 'value' || operand.kind === 'relative' || operand.kind === 'usual'
    ? operand.kind
    : `${operand.kind} ${operand.name}`

const usualRelative = (type: string): Relative => ({
  base: type === 'date' ? 'today' : 'now',
  sign: '-',
  amount: 7,
  unit: 'days',
})

/** A day of this month is as good as any, and reads as a date at once. */
const usualText = (type: string) =>
  isMoment(type) ? literal(new Date().toISOString().slice(0, 10), type) : literal(type === 'number' ? '0' : '', type)

function OperandFields({
  name,
  operand,
  column,
  measured,
  type,
  columns,
  thresholds,
  onChange,
}: Known & {
  name: string
  operand: Operand
  column: string
  measured: boolean
  type: string
  onChange: (operand: Operand) => void
}) {
  const choose = (code: string) => {
    const [kind, rest] = [code.slice(0, code.indexOf(' ')), code.slice(code.indexOf(' ') + 1)] as const
    if (kind === 'column') onChange({ kind, name: rest })
    else if (kind === 'threshold')
      onChange({ kind, name: rest, key: thresholds.find((each) => each.name === rest)?.key ?? [] })
    else if (code === 'usual') onChange({ kind: 'usual', times: '1.5', name: column, last: 8 })
    else if (code === 'relative') onChange({ kind: 'relative', relative: usualRelative(type) })
    else onChange({ kind: 'value', text: usualText(type) })
  }
  return (
    <>
      <Form.Select
        size="sm"
        className="slot"
        aria-label={t('editor.compared_with', { name })}
        value={codeOf(operand)}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="value">{isMoment(type) ? t('editor.a_date') : t('editor.a_value')}</option>
        {(isMoment(type) || operand.kind === 'relative') && (
          <option value="relative">{t('editor.a_time_from_the_check')}</option>
        )}
        {(measured || operand.kind === 'usual') && <option value="usual">{t('editor.its_usual_value')}</option>}
        {type === 'number' &&
          thresholds.map((each) => (
            <option key={each.name} value={t('editor.threshold', { name: each.name })}>
              {t('editor.threshold_option', {
                title: each.title || each.name,
                number: each.number !== null && ` (${numberWords(each.number)})`,
              })}
            </option>
          ))}
        {operand.kind === 'threshold' &&
          !(type === 'number' && thresholds.some((each) => each.name === operand.name)) && (
            <option value={codeOf(operand)}>{t('editor.threshold', { name: operand.name })}</option>
          )}
        {columns
          .filter((column) => column.type === type)
          .map((column) => (
            <option key={column.name} value={t('editor.column_named', { name: column.name })}>
              {column.label}
            </option>
          ))}
        {operand.kind === 'column' &&
          !columns.some((column) => column.name === operand.name && column.type === type) && (
            <option value={codeOf(operand)}>{operand.name}</option>
          )}
      </Form.Select>
      {operand.kind === 'relative' && (
        <RelativeFields
          name={name}
          relative={operand.relative}
          type={type}
          onChange={(relative) => onChange({ kind: 'relative', relative })}
        />
      )}
      {operand.kind === 'usual' && (
        <>
          <span>{t('editor.times')}</span>
          <Value
            name={t('editor.times_of', { name })}
            text={operand.times}
            type="number"
            onChange={(times) => Number(times) > 0 && onChange({ ...operand, times })}
          />
          <span>{t('editor.of_the_last')}</span>
          <Value
            name={t('editor.checks_of', { name })}
            text={String(operand.last)}
            type="number"
            onChange={(last) => Number.isInteger(Number(last)) && onChange({ ...operand, last: Number(last) })}
          />
          <span>{t('editor.checks')}</span>
        </>
      )}
      {operand.kind === 'value' && (
        <Value
          name={t('editor.value', { name })}
          text={operand.text}
          type={type}
          column={column}
          onChange={(text) => onChange({ kind: 'value', text })}
        />
      )}
    </>
  )
}
