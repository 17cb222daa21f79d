import { useState } from 'react'
import { Form, type FormControlProps } from 'react-bootstrap'

type Props = Omit<FormControlProps, 'value' | 'onChange' | 'type'> & {
  value: number
  least: number
  most?: number
  onChange: (value: number) => void
}

/** A whole number. While it is empty or out of bounds it stays as typed, and what it stood for before counts until the field is left. */
export function NumberField({ value, least, most, onChange, ...field }: Props) {
  const [text, setText] = useState(String(value))
  const [known, setKnown] = useState(value)
  if (value !== known) {
    setKnown(value)
    setText(String(value))
  }
  const fits = (typed: string) =>
    /^-?\d+$/.test(typed) && Number(typed) >= least && (most === undefined || Number(typed) <= most)
  const type = (typed: string) => {
    setText(typed)
    if (!fits(typed)) return
    setKnown(Number(typed))
    onChange(Number(typed))
  }
  return (
    <Form.Control
      {...field}
      type="number"
      min={least}
      max={most}
      value={text}
      isInvalid={text !== '' && !fits(text)}
      onChange={(event) => type(event.target.value)}
      onBlur={() => !fits(text) && setText(String(known))}
    />
  )
}
