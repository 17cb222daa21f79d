import { Form } from 'react-bootstrap'

/** One of several, or any. */
export function Pick({
  id,
  label,
  value,
  options,
  any = 'any',
  onChange,
}: {
  id: string
  label: string
  value: string
  options: [string, string][]
  any?: string
  onChange: (value: string) => void
}) {
  return (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Select value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{any}</option>
        {options.map(([code, words]) => (
          <option key={code} value={code}>
            {words}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  )
}
