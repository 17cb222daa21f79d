import { Button, Form } from 'react-bootstrap'
import type { PartCount } from '../../api/types'
import { useTyped } from '../../shared/typed'
import { numberWords, plural } from '../../shared/words'
import type { ThresholdSummary } from '../thresholds/api'
import { literal, operators, unquoted, type Operand, type Operator, type Part, type Simple } from './builder'

export type Column = { name: string; label: string; type: string }
type Known = { columns: Column[]; thresholds: ThresholdSummary[] }

type Props = Known & {
  /** Null where the text cannot be read just now. */
  parts: Part[] | null
  /** False while the text that they are of is still being read. */
  settled: boolean
  /** How many rows are left after each part, from the preview; null where it looked at another condition. */
  counts: PartCount[] | null
  total: number | null
  onChange: (parts: Part[]) => void
}

/** A condition as parts with fields. It never locks: a part that has no fields is edited as it is written. */
export function Builder({ parts, settled, counts, total, onChange, columns, thresholds }: Props) {
  if (parts === null) return settled ? <p className="small quiet mb-2">Fix the text to see the fields again.</p> : null
  const first = columns[0]
  const replace = (index: number, part: Part) => onChange(parts.map((each, i) => (i === index ? part : each)))
  const fresh: Simple =
    first?.type === 'number'
      ? { is: 'compare', column: first.name, operator: '>', operand: { kind: 'value', text: '0' } }
      : { is: 'missing', column: first?.name ?? '', negated: false }
  return (
    <fieldset className="builder" aria-label="Parts of the condition" disabled={!settled}>
      {parts.map((part, index) => (
        <div className="part" key={index}>
          <span className="quiet">{index > 0 && 'and'}</span>
          <PartFields
            part={part}
            index={index}
            columns={columns}
            thresholds={thresholds}
            onChange={(next) => replace(index, next)}
          />
          <Left count={counts?.[index]} total={total} />
          <Button
            size="sm"
            variant="plain"
            className="x"
            aria-label={`Remove part ${index + 1}`}
            onClick={() => onChange(parts.filter((_, i) => i !== index))}
          >
            ✕
          </Button>
        </div>
      ))}
      {first && (
        <div className="d-flex gap-2 more">
          <Button size="sm" variant="plain" onClick={() => onChange([...parts, fresh])}>
            and …
          </Button>
          <Button
            size="sm"
            variant="plain"
            onClick={() => onChange([...parts, { is: 'either', parts: [fresh, fresh] }])}
          >
            any of …
          </Button>
        </div>
      )}
    </fieldset>
  )
}

function Left({ count, total }: { count: PartCount | undefined; total: number | null }) {
  if (!count) return <span className="left" />
  const unknown = count.unknownRows ?? 0
  const share = total ? Math.max(2, Math.round((count.rowsLeft / total) * 84)) : 0
  return (
    <span className="left">
      <b>{numberWords(count.rowsLeft)}</b> match
      {share > 0 && <span className="bar" style={{ width: share }} />}
      {unknown > 0 && <span className="d-block problem-text">{plural(unknown, 'unknown', 'unknown')}</span>}
    </span>
  )
}

function PartFields({
  part,
  index,
  columns,
  thresholds,
  onChange,
}: Known & { part: Part; index: number; onChange: (part: Part) => void }) {
  const name = `Part ${index + 1}`
  switch (part.is) {
    case 'text':
      return (
        <Form.Control
          size="sm"
          className="font-monospace"
          aria-label={`${name}, as it is written`}
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
              <span className="quiet small pt-1">{i === 0 ? 'either' : 'or'}</span>
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
                  aria-label={`Remove ${name}.${i + 1}`}
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
            or …
          </Button>
        </div>
      )
    default:
      return <SimpleFields name={name} part={part} columns={columns} thresholds={thresholds} onChange={onChange} />
  }
}

type Verb =
  | Operator
  | 'missing'
  | 'not missing'
  | 'empty'
  | 'not empty'
  | 'in'
  | 'not in'
  | 'between'
  | 'not between'
  | 'like'
  | 'not like'

