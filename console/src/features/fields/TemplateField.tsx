import { useRef, useState } from 'react'
import { Dropdown, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { t } from '../../messages'
import { mailsOf, type MailsSeen } from '../documents/api'
import { insertedAt, rowsSection } from './template'

/** Only some kinds of inputs have a caret; both of these do. */
const placeOf = (field: HTMLTextAreaElement) => ({ from: field.selectionStart, to: field.selectionEnd })

type Props = {
  id: string
  label: string
  value: string
  placeholder: string
  /** The rule as it is now, from which the fields have their values. */
  document: string
  /** Names of files have fewer fields than the texts of a message. */
  kind: 'line' | 'paragraph' | 'file'
  onChange: (value: string) => void
}

/** A text with fields, which are chosen from a list with what each says now and go in at the caret. */
export function TemplateField({ id, label, value, placeholder, document, kind, onChange }: Props) {
  const field = useRef<(HTMLInputElement & HTMLTextAreaElement) | null>(null)
  const caret = useRef<{ from: number; to: number } | null>(null)
  const keepCaret = () => {
    const here = field.current
    if (here) caret.current = placeOf(here)
  }
  const insert = (text: string) => {
    const next = insertedAt(value, caret.current ?? { from: value.length, to: value.length }, text)
    onChange(next.text)
    requestAnimationFrame(() => {
      field.current?.focus()
      field.current?.setSelectionRange(next.caret, next.caret)
      keepCaret()
    })
  }
  return (
    <Form.Group controlId={id} className="whole">
      <div className="d-flex justify-content-between align-items-end">
        <Form.Label className="mb-0 small quiet">{label}</Form.Label>
        <FieldMenu label={label} document={document} kind={kind} onPick={insert} />
      </div>
      <Form.Control
        ref={field}
        {...(kind === 'paragraph' ? { as: 'textarea' as const, rows: 2 } : { size: 'sm' as const })}
        value={value}
        placeholder={placeholder}
        onChange={(event) => {
          onChange(event.target.value)
          keepCaret()
        }}
        onSelect={keepCaret}
        onBlur={keepCaret}
      />
    </Form.Group>
  )
}

function FieldMenu({
  label,
  document,
  kind,
  onPick,
}: Pick<Props, 'label' | 'document' | 'kind'> & { onPick: (text: string) => void }) {
  const [open, setOpen] = useState(false)
  const seen = useQuery({
    queryKey: ['mail-fields', document],
    queryFn: () => mailsOf(document),
    enabled: open,
    staleTime: 60_000,
    retry: false,
  })
  return (
    <Dropdown show={open} onToggle={setOpen} align="end">
      <Dropdown.Toggle
        variant="link"
        size="sm"
        className="p-0 small"
        aria-label={t('editor.insert_field_in', { label })}
      >
        {t('editor.insert_field')}
      </Dropdown.Toggle>
      <Dropdown.Menu className="field-menu">
        {seen.isPending && <Dropdown.ItemText>{t('shared.reading_the_source')}</Dropdown.ItemText>}
        {seen.error && <Dropdown.ItemText>{seen.error.message}</Dropdown.ItemText>}
        {seen.data && <Items seen={seen.data} kind={kind} onPick={onPick} />}
      </Dropdown.Menu>
    </Dropdown>
  )
}

function Items({ seen, kind, onPick }: { seen: MailsSeen; kind: Props['kind']; onPick: (text: string) => void }) {
  const fields = kind === 'file' ? seen.fileFields : seen.fields
  return (
    <>
      {fields.map(({ name, value }) => (
        <Dropdown.Item key={name} as="button" type="button" onClick={() => onPick(`{{${name}}}`)}>
          <code>{name}</code> <span className="quiet small">{value || t('editor.field_is_empty')}</span>
        </Dropdown.Item>
      ))}
      {kind !== 'file' && seen.columns.length > 0 && (
        <Dropdown.Item as="button" type="button" onClick={() => onPick(rowsSection(seen.columns))}>
          <code>{'rows'}</code> <span className="quiet small">{t('editor.field_rows')}</span>
        </Dropdown.Item>
      )}
    </>
  )
}
