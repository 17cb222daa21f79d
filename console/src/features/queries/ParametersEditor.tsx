import { Button, Form } from 'react-bootstrap'
import { parameterTypes, type Parameter } from './api'
import { rich, t } from '../../messages'

type Parameters = Record<string, Parameter>

const from = (parameter: Parameter) =>
  parameter.choices && !Array.isArray(parameter.choices) ? parameter.choices : null

/** Leaves out what is empty, as documents do. */
const tidy = (parameter: Parameter): Parameter =>
  Object.fromEntries(
    Object.entries(parameter).filter(
      ([, value]) => value !== '' && value !== false && !(Array.isArray(value) && value.length === 0),
    ),
  )

/** `in (:name)` takes several values: one alone would be a single text with commas, which nothing is equal to. */
const standsInList = (sql: string, name: string) => new RegExp(`\\bin\\s*\\(\\s*:${name}\\s*\\)`, 'i').test(sql)

/** What each `:name` in the text is: its type, its usual value, what it may be, what it is for. */
export function ParametersEditor({
  parameters,
  sql,
  queries,
  onChange,
}: {
  parameters: Parameters
  sql: string
  queries: string[]
  onChange: (parameters: Parameters) => void
}) {
  const inText = [
    ...new Set(
      [...sql.replaceAll(/'[^']*'|--.*|::\w+/g, '').matchAll(/:([a-z_]\w*)/gi)].map((match) => match[1] ?? ''),
    ),
  ]
  const missing = inText.filter((name) => !(name in parameters))
  const set = (name: string, part: Partial<Parameter>) =>
    onChange({ ...parameters, [name]: tidy({ ...parameters[name], ...part }) })
  const remove = (name: string) =>
    onChange(Object.fromEntries(Object.entries(parameters).filter(([each]) => each !== name)))
  return (
    <fieldset className="mt-3">
      <legend>{t('queries.parameters')}</legend>
      {Object.keys(parameters).length === 0 && missing.length === 0 && (
        <p className="quiet small">
          {rich('queries.none_write_since_in_the', { code: (inner) => <code>{inner}</code> })}
        </p>
      )}
      {Object.entries(parameters).map(([name, parameter]) => (
        <details key={name} className="entry">
          <summary>
            <code>:{name}</code>{' '}
            <span className="quiet">
              {parameter.type ?? t('queries.text')}
              {parameter.default !== undefined && t('queries.default', { default: parameter.default })}
              {parameter.multiple && t('queries.several')}
              {parameter.optional && t('queries.optional')}
              {!inText.includes(name) && t('queries.not_in_the_sql')}
            </span>
          </summary>
          <div className="fields">
            <Form.Group controlId={`type-${name}`}>
              <Form.Label className="mb-0 small quiet">{t('queries.type')}</Form.Label>
              <Form.Select
                size="sm"
                value={parameter.type ?? 'text'}
                onChange={(event) =>
                  set(name, { type: parameterTypes.find((type) => type === event.target.value) ?? 'text' })
                }
              >
                {parameterTypes.map((type) => (
                  <option key={type}>{type}</option>
                ))}
              </Form.Select>
            </Form.Group>
            <Form.Group controlId={`default-${name}`}>
              <Form.Label className="mb-0 small quiet">{t('queries.default_value')}</Form.Label>
              <Form.Control
                size="sm"
                value={parameter.default ?? ''}
                placeholder={t('queries.none_each_rule_sets_it')}
                onChange={(event) => set(name, { default: event.target.value })}
              />
            </Form.Group>
            <Form.Group controlId={`help-${name}`}>
              <Form.Label className="mb-0 small quiet">{t('queries.help')}</Form.Label>
              <Form.Control
                size="sm"
                value={parameter.help ?? ''}
                onChange={(event) => set(name, { help: event.target.value })}
              />
            </Form.Group>
            <Form.Group controlId={`choices-${name}`}>
              <Form.Label className="mb-0 small quiet">{t('queries.choices_comma_separated')}</Form.Label>
              <Form.Control
                size="sm"
                disabled={from(parameter) !== null}
                placeholder={from(parameter) ? t('queries.from_the_query') : t('queries.anything')}
                defaultValue={Array.isArray(parameter.choices) ? parameter.choices.join(', ') : ''}
                onBlur={(event) =>
                  set(name, {
                    choices: event.target.value
                      .split(',')
                      .map((each) => each.trim())
                      .filter(Boolean),
                  })
                }
              />
            </Form.Group>
            <Form.Group controlId={`offered-${name}`}>
              <Form.Label className="mb-0 small quiet">{t('queries.or_from_the_query')}</Form.Label>
              <Form.Select
                size="sm"
                value={from(parameter)?.from ?? ''}
                onChange={(event) =>
                  set(name, {
                    choices:
                      event.target.value === ''
                        ? []
                        : { from: event.target.value, value: from(parameter)?.value ?? name },
                  })
                }
              >
                <option value="">{t('shared.none')}</option>
                {queries.map((each) => (
                  <option key={each}>{each}</option>
                ))}
              </Form.Select>
            </Form.Group>
            {from(parameter) && (
              <>
                <Form.Group controlId={`value-${name}`}>
                  <Form.Label className="mb-0 small quiet">{t('queries.column_with_the_value')}</Form.Label>
                  <Form.Control
                    size="sm"
                    value={from(parameter)?.value ?? ''}
                    onChange={(event) =>
                      set(name, { choices: { ...(from(parameter) ?? { from: '' }), value: event.target.value } })
                    }
                  />
                </Form.Group>
                <Form.Group controlId={`label-${name}`}>
                  <Form.Label className="mb-0 small quiet">{t('queries.column_with_the_label')}</Form.Label>
                  <Form.Control
                    size="sm"
                    value={from(parameter)?.label ?? ''}
                    onChange={(event) =>
                      set(name, {
                        choices: {
                          from: from(parameter)?.from ?? '',
                          value: from(parameter)?.value ?? '',
                          ...(event.target.value ? { label: event.target.value } : {}),
                        },
                      })
                    }
                  />
                </Form.Group>
              </>
            )}
            <Form.Check
              id={`optional-${name}`}
              type="checkbox"
              label={t('queries.optional_null_without_a_value')}
              checked={parameter.optional ?? false}
              onChange={(event) => set(name, { optional: event.target.checked })}
            />
            <Form.Check
              id={`multiple-${name}`}
              type="checkbox"
              label={t('queries.multiple_values_as_in')}
              checked={parameter.multiple ?? false}
              onChange={(event) => set(name, { multiple: event.target.checked })}
            />
          </div>
          <Button size="sm" variant="plain" className="mt-2" onClick={() => remove(name)}>
            {t('queries.remove', { name })}
          </Button>
        </details>
      ))}
      {missing.map((name) => (
        <p key={name} className="small mb-1">
          {rich('queries.is_used_in_the_sql', { code: (inner) => <code>{inner}</code>, name })}{' '}
          <Button
            size="sm"
            variant="plain"
            onClick={() =>
              set(name, {
                type: /since|until|from|to|at|date|day/.test(name) ? 'instant' : 'text',
                ...(standsInList(sql, name) ? { multiple: true } : {}),
              })
            }
          >
            {t('queries.declare_it')}
          </Button>
        </p>
      ))}
    </fieldset>
  )
}
