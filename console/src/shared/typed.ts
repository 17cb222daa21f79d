import { useCallback, useEffect, useRef, useState } from 'react'

type Settling = {
  value: string
  onSettled: (value: string) => void
  /** What a typed text comes to: where that is what the page knows, the text stays as it was typed. */
  reads?: (typed: string) => string
  pause?: number
}

/**
 * The text of a field that keeps what is typed to itself until typing pauses: a page that answered each key would give back an older text while the next
 * key is on its way, and the key would be lost. The page may answer late, and in between go on showing what it knew before: only a value that it takes
 * and that was not typed here replaces the text.
 */
export function useTyped({ value, onSettled, reads = (typed) => typed, pause = 200 }: Settling) {
  const [text, setText] = useState(value)
  const [told, setTold] = useState(value)
  const [shown, setShown] = useState(value)
  const [unanswered, setUnanswered] = useState<string[]>([])
  const settled = useRef(onSettled)
  useEffect(() => {
    settled.current = onSettled
  })
  if (value !== shown) {
    setShown(value)
    const answered = unanswered.findIndex((typed) => value === typed || value === reads(typed))
    setUnanswered(answered < 0 ? [] : unanswered.slice(answered + 1))
    if (answered < 0 && value !== reads(told)) {
      setTold(value)
      setText(value)
    }
  }
  const tell = useCallback((typed: string) => {
    setTold(typed)
    setUnanswered((before) => [...before, typed])
    settled.current(typed)
  }, [])
  const settle = () => {
    if (text !== told) tell(text)
  }
  useEffect(() => {
    if (text === told) return undefined
    const timer = setTimeout(() => tell(text), pause)
    return () => clearTimeout(timer)
  }, [text, told, pause, tell])
  return { text, setText, settle }
}
