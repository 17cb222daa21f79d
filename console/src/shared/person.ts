import { createContext, useContext } from 'react'
import type { Person } from '../api/types'

export const PersonContext = createContext<Person | null>(null)

/** Who is logged in. */
export function usePerson(): Person {
  const person = useContext(PersonContext)
  if (!person) throw new Error('no page is shown to nobody')
  return person
}
