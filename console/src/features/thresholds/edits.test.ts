import { withSuggested } from './edits'
test.each([
  [[], '2026-11-29', [['2026-11-29', '22']]],
  [
    [{ id: 0, key: [], from: '', number: '15' }],
    '2026-11-29',
    [
      ['', '15'],
      ['2026-11-29', '22'],
    ],
  ],
  [[{ id: 3, key: [], from: '2026-11-29', number: '15' }], '2026-11-29', [['2026-11-29', '22']]],
])('to %j a suggested value is added from today on', (lines, today, after) => {
  const suggested = withSuggested(lines, '22', today, 0)
  expect(suggested.map(({ from, number }) => [from, number])).toEqual(after)
  expect(new Set(suggested.map(({ id }) => id)).size).toBe(suggested.length)
})

test('a threshold by key has no single value to suggest', () => {
  const lines = [{ id: 0, key: ['Holm'], from: '', number: '15' }]
  expect(withSuggested(lines, '22', '2026-11-29', 1)).toBe(lines)
})
