import { useId, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { t } from '../../messages'
import { TypedList } from './ListField'
import {
  documentSchema,
  entryOf,
  fieldWords,
  withField,
  type DocumentSchema,
  type FieldSchema,
  type Values,
} from './schema'

type Props<T> = {
  /** What the fold is called where `More settings` alone would not say enough. */
  title?: string
  /** The part in the JSON Schema, such as `memory`. */
  part: string
  value: T
  /** Fields that the form has already, or that are nobody's to write. */
  covered: readonly string[]
  onChange: (value: T) => void
}

/**
 * The fields of a part that the form has no other place for, made from the JSON Schema, so that the editor shows everything a rule has.
 * They are folded until one of them says something.
 */
export function MoreFields<T extends object>({ title, part, value, covered, onChange }: Props<T>) {
  const schema = useQuery(documentSchema)
  const fields = Object.entries(schema.data?.$defs[part]?.properties ?? {}).filter(([name]) => !covered.includes(name))
  const values = value as Values
  const says = fields.some(([name]) => values[name] !== undefined)
  const [open, setOpen] = useState<boolean | null>(null)
  if (!schema.data || fields.length === 0) return null
  return (
    <details className="mt-3" open={open ?? says} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{title ?? t('editor.more_settings')}</summary>
      <PartFields
        schema={schema.data}
        fields={fields}
        values={values}
        onChange={(next) => onChange(next as unknown as T)}
      />
    </details>
  )
}

function PartFields({
  schema,
  fields,
  values,
  onChange,
}: {
  schema: DocumentSchema
  fields: [string, FieldSchema][]
  values: Values
  onChange: (values: Values) => void
}) {
  // What takes the whole width comes last, so that a field after it does not look like a part of it.
  const isWhole = (field: FieldSchema) => ['part', 'parts', 'map'].includes(entryOf(field, schema).is)
  const ordered = [...fields].sort(([, a], [, b]) => Number(isWhole(a)) - Number(isWhole(b)))
  return (
    <div className="fields mt-2">
      {ordered.map(([name, field]) => (
        <OneField
          key={name}
          name={name}
          field={field}
          schema={schema}
          value={values[name]}
          onChange={(value) => onChange(withField(values, name, value, entryOf(field, schema).is === 'truth'))}
        />
      ))}
    </div>
  )
}

type OneProps = {
  name: string
  field: FieldSchema
  schema: DocumentSchema
  value: unknown
  onChange: (value: unknown) => void
}

function OneField({ name, field, schema, value, onChange }: OneProps) {
  const id = useId()
  const entry = entryOf(field, schema)
  const help = field.description?.replaceAll('`', '')
  const helped = { 'aria-describedby': `${id}-help` }
  const label = fieldWords(name)
  switch (entry.is) {
    case 'part':
      return (
        <fieldset className="whole">
          <legend>{label}</legend>
          <p className="small quiet mb-0">{help}</p>
          <PartFields
            schema={schema}
            fields={Object.entries(schema.$defs[entry.part]?.properties ?? {})}
            values={typeof value === 'object' && value !== null ? (value as Values) : {}}
            onChange={onChange}
          />
        </fieldset>
      )
    case 'parts':
      return (
        <fieldset className="whole">
          <legend>{label}</legend>
          <p className="small quiet mb-0">{help}</p>
          <Several
            label={label}
            part={entry.part}
            alone={entry.alone}
            schema={schema}
            values={Array.isArray(value) ? value : []}
            onChange={onChange}
          />
        </fieldset>
      )
    case 'map':
      return (
        <fieldset className="whole">
          <legend>{label}</legend>
          <p className="small quiet mb-0">{help}</p>
          <ByValue label={label} values={(value ?? {}) as Values} onChange={onChange} />
        </fieldset>
      )
    case 'check':
      return (
        <div className="whole">
          <Form.Check
            id={id}
            type="checkbox"
            label={label}
            checked={value === true}
            {...helped}
            onChange={(event) => onChange(event.target.checked)}
          />
          <p id={`${id}-help`} className="small quiet mb-0">
            {help}
          </p>
        </div>
      )
    default:
      return (
        <Form.Group controlId={id}>
          <Form.Label className="mb-0 small quiet">{label}</Form.Label>
          {entry.is === 'choice' ? (
            <Form.Select
              {...helped}
              size="sm"
              value={typeof value === 'string' ? value : ''}
              onChange={(event) => onChange(event.target.value)}
            >
              <option value="">{t('editor.field_default')}</option>
              {entry.options.map((each) => (
                <option key={each} value={each}>
                  {each.replaceAll('_', ' ')}
                </option>
              ))}
            </Form.Select>
          ) : entry.is === 'truth' ? (
            <Form.Select
              {...helped}
              size="sm"
              value={typeof value === 'boolean' ? String(value) : ''}
              onChange={(event) => onChange(event.target.value === '' ? undefined : event.target.value === 'true')}
            >
              <option value="">{t('editor.field_default')}</option>
              <option value="true">{t('editor.yes')}</option>
              <option value="false">{t('editor.no')}</option>
            </Form.Select>
          ) : entry.is === 'number' ? (
            <Form.Control
              {...helped}
              size="sm"
              type="number"
              min={entry.least}
              max={entry.most}
              value={typeof value === 'number' ? value : ''}
              onChange={(event) => onChange(event.target.value === '' ? undefined : Number(event.target.value))}
            />
          ) : entry.is === 'list' ? (
            <TypedList {...helped} value={value} onChange={onChange} />
          ) : (
            <Form.Control
              {...helped}
              size="sm"
              value={typeof value === 'string' || typeof value === 'number' ? value : ''}
              onChange={(event) => onChange(event.target.value)}
            />
          )}
          <Form.Text id={`${id}-help`} className="small">
            {help}
          </Form.Text>
        </Form.Group>
      )
  }
}

function Several({
  label,
  part,
  alone,
  schema,
  values,
  onChange,
}: {
  label: string
  part: string
  alone: string | undefined
  schema: DocumentSchema
  values: unknown[]
  onChange: (values: unknown[]) => void
}) {
  const opened = (each: unknown): Values =>
    typeof each === 'object' && each !== null ? (each as Values) : alone ? { [alone]: each } : {}
  const closed = (each: Values): unknown =>
    alone && Object.keys(each).length === 1 && each[alone] !== undefined ? each[alone] : each
  return (
    <>
      {values.map((each, index) => (
        <div key={index} className="part-of-several">
          <PartFields
            schema={schema}
            fields={Object.entries(schema.$defs[part]?.properties ?? {})}
            values={opened(each)}
            onChange={(next) => onChange(values.map((one, i) => (i === index ? closed(next) : one)))}
          />
          <Button
            size="sm"
            variant="plain"
            className="mt-1"
            aria-label={t('editor.remove_nth', { name: label, index: index + 1 })}
            onClick={() => onChange(values.filter((_, i) => i !== index))}
          >
            {t('shared.remove')}
          </Button>
        </div>
      ))}
      <Button size="sm" variant="plain" className="mt-1" onClick={() => onChange([...values, {}])}>
        {t('editor.add_one')}
      </Button>
    </>
  )
}

/** What each value gets, such as its recipients. */
function ByValue({ label, values, onChange }: { label: string; values: Values; onChange: (values: Values) => void }) {
  const [fresh, setFresh] = useState('')
  return (
    <>
      {Object.entries(values).map(([key, value]) => (
        <div key={key} className="d-flex gap-2 align-items-center mt-1">
          <span className="small text-nowrap">{key}</span>
          <TypedList
            aria-label={t('editor.value_for', { name: label, key })}
            value={value}
            onChange={(list) => onChange({ ...values, [key]: list })}
          />
          <Button
            size="sm"
            variant="plain"
            aria-label={t('editor.remove', { name: key })}
            onClick={() => onChange(Object.fromEntries(Object.entries(values).filter(([each]) => each !== key)))}
          >
            ✕
          </Button>
        </div>
      ))}
      <div className="d-flex gap-2 mt-1">
        <Form.Control
          size="sm"
          className="w-auto"
          aria-label={t('editor.new_value_of', { name: label })}
          placeholder={t('editor.a_value')}
          value={fresh}
          onChange={(event) => setFresh(event.target.value)}
        />
        <Button
          size="sm"
          variant="plain"
          disabled={fresh.trim() === '' || fresh in values}
          onClick={() => {
            onChange({ ...values, [fresh.trim()]: [] })
            setFresh('')
          }}
        >
          {t('editor.add_one')}
        </Button>
      </div>
    </>
  )
}
