import { newRuleOf, valuesIn } from './newRule'

test('values that were tried go along to the new rule, whatever is in them', () => {
  const values = { since: 'today - 3 days', route: 'Måkehamn & Holm=1', empty: '' }
  const address = newRuleOf('sailings-lately', values)
  const search = new URLSearchParams(address.slice(address.indexOf('?')))
  expect(search.get('query')).toBe('sailings-lately')
  expect(valuesIn(search)).toEqual({ parameters: { since: 'today - 3 days', route: 'Måkehamn & Holm=1' } })
  expect(valuesIn(new URLSearchParams('query=x'))).toEqual({})
})
