import { outcomeWords, plural, stateWords } from './words'
import { check } from './render.test-kit'

test.each([
  [check('QUIET', { unknownRows: 2 }), 'Nothing new, so nothing was mailed. 743 rows read, 20 exceptions, 2 rows unknown since a value is missing.'],
  [check('FIRED', { news: 1, messages: 1 }), '1 finding reported in 1 mail. 743 rows read, 20 exceptions.'],
  [check('FAILED', { reason: 'The source ferry did not answer.' }), 'The check failed. The source ferry did not answer.'],
  [check('OVERTAKEN', { reason: 'A later slot was done already.' }), 'The check ended as overtaken. A later slot was done already.'],
])('tells how a check ended', (ended, words) => expect(outcomeWords(ended)).toBe(words))

test('states are told in words and counts in their number', () => {
  expect(stateWords('OUT_OF_SIGHT')).toBe('out of sight')
  expect(plural(1, 'person', 'people')).toBe('1 person')
  expect(plural(0, 'row')).toBe('0 rows')
})
