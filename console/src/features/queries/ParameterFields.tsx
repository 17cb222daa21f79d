import { Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { useSettled } from '../../shared/settled'
import { choicesOf, meaningOf, type Parameter, type Where } from './api'
import { t } from '../../messages'

type Props = {
  id: string
  parameters: Record<string, Parameter>
  values: Record<string, string>
  onChange: (values: Record<string, string>) => void
  where: Where
  /** The saved query, where choices come from another query; null for one that is not saved yet. */
  query: string | null
}

const isMoment = ({ type }: Parameter) => type === 'date' || type === 'timestamp' || type === 'instant'

/** A field for each parameter, with its choices, its help, and what a relative date in it means today. */
export function ParameterFields({ id, parameters, values, onChange, where, query }: Props) {
  const entries = Object.entries(parameters)
  const texts = useSettled(
    JSON.stringify(
      [
        ...new Set(
          entries
            .filter(([, each]) => isMoment(each))
            .flatMap(([name, each]) => valuesIn(values[name] || each.default || '', each.multiple)),
        ),
      ].filter(Boolean),
    ),
    250,
  )
  const asked = JSON.parse(texts) as string[]
  const means = useQuery({ ...meaningOf(asked, where), enabled: asked.length > 0 })
  if (entries.length === 0) return <p className="quiet small mb-0">{t('queries.the_query_has_no_parameters')}</p>
  const set = (name: string, value: string) =>
    onChange(Object.fromEntries(Object.entries({ ...values, [name]: value }).filter(([, each]) => each !== '')))
  return (
    <div className="fields">
      {entries.map(([name, declared]) => (
        <Form.Group key={name} controlId={`${id}-${name}`}>
          <Form.Label className="mb-0">
            <code>:{name}</code>{' '}
            <span className="small quiet">
              {declared.type ?? t('queries.text')}
              {declared.multiple && t('queries.several_comma_separated')}
              {declared.optional && t('queries.optional')}
            </span>
          </Form.Label>
          <Field
            name={name}
            declared={declared}
            value={values[name] ?? ''}
            onChange={(value) => set(name, value)}
            query={query}
          />
          <div className="small quiet">
            {declared.help && <div>{declared.help}</div>}
            {isMoment(declared) &&
              valuesIn(values[name] || declared.default || '', declared.multiple).map((text) => (
                <Meaning key={text} seen={means.data?.find((each) => each.text === text)} zone={where.zone} />
              ))}
          </div>
        </Form.Group>
      ))}
    </div>
  )
}

const valuesIn = (text: string, several: boolean | undefined) =>
  (several ? text.split(',').map((each) => each.trim()) : [text]).filter(Boolean)

const local = (iso: string) => `${iso.slice(0, 10)} ${iso.slice(11, 16)}`

function Meaning({
  seen,
  zone,
}: {
  seen: { text: string; means: string | null; refused: string | null } | undefined
  zone: string
}) {
  if (!seen) return null
  if (seen.means === null) return <div className="problem-text">{seen.refused}</div>
  return (
    <div>{t('queries.today_in', { means: local(seen.means), zone: zone.split('/').at(-1)?.replaceAll('_', ' ') })}</div>
  )
}

function Field({
  name,
  declared,
  value,
  onChange,
  query,
}: {
  name: string
  declared: Parameter
  value: string
  onChange: (value: string) => void
  query: string | null
}) {
  const fromQuery = declared.choices !== undefined && !Array.isArray(declared.choices)
  const offered = useQuery({ ...choicesOf(query ?? '', name), enabled: fromQuery && query !== null })
  const preset = declared.default
    ? t('queries.default_is', { value: declared.default })
    : declared.optional
      ? t('shared.no_value')
      : t('queries.needs_a_value')
  const choices = Array.isArray(declared.choices)
    ? declared.choices.map((each) => ({ value: each, label: each }))
    : declared.type === 'truth'
      ? [
          { value: 'true', label: 'true' },
          { value: 'false', label: 'false' },
        ]
      : (offered.data?.choices ?? [])
  if (choices.length === 0 || declared.multiple) {
    const list = `${name}-choices`
    return (
      <>
        <Form.Control
          size="sm"
          value={value}
          placeholder={preset}
          list={choices.length > 0 ? list : undefined}
          onChange={(event) => onChange(event.target.value)}
        />
        {choices.length > 0 && (
          <datalist id={list}>
            {choices.map((each) => (
              <option key={each.value} value={offer(value, each.value)}>
                {each.label}
              </option>
            ))}
          </datalist>
        )}
        {offered.error && <div className="small problem-text">{offered.error.message}</div>}
      </>
    )
  }
  const known = choices.some((each) => each.value === value)
  return (
    <Form.Select size="sm" value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{preset}</option>
      {choices.map((each) => (
        <option key={each.value} value={each.value}>
          {each.label}
        </option>
      ))}
      {value !== '' && !known && <option value={value}>{t('queries.no_longer_offered', { value })}</option>}
    </Form.Select>
  )
}

/** A further value behind those that are there. */
const offer = (before: string, next: string) => {
  const whole = before.slice(0, before.lastIndexOf(',') + 1).trim()
  return whole === '' ? next : `${whole} ${next}`
}
