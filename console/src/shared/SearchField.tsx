import { Form, type FormControlProps } from 'react-bootstrap'
import { useTyped } from './typed'

type Props = Omit<FormControlProps, 'value' | 'onChange' | 'type'> & {
  value: string
  onSettled: (value: string) => void
  list?: string
}

/** A field to search in, which searches when typing pauses. */
export function SearchField({ value, onSettled, ...field }: Props) {
  const { text, setText } = useTyped({ value, onSettled })
  return <Form.Control {...field} type="search" value={text} onChange={(event) => setText(event.target.value)} />
}
