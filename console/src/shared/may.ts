import { queryOptions, useQuery } from '@tanstack/react-query'
import { api } from '../api/client'
import type { Person, Schemas } from '../api/types'
import { usePerson } from './person'

/** What somebody must be allowed to do, as the service names it (docs/access.md). */
export type Right = 'handle' | 'look' | 'try' | 'write' | 'lead' | 'operate'

const order: Person['role'][] = ['READER', 'ANALYST', 'LEAD', 'OPERATOR']
const least: Record<Right, Person['role']> = {
  handle: 'READER',
  look: 'ANALYST',
  try: 'ANALYST',
  write: 'ANALYST',
  lead: 'LEAD',
  operate: 'OPERATOR',
}

export const accessPolicy = queryOptions({
  queryKey: ['access-policy'],
  queryFn: () => api.get<Schemas['AccessPolicyView']>('/api/access-policy'),
  staleTime: 60_000,
  retry: false,
})

/** Whether the service would let a person do it. @param owner the team that owns what it is about; none for what teams share */
export function mayDo(
  person: Pick<Person, 'role' | 'teams'>,
  teamsDecide: boolean,
  right: Right,
  owner?: string,
): boolean {
  if (person.role === 'AUDITOR') return right === 'look'
  const needed = right === 'lead' && !teamsDecide ? 'ANALYST' : least[right]
  if (order.indexOf(person.role) < order.indexOf(needed)) return false
  const ofTeam = right === 'write' || right === 'lead'
  return !teamsDecide || !ofTeam || owner === undefined || person.role === 'OPERATOR' || person.teams.includes(owner)
}

/** What the person who is logged in may do. The service decides again. */
export function useMay(): (right: Right, owner?: string) => boolean {
  const person = usePerson()
  const policy = useQuery(accessPolicy)
  return (right, owner) => mayDo(person, policy.data?.teamsDecide ?? false, right, owner)
}
