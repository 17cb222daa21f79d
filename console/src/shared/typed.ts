import { useEffect, useRef, useState } from 'react'

type Settling = {
  value: string
  onSettled: (value: string) => void
  /** What a typed text comes to: where that is what the page knows, the text stays as it was typed. */
  reads?: (typed: string) => string
  pause?: number
}

/**
 * The text of a field that keeps what is typed to itself until typing pauses: a page that answered each key would give back an older text while the next
 * key is on its way, and the key would be lost.
 */
export function useTyped({ value, onSettled, reads = (typed) => typed, pause = 200 }: Settling) {
  const [text, setText] = useState(value)
  // What the page knows of it: what it said last, or was told last.
  const [known, setKnown] = useState(value)
  const settled = useRef(onSettled)
  useEffect(() => {
    settled.current = onSettled
  })
  if (value !== known && value !== reads(known)) {
    setKnown(value)
    setText(value)
  }
  const settle = () => {
    if (text === known) return
    setKnown(text)
    settled.current(text)
  }
  useEffect(() => {
    if (text === known) return undefined
    const timer = setTimeout(() => {
      setKnown(text)
      settled.current(text)
    }, pause)
    return () => clearTimeout(timer)
  }, [text, known, pause])
  return { text, setText, settle }
}
