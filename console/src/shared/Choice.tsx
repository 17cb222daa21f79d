import { Form } from 'react-bootstrap'

type Props<V extends string> = {
  id: string
  label: string
  value: V | undefined
  /** Each value and its words; the empty value leaves the choice to the service. */
  options: readonly (readonly [V | '', string])[]
  onChange: (value: V | '') => void
  /** Among filters of a list; otherwise small, as the fields of a form are. */
  large?: boolean
  /** Where the place of the field says what it is to those who see it. */
  hiddenLabel?: boolean
}

/** One value of those that a field of a document may have. */
export function Choice<const V extends string>({
  id,
  label,
  value,
  options,
  onChange,
  large = false,
  hiddenLabel = false,
}: Props<V>) {
  const chosen = (code: string) => options.find(([each]) => each === code)?.[0] ?? ''
  return (
    <Form.Group controlId={id}>
      <Form.Label className={hiddenLabel ? 'visually-hidden' : 'mb-0 small quiet'}>{label}</Form.Label>
      <Form.Select
        {...(large ? {} : { size: 'sm' as const })}
        value={value ?? ''}
        onChange={(event) => onChange(chosen(event.target.value))}
      >
        {options.map(([code, words]) => (
          <option key={code} value={code}>
            {words}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  )
}