const verbs: [Verb, string, (type: string) => boolean][] = [
  ...operators.map(([code, words]): [Verb, string, (type: string) => boolean] => [
    code,
    words,
    (type) => type !== 'bytes',
  ]),
  ['between', 'is between', (type) => type !== 'truth'],
  ['not between', 'is not between', (type) => type !== 'truth'],
  ['missing', 'is missing', () => true],
  ['not missing', 'is not missing', () => true],
  ['empty', 'is missing or empty', (type) => type === 'text'],
  ['not empty', 'is neither missing nor empty', (type) => type === 'text'],
  ['in', 'is one of', (type) => type !== 'truth'],
  ['not in', 'is none of', (type) => type !== 'truth'],
  ['like', 'is like', (type) => type === 'text'],
  ['not like', 'is not like', (type) => type === 'text'],
]

function verbOf(part: Simple): Verb {
  if (part.is === 'compare') return part.operator
  return part.negated ? `not ${part.is}` : part.is
}

function withVerb(part: Simple, verb: Verb, type: string): Simple {
  const { column } = part
  const value =
    part.is === 'compare' && part.operand.kind === 'value'
      ? part.operand.text
      : part.is === 'in'
        ? (part.options[0] ?? '0')
        : part.is === 'between'
          ? part.low
          : literal(type === 'number' ? '0' : '', type)
  switch (verb) {
    case 'missing':
    case 'not missing':
      return { is: 'missing', column, negated: verb !== 'missing' }
    case 'empty':
    case 'not empty':
      return { is: 'empty', column, negated: verb !== 'empty' }
    case 'in':
    case 'not in':
      return { is: 'in', column, options: part.is === 'in' ? part.options : [value], negated: verb !== 'in' }
    case 'between':
    case 'not between':
      return {
        is: 'between',
        column,
        low: value,
        high: part.is === 'between' ? part.high : value,
        negated: verb !== 'between',
      }
    case 'like':
    case 'not like':
      return { is: 'like', column, pattern: part.is === 'like' ? part.pattern : "'%'", negated: verb !== 'like' }
    default:
      return {
        is: 'compare',
        column,
        operator: verb,
        operand: part.is === 'compare' ? part.operand : { kind: 'value', text: value },
      }
  }
}

function SimpleFields({
  name,
  part,
  columns,
  thresholds,
  onChange,
}: Known & { name: string; part: Simple; onChange: (part: Simple) => void }) {
  const type = columns.find((column) => column.name === part.column)?.type ?? 'text'
  return (
    <span className="d-inline-flex flex-wrap gap-1 align-items-center">
      <Form.Select
        size="sm"
        className="slot"
        aria-label={`${name}: column`}
        value={part.column}
        onChange={(event) => onChange({ ...part, column: event.target.value })}
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
        aria-label={`${name}: comparison`}
        value={verbOf(part)}
        onChange={(event) => {
          const verb = verbs.find(([code]) => code === event.target.value)?.[0]
          if (verb) onChange(withVerb(part, verb, type))
        }}
      >
        {verbs
          .filter(([code, , fits]) => fits(type) || code === verbOf(part))
          .map(([code, words]) => (
            <option key={code} value={code}>
              {words}
            </option>
          ))}
      </Form.Select>
      {part.is === 'compare' && (
        <OperandFields
          name={name}
          operand={part.operand}
          type={type}
          columns={columns}
          thresholds={thresholds}
          onChange={(operand) => onChange({ ...part, operand })}
        />
      )}
      {part.is === 'between' && (
        <>
          <Value name={`${name}: from`} text={part.low} type={type} onChange={(low) => onChange({ ...part, low })} />
          <span>and</span>
          <Value
            name={`${name}: up to`}
            text={part.high}
            type={type}
            onChange={(high) => onChange({ ...part, high })}
          />
        </>
      )}
      {part.is === 'like' && (
        <Value
          name={`${name}: pattern, % for anything`}
          text={part.pattern}
          type="text"
          onChange={(pattern) => onChange({ ...part, pattern })}
        />
      )}
      {part.is === 'in' && (
        <Several
          name={`${name}: values, with commas`}
          options={part.options}
          type={type}
          onChange={(options) => onChange({ ...part, options })}
        />
      )}
    </span>
  )
}

