import examples from '../../../../contract/rule-filters.json'
import type { RuleSummary } from '../../api/types'
import { filterOf, matching, searchOf } from './filter'

const found = (search: string) =>
  matching(examples.rules as unknown as RuleSummary[], filterOf(new URLSearchParams(search))).map((rule) => rule.name)

/** The command line finds the same. */
test.each(examples.cases)('$filter finds $finds', ({ filter, finds }) => expect(found(filter)).toEqual(finds))

test('an order that is none is left out', () => {
  expect(found('sort=never')).toEqual(found(''))
})

test('a filter comes back from its address', () => {
  const search = 'q=fog&state=ACTIVE&outcome=FIRED&label=daily&owner=Traffic&open=yes'
  expect(searchOf(filterOf(new URLSearchParams(search))).toString()).toBe(search)
})
