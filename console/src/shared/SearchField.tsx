import { useEffect, useRef, useState } from 'react'
import { Form, type FormControlProps } from 'react-bootstrap'

type Props = Omit<FormControlProps, 'value' | 'onChange' | 'type'> & { value: string; onSettled: (value: string) => void; list?: string }

const pause = 200

/**
 * A field to search in. It keeps what is typed to itself until typing pauses: an address that changed with each key would give back an older text while the
 * next key is on its way, and the key would be lost.
 */
export function SearchField({ value, onSettled, ...field }: Props) {
  const [text, setText] = useState(value)
  // What the page knows of it: what it said last, or was told last.
  const [known, setKnown] = useState(value)
  const settled = useRef(onSettled)
  useEffect(() => {
    settled.current = onSettled
  })
  if (value !== known) {
    setKnown(value)
    setText(value)
  }
  useEffect(() => {
    if (text === known) return undefined
    const timer = setTimeout(() => {
      setKnown(text)
      settled.current(text)
    }, pause)
    return () => clearTimeout(timer)
  }, [text, known])
  return <Form.Control {...field} type="search" value={text} onChange={(event) => setText(event.target.value)} />
}
