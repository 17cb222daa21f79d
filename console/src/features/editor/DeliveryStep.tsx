import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { people, teams } from '../setup/api'
import type { DeliveryPart } from './api'
import type { Column } from './builder'
import { edited, type Edits } from './parts'

const formats = [
  ['xlsx', 'Workbook (XLSX)'],
  ['csv', 'CSV'],
  ['pdf', 'PDF'],
  ['html', 'HTML'],
  ['json', 'JSON'],
] as const
const languages = [
  ['', 'English'],
  ['de', 'German'],
  ['nb', 'Norwegian'],
] as const

type Props = { delivery: DeliveryPart; columns: Column[]; onChange: (delivery: DeliveryPart) => void }

const listOf = (text: string) =>
  text
    .split(/[,;](?=(?:[^"]*"[^"]*")*[^"]*$)/)
    .map((each) => each.trim())
    .filter(Boolean)

/** The recipients, and what the message looks like. */
export function DeliveryStep({ delivery, columns, onChange }: Props) {
  const put = (edits: Edits<DeliveryPart>) => onChange(edited(delivery, edits, ['attach']))
  const attached = (delivery.attach ?? ['csv']).map((each) => (typeof each === 'string' ? each : each.format))
  const attach = (format: (typeof formats)[number][0], is: boolean) =>
    put({
      attach: is
        ? [...(delivery.attach ?? ['csv']), format]
        : (delivery.attach ?? ['csv']).filter((each) => (typeof each === 'string' ? each : each.format) !== format),
    })
  const shown = delivery.columns ?? []
  return (
    <>
      <div className="fields">
        <People id="to" label="To (comma-separated)" value={delivery.to} onChange={(to) => put({ to })} />
        <People id="cc" label="Cc" value={delivery.cc} onChange={(cc) => put({ cc })} />
        <People id="bcc" label="Bcc" value={delivery.bcc} onChange={(bcc) => put({ bcc })} />
      </div>
      {delivery['split_by'] && (
        <p className="callout mt-2 mb-0">
          Split by <code>{delivery['split_by']}</code>: one audience per value
          {Object.keys(delivery['split_to'] ?? {}).length > 0 &&
            ` (${Object.keys(delivery['split_to'] ?? {}).join(', ')})`}
          {delivery['split_from'] && `; recipients of other values come from query ${delivery['split_from']}`}. Other
          values go to the recipients above.
        </p>
      )}
      <div className="fields">
        <Form.Group controlId="split-by">
          <Form.Label className="mb-0 small quiet">Split by column</Form.Label>
          <Form.Select
            size="sm"
            value={delivery['split_by'] ?? ''}
            onChange={(event) => put({ split_by: event.target.value })}
          >
            <option value="">no split: all recipients get all findings</option>
            {columns.map((column) => (
              <option key={column.name} value={column.name}>
                {column.label}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Choice
          id="language"
          label="Language"
          value={delivery.language}
          options={languages}
          onChange={(language) => put({ language })}
        />
        <Form.Group controlId="subject" className="whole">
          <Form.Label className="mb-0 small quiet">Subject</Form.Label>
          <Form.Control
            size="sm"
            value={delivery.subject ?? ''}
            placeholder="default: number of findings and title"
            onChange={(event) => put({ subject: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="opening" className="whole">
          <Form.Label className="mb-0 small quiet">Introduction</Form.Label>
          <Form.Control
            as="textarea"
            rows={2}
            value={delivery.opening ?? ''}
            placeholder="none; available fields are listed below the preview"
            onChange={(event) => put({ opening: event.target.value })}
          />
        </Form.Group>
      </div>
      {delivery.layout !== undefined ? (
        <p className="callout mt-3 mb-0">The layout in the YAML sets its columns.</p>
      ) : (
        <fieldset className="mt-3">
          <legend>Columns in the message, in this order</legend>
          <div className="d-flex flex-wrap gap-2">
            {shown.map((name, index) => (
              <span key={name} className="chosen-column">
                {columns.find((column) => column.name === name)?.label ?? name}
                {index > 0 && (
                  <Button
                    size="sm"
                    variant="plain"
                    className="x"
                    aria-label={`Move ${name} forward`}
                    onClick={() =>
                      put({
                        columns: shown.map((each, i) =>
                          i === index - 1 ? name : i === index ? (shown[index - 1] ?? each) : each,
                        ),
                      })
                    }
                  >
                    ←
                  </Button>
                )}
                <Button
                  size="sm"
                  variant="plain"
                  className="x"
                  aria-label={`Remove ${name}`}
                  onClick={() => put({ columns: shown.filter((each) => each !== name) })}
                >
                  ✕
                </Button>
              </span>
            ))}
            <Form.Select
              size="sm"
              className="w-auto"
              aria-label="Add a column"
              value=""
              onChange={(event) => event.target.value && put({ columns: [...shown, event.target.value] })}
            >
              <option value="">{shown.length === 0 ? 'default: all columns' : 'add …'}</option>
              {columns
                .filter((column) => !shown.includes(column.name))
                .map((column) => (
                  <option key={column.name} value={column.name}>
                    {column.label}
                  </option>
                ))}
            </Form.Select>
          </div>
        </fieldset>
      )}
      <fieldset className="mt-3">
        <legend>Attachments (all open findings)</legend>
        <div className="d-flex flex-wrap gap-3">
          {formats.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`attach-${code}`}
              type="checkbox"
              label={words}
              checked={attached.includes(code)}
              onChange={(event) => attach(code, event.target.checked)}
            />
          ))}
        </div>
      </fieldset>
      <div className="mt-3">
        <Form.Check
          id="may-leave"
          type="checkbox"
          label="Recipients can unsubscribe"
          checked={delivery['allow_unsubscribe'] ?? false}
          onChange={(event) => put({ allow_unsubscribe: event.target.checked })}
        />
        <Form.Check
          id="all-quiet"
          type="checkbox"
          label="Also send a message when nothing is new"
          checked={delivery['send_when_quiet'] ?? false}
          onChange={(event) => put({ send_when_quiet: event.target.checked })}
        />
      </div>
    </>
  )
}

function People({
  id,
  label,
  value,
  onChange,
}: {
  id: string
  label: string
  value: string[] | undefined
  onChange: (people: string[]) => void
}) {
  const known = useQuery(people)
  const groups = useQuery(teams)
  const offered = [
    ...(groups.data ?? []).map((team) => `team: ${team.name}`),
    ...(known.data ?? []).map((person) => person.email),
  ]
  return (
    <Form.Group controlId={id} className="whole">
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Control
        size="sm"
        key={value?.join()}
        defaultValue={value?.join(', ') ?? ''}
        list={`${id}-known`}
        autoComplete="off"
        onBlur={(event) => {
          const next = listOf(event.target.value)
          if (next.join() !== (value ?? []).join()) onChange(next)
        }}
      />
      <datalist id={`${id}-known`}>
        {offered.map((each) => (
          <option key={each} value={[...(value ?? []), each].join(', ')}>
            {each}
          </option>
        ))}
      </datalist>
    </Form.Group>
  )
}
