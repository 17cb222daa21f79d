import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { AuditPanel } from './AuditPanel'
import { actWords, addressOf } from './acts'
import type { AuditEntry } from './api'

const entry = (id: number, more: Partial<AuditEntry> = {}): AuditEntry => ({
  id,
  at: '2026-11-24T04:40:00Z',
  login: 'ines',
  name: 'Ines Holm',
  act: 'SAVE_RULE',
  kind: 'CHANGES',
  subject: 'late-sailings',
  detail: 'the winter timetable',
  ...more,
})
const answers = {
  'GET /api/people?disabled=true': [{ login: 'ines', name: 'Ines Holm' }],
  'GET /api/audit?kind=CHANGES': { entries: [entry(9)], next: 9 },
  'GET /api/audit?kind=CHANGES&before=9': { entries: [entry(8, { act: 'PAUSE_RULE', detail: null })], next: null },
  'GET /api/audit?kind=LOG_INS': {
    entries: [entry(7, { act: 'LOG_IN_REFUSED', kind: 'LOG_INS', login: null, name: null, subject: 'ines' })],
    next: null,
  },
  'GET /api/audit?kind=LOG_INS&by=ines': { entries: [], next: null },
}

test('changes are shown first, with who, what and the reason, and earlier ones when asked', async () => {
  renderAt('/', <AuditPanel />, answers)
  const first = within((await screen.findByText('save rule')).closest('tr') as HTMLElement)
  expect(first.getByText('Ines Holm')).toBeInTheDocument()
  expect(first.getByRole('link', { name: 'late-sailings' })).toHaveAttribute('href', '/rules/late-sailings')
  expect(first.getByText('the winter timetable')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Show earlier' }))
  expect(await screen.findByText('pause rule')).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Show earlier' })).toBeNull()
})

test('log-ins are asked for by person, also as a file', async () => {
  renderAt('/', <AuditPanel />, answers)
  await userEvent.selectOptions(await screen.findByLabelText('Show'), 'Log-ins')
  expect(await screen.findByText('log in refused')).toBeInTheDocument()
  expect(screen.getByText('nobody')).toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('By'), 'Ines Holm')
  expect(await screen.findByText('Nothing matches.')).toBeInTheDocument()
  expect(screen.getByRole('link', { name: 'CSV' })).toHaveAttribute('href', '/api/audit.csv?kind=LOG_INS&by=ines')
})

test('what an act is about leads to its page where there is one', () => {
  expect(actWords('LOG_IN_REFUSED')).toBe('log in refused')
  expect(addressOf({ act: 'SET_THRESHOLD', subject: 'late_minutes' })).toBe('/thresholds/late_minutes')
  expect(addressOf({ act: 'SAVE_RULE', subject: '../setup' })).toBeNull()
  expect(addressOf({ act: 'DISABLE_PERSON', subject: 'per' })).toBeNull()
})
