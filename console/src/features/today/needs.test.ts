import type { MessageSummary, RecipientState } from '../../api/types'
import { dot, lateSailings } from '../../shared/render.test-kit'
import type { DaySeen, OpenOfRule } from './api'
import { headline, needsOf, type Standing } from './needs'

const mail = (state: RecipientState, tries: number): MessageSummary => ({
  id: 'm1',
  rule: 'late-sailings',
  roundUp: null,
  preview: false,
  repeat: false,
  held: false,
  collection: false,
  question: false,
  subject: '2 critical',
  slot: '2026-11-24T04:40:00Z',
  createdAt: '2026-11-24T04:40:00Z',
  recipients: [
    {
      address: 'siv.tangen@skerryline.example',
      state,
      tries,
      nextTry: null,
      detail: '450 mailbox busy',
      settledAt: null,
      collectedIn: null,
    },
  ],
})

const openCritical: OpenOfRule = {
  rule: 'late-sailings',
  title: 'Late sailings without a reason',
  open: { CRITICAL: 2 },
  looks: {},
  criticalUnhandled: 2,
  newToday: 1,
  cleared: 0,
  oldest: '2026-11-24T04:40:00Z',
  taken: 0,
  takenBy: [],
  lastReported: null,
  lastRecipients: 0,
}
const day = (more: Partial<DaySeen>): DaySeen => ({
  from: '2026-11-23T23:00:00Z',
  now: '2026-11-24T12:00:00Z',
  until: '2026-11-24T23:00:00Z',
  outcomes: {},
  lanes: [],
  moreLanes: 0,
  others: 0,
  open: [],
  sent: 0,
  queued: 0,
  ...more,
})
const needs = (standing: Partial<Standing>) =>
  needsOf({ rules: [], messages: [], holds: [], blockedAddresses: [], day: null, ...standing })

test('mail that is held comes first', () => {
  const [held] = needs({
    holds: [{ id: 1, source: null, rule: null, reason: 'restored', by: null, at: '2026-11-24T04:40:00Z', messages: 2 }],
  })
  expect(held).toMatchObject({ what: 'All mail is held, 2 messages queued', why: 'restored', to: '/outbox' })
})

test('failed checks, critical findings in no hands and stuck mail need a person, in that order', () => {
  const found = needs({
    rules: [lateSailings({ latest: [dot('FAILED', { reason: 'no answer' })] })],
    messages: [mail('QUEUED', 4)],
    day: day({ open: [openCritical] }),
  })
  expect(found.map((need) => need.what)).toEqual([
    'Late sailings without a reason could not be checked',
    '2 critical findings not taken',
    'A message to siv.tangen@skerryline.example is queued',
  ])
  expect(found[0]?.check).toBe('late-sailings')
  expect(headline(found)).toBe('Three things need attention')
})

test('a check that worked again, findings in hands and mail on its way need nobody', () => {
  const calm = lateSailings({ latest: [dot('QUIET'), dot('FAILED')] })
  expect(
    needs({
      rules: [calm],
      messages: [mail('SENT', 1), mail('QUEUED', 0)],
      day: day({ open: [{ ...openCritical, criticalUnhandled: 0, taken: 2 }] }),
    }),
  ).toEqual([])
  expect(headline([])).toBe('Nothing needs attention')
})

test('rules that failed of one cause are one need, and lead to the source', () => {
  const down = { latest: [dot('FAILED', { reason: 'The source ferry could not be reached.' })] }
  const found = needs({ rules: [lateSailings(down), lateSailings({ ...down, name: 'headcount', title: 'Headcount' })] })
  expect(found.map(({ what, to }) => [what, to])).toEqual([['2 rules on ferry could not be checked', '/setup']])
})

test('a rule whose slot has gone by unchecked is told as late', () => {
  const lane = {
    rule: 'gate-uploads',
    title: 'Gate uploads',
    checks: [],
    toCome: [],
    lateSince: '2026-11-24T10:00:00Z',
    pending: 0,
  }
  expect(needs({ day: day({ lanes: [lane] }) })[0]?.what).toBe('Gate uploads is late')
})

test('personal copies that failed, and checks that are awaiting approval, each say so', () => {
  const calm = { open: {} }
  const found = needs({
    rules: [
      lateSailings({ ...calm, title: 'Kept', latest: [dot('AWAITING_APPROVAL')] }),
      lateSailings({
        ...calm,
        title: 'Partly',
        latest: [dot('PARTLY_FAILED', { reason: '1 of 9 personal copies failed' })],
      }),
    ],
  })
  expect(found.map((need) => need.what)).toEqual([
    'Some personal copies of Partly could not be checked',
    'A check of Kept awaits approval',
  ])
  expect(found[0]?.why).toContain('1 of 9 personal copies failed')
})
