import { mayDo, type Right } from './may'
import type { Person } from '../api/types'

const rights: Right[] = ['handle', 'look', 'try', 'write', 'lead', 'operate']
const can = (role: Person['role'], teamsDecide: boolean, owner: string) =>
  rights.filter((right) => mayDo({ role, teams: ['Deck'] }, teamsDecide, right, owner))

test.each<[Person['role'], boolean, string, Right[]]>([
  ['READER', true, 'Deck', ['handle']],
  ['ANALYST', true, 'Deck', ['handle', 'look', 'try', 'write']],
  ['ANALYST', true, 'Engine', ['handle', 'look', 'try']],
  ['ANALYST', false, 'Engine', ['handle', 'look', 'try', 'write', 'lead']],
  ['LEAD', true, 'Deck', ['handle', 'look', 'try', 'write', 'lead']],
  ['LEAD', true, 'Engine', ['handle', 'look', 'try']],
  ['OPERATOR', true, 'Engine', rights],
  ['AUDITOR', true, 'Deck', ['look']],
  ['AUDITOR', false, 'Deck', ['look']],
])('%s, teams decide %s, owned by %s: may %j', (role, teamsDecide, owner, may) => {
  expect(can(role, teamsDecide, owner)).toEqual(may)
})

test('what every team shares is changed by every analyst', () => {
  expect(mayDo({ role: 'ANALYST', teams: [] }, true, 'write')).toBe(true)
  expect(mayDo({ role: 'ANALYST', teams: [] }, true, 'lead')).toBe(false)
})
