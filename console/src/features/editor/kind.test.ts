import type { RuleDocument } from './api'
import { kindOf, ofKind } from './kind'

const rule: RuleDocument = {
  kind: 'rule',
  name: 'late',
  title: 'Late',
  owner: 'Traffic reporting',
  query: 'sailings',
  exceptions: 'delay_min > 15',
  severity: [{ critical: 'delay_min > 45' }, 'warning'],
  memory: { mode: 'incremental', key: ['sailing'], report: ['new'], remind_every: '2 days' },
  delivery: {
    to: ['a@skerryline.example'],
    escalate: { after: '2 hours', to: ['b@skerryline.example'] },
    layout: { still_open: true, whole_report: true, sort: ['sailing'] },
  },
}

test('a plain report keeps its rows, readers and layout, and nothing about findings', () => {
  const plain = ofKind(rule, 'plain')
  expect(kindOf(plain)).toBe('plain')
  expect(plain).not.toHaveProperty('severity')
  expect(plain.memory).toEqual({ mode: 'plain' })
  expect(plain.exceptions).toBe('delay_min > 15')
  expect(plain.delivery).toEqual({ to: ['a@skerryline.example'], layout: { sort: ['sailing'] } })
})

test('a plain report becomes a rule with severities and updates again', () => {
  const again = ofKind(ofKind(rule, 'plain'), 'incremental')
  expect(again.severity).toEqual(['warning'])
  expect(again.memory).toEqual({ mode: 'incremental', report: ['new', 'returned', 'worsened'] })
})

test('between new and everything open, memory is kept', () => {
  expect(ofKind(rule, 'full').memory).toEqual({ ...rule.memory, mode: 'full' })
  expect(ofKind(rule, 'incremental')).toBe(rule)
})

test('a shared layout is left as it is', () => {
  const shared = { ...rule, delivery: { layout: 'daily' } }
  expect(ofKind(shared, 'plain').delivery).toEqual({ layout: 'daily' })
})
