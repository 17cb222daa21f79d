import { useCallback, useContext, useEffect, useState } from 'react'
import { PersonContext } from './person'

type Stored<T> = { value: T; base: number; at: string }

const keyOf = (what: string) => `odd-typed:${what}`

function read<T>(what: string): Stored<T> | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(what)) ?? 'null') as Stored<T> | null
  } catch {
    return null
  }
}

/**
 * What a person types in an editor, kept in the browser until it is saved, so that neither the back button nor a lost connection nor an
 * expired log-in loses it.
 *
 * @param of the thing that is edited; each person's is kept apart
 * @param saved what is saved of it, and its revision
 */
export function useKept<T>(of: string, saved: T, revision: number) {
  const what = `${useContext(PersonContext)?.login ?? ''}:${of}`
  const [start] = useState(() => read<T>(what))
  const [value, setValue] = useState<T>(start?.value ?? saved)
  const [base, setBase] = useState(start?.base ?? revision)
  const [found, setFound] = useState(start?.at ?? null)
  const [dirty, setDirty] = useState(start !== null)
  useEffect(() => {
    if (!dirty) return
    try {
      localStorage.setItem(
        keyOf(what),
        JSON.stringify({ value, base, at: new Date().toISOString() } satisfies Stored<T>),
      )
    } catch {
      // Without room in the browser the page still works; it only forgets when it is left.
    }
  }, [what, value, base, dirty])
  const change = useCallback((next: T | ((before: T) => T)) => {
    setDirty(true)
    setValue(next)
  }, [])
  const forget = useCallback(() => {
    localStorage.removeItem(keyOf(what))
    setDirty(false)
    setFound(null)
  }, [what])
  /** Back to what is saved. */
  const reset = useCallback(
    (to: T, at: number) => {
      forget()
      setValue(to)
      setBase(at)
    },
    [forget],
  )
  return { value, change, base, setBase, dirty, found, forget, reset }
}
