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

/** A list as it is typed, with commas. It is read when the field is left, so that a comma can be typed. */
export function ListField({ id, label, help, value, onChange }: Props) {
  const known = listText(value)
  return (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Control
        size="sm"
        key={known}
        defaultValue={known}
        placeholder={t('editor.comma_separated')}
        aria-describedby={help ? `${id}-help` : undefined}
        onBlur={(event) => event.target.value !== known && onChange(listOfText(event.target.value))}
      />
      {help && (
        <Form.Text id={`${id}-help`} className="small">
          {help}
        </Form.Text>
      )}
    </Form.Group>
  )
}
