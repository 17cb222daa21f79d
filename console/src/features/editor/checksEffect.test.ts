import { check } from '../../shared/render.test-kit'
import { metBy, millisOf } from './checksEffect'

test.each([
  ['10 minutes', 600_000],
  ['1 hour', 3_600_000],
  [' 30 seconds ', 30_000],
  ['3 days', 259_200_000],
  ['', null],
  ['soon', null],
  ['10 fortnights', null],
])('%s is %s ms', (text, millis) => expect(millisOf(text)).toBe(millis))

test('each limit is held against the checks that have ended', () => {
  const checks = [
    check('RUNNING', { tookMillis: null }),
    check('FIRED', { tookMillis: 61_000, opened: 12, cleared: 1, attempt: 2 }),
    check('FAILED', { tookMillis: 5_000, rowsRead: null }),
    check('QUIET', { tookMillis: 1_000, rowsRead: 0, cleared: 7, slot: '2026-11-01T04:40:00Z' }),
  ]
  expect(metBy(checks, '1 minute')).toEqual({
    checks: 3,
    since: '2026-11-01T04:40:00Z',
    longestMillis: 61_000,
    overLimit: 1,
    failed: 1,
    retries: 1,
    withoutRows: 1,
    mostOpened: 12,
    mostCleared: 7,
  })
  expect(metBy(checks, '')?.overLimit).toBeNull()
})

test('a rule without an ended check has met nothing', () => {
  expect(metBy([], '1 minute')).toBeNull()
  expect(metBy([check('RUNNING')], '1 minute')).toBeNull()
})