const codeOf = (operand: Operand) => (operand.kind === 'value' ? 'value' : `${operand.kind} ${operand.name}`)

function OperandFields({
  name,
  operand,
  type,
  columns,
  thresholds,
  onChange,
}: Known & { name: string; operand: Operand; type: string; onChange: (operand: Operand) => void }) {
  const choose = (code: string) => {
    const [kind, rest] = [code.slice(0, code.indexOf(' ')), code.slice(code.indexOf(' ') + 1)] as const
    if (kind === 'column') onChange({ kind, name: rest })
    else if (kind === 'threshold')
      onChange({ kind, name: rest, key: thresholds.find((each) => each.name === rest)?.key ?? [] })
    else onChange({ kind: 'value', text: literal(type === 'number' ? '0' : '', type) })
  }
  return (
    <>
      <Form.Select
        size="sm"
        className="slot"
        aria-label={`${name}: compared with`}
        value={codeOf(operand)}
        onChange={(event) => choose(event.target.value)}
      >
        <option value="value">a value</option>
        {type === 'number' &&
          thresholds.map((each) => (
            <option key={each.name} value={`threshold ${each.name}`}>
              threshold {each.title || each.name}
              {each.number !== null && ` (${numberWords(each.number)})`}
            </option>
          ))}
        {operand.kind === 'threshold' &&
          !(type === 'number' && thresholds.some((each) => each.name === operand.name)) && (
            <option value={codeOf(operand)}>threshold {operand.name}</option>
          )}
        {columns
          .filter((column) => column.type === type)
          .map((column) => (
            <option key={column.name} value={`column ${column.name}`}>
              {column.label}
            </option>
          ))}
        {operand.kind === 'column' &&
          !columns.some((column) => column.name === operand.name && column.type === type) && (
            <option value={codeOf(operand)}>{operand.name}</option>
          )}
      </Form.Select>
      {operand.kind === 'value' && (
        <Value
          name={`${name}: value`}
          text={operand.text}
          type={type}
          onChange={(text) => onChange({ kind: 'value', text })}
        />
      )}
    </>
  )
}

function Value({
  name,
  text,
  type,
  onChange,
}: {
  name: string
  text: string
  type: string
  onChange: (text: string) => void
}) {
  return (
    <Written
      name={name}
      className="slot value"
      value={unquoted(text)}
      reads={(typed) => unquoted(literal(typed, type))}
      onSettled={(typed) => (typed.trim() !== '' || type === 'text') && onChange(literal(typed, type))}
    />
  )
}

const listed = (typed: string) =>
  typed
    .split(',')
    .map((each) => each.trim())
    .filter(Boolean)

function Several({
  name,
  options,
  type,
  onChange,
}: {
  name: string
  options: string[]
  type: string
  onChange: (options: string[]) => void
}) {
  const settle = (typed: string) => {
    const next = listed(typed).map((each) => literal(each, type))
    if (next.length > 0) onChange(next)
  }
  return (
    <Written
      name={name}
      className="slot values"
      value={options.map(unquoted).join(', ')}
      reads={(typed) =>
        listed(typed)
          .map((each) => unquoted(literal(each, type)))
          .join(', ')
      }
      onSettled={settle}
    />
  )
}

/** Counts while it is typed, whenever typing pauses; at once where the field is left or Enter is pressed. */
function Written({
  name,
  className,
  value,
  reads,
  onSettled,
}: {
  name: string
  className: string
  value: string
  reads: (typed: string) => string
  onSettled: (typed: string) => void
}) {
  const { text, setText, settle } = useTyped({ value, onSettled, reads })
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key !== 'Enter') return
    event.preventDefault()
    settle()
  }
  return (
    <Form.Control
      size="sm"
      className={className}
      aria-label={name}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={settle}
      onKeyDown={onKeyDown}
    />
  )
}
