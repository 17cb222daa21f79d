import type { MessageSummary, RecipientState } from '../../api/types'
import { check, lateSailings } from '../../shared/render.test-kit'
import { headline, needsOf } from './needs'

const mail = (state: RecipientState, tries: number): MessageSummary => ({
  id: 'm1', rule: 'late-sailings', roundUp: null, preview: false, repeat: false, held: false, subject: '2 critical', slot: '2026-11-24T04:40:00Z', createdAt: '2026-11-24T04:40:00Z',
  recipients: [{ address: 'siv.tangen@skerryline.example', state, tries, nextTry: null, words: '450 mailbox busy' }],
})

test('mail that is held comes first', () => {
  const [held] = needsOf([], [], [{ id: 1, source: null, rule: null, why: 'restored', by: null, at: '2026-11-24T04:40:00Z', messages: 2 }])
  expect(held).toMatchObject({ what: 'All mail is held, 2 mails waiting', why: 'restored', to: '/outbox' })
})

test('failed checks, critical findings and stuck mail need a person, in that order', () => {
  const needs = needsOf([lateSailings({ latest: [check('FAILED', { reason: 'no answer' })] })], [mail('WAITING', 4)])
  expect(needs.map((need) => need.what)).toEqual([
    'Late sailings without a reason could not be checked', '2 critical findings', 'A mail to siv.tangen@skerryline.example is waiting',
  ])
  expect(headline(needs)).toBe('Three things need a person')
})

test('a check that worked again, mild findings and mail on its way need nobody', () => {
  const calm = lateSailings({ open: { WARNING: 3 }, latest: [check('QUIET'), check('FAILED')] })
  expect(needsOf([calm], [mail('SENT', 1), mail('WAITING', 0)])).toEqual([])
  expect(headline([])).toBe('Nothing needs a person')
})

test('personal copies that failed, and checks that are kept back, come after those that failed as a whole', () => {
  const calm = { open: {} }
  const needs = needsOf([
    lateSailings({ ...calm, title: 'Kept', latest: [check('KEPT_BACK')] }),
    lateSailings({ ...calm, title: 'Partly', latest: [check('PARTLY_FAILED', { reason: '1 of 9 personal copies failed' })] }),
    lateSailings({ ...calm, title: 'Failed', latest: [check('FAILED')] }),
  ], [])
  expect(needs.map((need) => need.what)).toEqual([
    'Failed could not be checked', 'Some personal copies of Partly could not be checked', 'A check of Kept was kept back',
  ])
  expect(needs[1]?.why).toBe('1 of 9 personal copies failed')
})
