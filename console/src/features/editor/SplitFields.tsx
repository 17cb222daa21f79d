import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { Column, DeliveryPart, Edits } from '../fields/parts'
import { queries } from '../queries/api'
import { AudienceTable } from './AudienceTable'
import { t } from '../../messages'

type Props = {
  delivery: DeliveryPart
  columns: Column[]
  /** The rule as it can be previewed. */
  document: string
  onChange: (edits: Edits<DeliveryPart>) => void
}

/** A message for each value of a column: the column, where the recipients of a value come from, and who gets what now. */
export function SplitFields({ delivery, columns, document, onChange }: Props) {
  const all = useQuery(queries)
  const named = listed(delivery.split_to)
  const splitBy = delivery.split_by ?? ''
  return (
    <fieldset className="mt-3">
      <legend>{t('editor.split')}</legend>
      <div className="fields">
        <Form.Group controlId="split-by">
          <Form.Label className="mb-0 small quiet">{t('editor.split_by_column')}</Form.Label>
          <Form.Select
            size="sm"
            value={splitBy}
            onChange={(event) =>
              onChange(
                event.target.value
                  ? { split_by: event.target.value }
                  : { split_by: '', split_from: '', split_address: '', split_to: undefined },
              )
            }
          >
            <option value="">{t('editor.no_split_all_recipients_get')}</option>
            {options(columns, splitBy)}
          </Form.Select>
        </Form.Group>
        {splitBy && (
          <>
            <Form.Group controlId="split-from">
              <Form.Label className="mb-0 small quiet">{t('editor.split_from')}</Form.Label>
              <Form.Select
                size="sm"
                value={delivery.split_from ?? ''}
                onChange={(event) => onChange({ split_from: event.target.value })}
              >
                <option value="">{t('shared.none')}</option>
                {(all.data ?? []).map(({ name, title }) => (
                  <option key={name} value={name}>
                    {title}
                  </option>
                ))}
              </Form.Select>
              <Form.Text className="small">{t('editor.split_from_help', { column: splitBy })}</Form.Text>
            </Form.Group>
            <Form.Group controlId="split-address">
              <Form.Label className="mb-0 small quiet">{t('editor.split_address')}</Form.Label>
              <Form.Select
                size="sm"
                value={delivery.split_address ?? ''}
                onChange={(event) => onChange({ split_address: event.target.value })}
              >
                <option value="">{t('shared.none')}</option>
                {options(columns, delivery.split_address ?? '')}
              </Form.Select>
              <Form.Text className="small">{t('editor.split_address_help')}</Form.Text>
            </Form.Group>
          </>
        )}
      </div>
      {splitBy && (
        <>
          <NewValue onAdd={(value) => onChange({ split_to: { ...named, [value]: [] } })} known={Object.keys(named)} />
          <AudienceTable
            document={document}
            named={named}
            onChange={(next) => onChange({ split_to: Object.keys(next).length > 0 ? next : undefined })}
          />
        </>
      )}
    </fieldset>
  )
}

/** A value that has no rows yet. */
function NewValue({ known, onAdd }: { known: string[]; onAdd: (value: string) => void }) {
  const [value, setValue] = useState('')
  return (
    <div className="d-flex gap-2 mt-2">
      <Form.Control
        size="sm"
        className="w-auto"
        aria-label={t('editor.new_split_value')}
        placeholder={t('editor.a_value')}
        value={value}
        onChange={(event) => setValue(event.target.value)}
      />
      <Button
        size="sm"
        variant="plain"
        disabled={!value.trim() || known.includes(value.trim())}
        onClick={() => {
          onAdd(value.trim())
          setValue('')
        }}
      >
        {t('editor.add_value')}
      </Button>
    </div>
  )
}

function options(columns: Column[], chosen: string) {
  const known = columns.some(({ name }) => name === chosen)
  return (
    <>
      {chosen && !known && <option value={chosen}>{chosen}</option>}
      {columns.map((column) => (
        <option key={column.name} value={column.name}>
          {column.label}
        </option>
      ))}
    </>
  )
}

const listed = (named: DeliveryPart['split_to']): Record<string, string[]> =>
  Object.fromEntries(
    Object.entries(named ?? {}).map(([value, to]): [string, string[]] => [value, Array.isArray(to) ? to : [to]]),
  )
