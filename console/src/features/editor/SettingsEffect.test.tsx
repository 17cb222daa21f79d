import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import type { RuleDocument } from './api'
import { SettingsEffect } from './SettingsEffect'

const rule = { kind: 'rule', name: 'late', title: 'Late', owner: 'Traffic', query: 'sailings' } as RuleDocument
const variant = (without: string | null, messages: number, updates: number) => ({
  thresholds: {},
  exceptions: null,
  without,
  checks: 28,
  messages,
  updates,
  highestExceptions: 3,
  unevaluated: 0,
  slots: [],
})
const done = {
  id: 'w',
  kind: 'BACK_TEST',
  state: 'DONE',
  stepsDone: 28,
  steps: 28,
  requestedAt: '2026-11-24T04:40:00Z',
  endedAt: '2026-11-24T04:41:00Z',
  reason: null,
  result: {
    from: '2026-10-27T04:40:00Z',
    to: '2026-11-24T04:40:00Z',
    warmUp: 0,
    beyondStart: null,
    variants: [variant(null, 1, 2), variant('OPEN_AFTER', 9, 30), variant('REMIND_EVERY', 1, 2)],
  },
}

test('each setting has a sentence of what it would have done', async () => {
  const sent: unknown[] = []
  renderAt('/', <SettingsEffect document={{ ...rule, memory: { open_after: '2 checks', remind_every: '3 days' } }} />, {
    'POST /api/back-tests': (asked: unknown) => {
      sent.push((JSON.parse(String(asked)) as { without: unknown }).without)
      return done
    },
    'GET /api/long-work/w': done,
  })
  await userEvent.click(screen.getByRole('button', { name: 'Show what each setting does' }))
  expect(
    await screen.findByText('Open after 2 checks: 1 message with 2 updates in 28 days; without it 9 messages with 30.'),
  ).toBeInTheDocument()
  expect(screen.getByText('Remind every 3 days: it would have changed nothing in 28 days.')).toBeInTheDocument()
  expect(sent).toEqual([['OPEN_AFTER', 'REMIND_EVERY']])
})

test('without settings there is nothing to try', () => {
  renderAt('/', <SettingsEffect document={{ ...rule, memory: { open_after: '' } }} />, {})
  expect(screen.queryByRole('button')).toBeNull()
  expect(screen.getByText(/no open after/i)).toBeInTheDocument()
})
