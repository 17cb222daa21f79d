import { Form } from 'react-bootstrap'
import { useTyped } from '../../shared/typed'
import { listed, listText, literal, unquoted } from './builder'

/** One value of a column's type, typed without quotes. */
export function Value({
  name,
  text,
  type,
  onChange,
}: {
  name: string
  text: string
  type: string
  onChange: (text: string) => void
}) {
  return (
    <Written
      name={name}
      className="slot value"
      value={unquoted(text)}
      reads={(typed) => unquoted(literal(typed, type))}
      onSettled={(typed) => (typed.trim() !== '' || type === 'text') && onChange(literal(typed, type))}
    />
  )
}

/** Values of a column's type with commas between. */
export function Values({
  name,
  options,
  type,
  onChange,
}: {
  name: string
  options: string[]
  type: string
  onChange: (options: string[]) => void
}) {
  const settle = (typed: string) => {
    const next = listed(typed, type)
    if (next.length > 0) onChange(next)
  }
  return (
    <Written
      name={name}
      className="slot values"
      value={listText(options)}
      reads={(typed) => listText(listed(typed, type))}
      onSettled={settle}
    />
  )
}

/** Counts while it is typed, whenever typing pauses; at once where the field is left or Enter is pressed. */
function Written({
  name,
  className,
  value,
  reads,
  onSettled,
}: {
  name: string
  className: string
  value: string
  reads: (typed: string) => string
  onSettled: (typed: string) => void
}) {
  const { text, setText, settle } = useTyped({ value, onSettled, reads })
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key !== 'Enter') return
    event.preventDefault()
    settle()
  }
  return (
    <Form.Control
      size="sm"
      className={className}
      aria-label={name}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={settle}
      onKeyDown={onKeyDown}
    />
  )
}
