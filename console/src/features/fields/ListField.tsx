import { Form } from 'react-bootstrap'
import { t } from '../../messages'
import { listOfText, listText } from './schema'

type Props = {
  id: string
  label: string
  help?: string
  value: string[] | undefined
  onChange: (value: string[]) => void
}

/** A list as it is typed, with commas, and its label. */
export function ListField({ id, label, help, value, onChange }: Props) {
  return (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <TypedList value={value} onChange={onChange} {...(help && { 'aria-describedby': `${id}-help` })} />
      {help && (
        <Form.Text id={`${id}-help`} className="small">
          {help}
        </Form.Text>
      )}
    </Form.Group>
  )
}

/** A list is read when its field is left, so that a comma can be typed. */
export function TypedList({
  value,
  onChange,
  ...field
}: {
  value: unknown
  onChange: (value: string[]) => void
  id?: string
  'aria-label'?: string
  'aria-describedby'?: string
}) {
  const known = listText(value)
  return (
    <Form.Control
      {...field}
      size="sm"
      key={known}
      defaultValue={known}
      placeholder={t('editor.comma_separated')}
      onBlur={(event) => event.target.value !== known && onChange(listOfText(event.target.value))}
    />
  )
}
