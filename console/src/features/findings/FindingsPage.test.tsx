import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { vi } from 'vitest'
import { lateSailings, renderAt } from '../../shared/render.test-kit'
import { FindingsPage } from './FindingsPage'

const finding = (id: number, more = {}) => ({
  id,
  rule: 'late-sailings',
  title: 'Late sailings',
  copy: null,
  identity: `SK-${id}`,
  state: 'OPEN',
  severity: 'CRITICAL',
  openedAt: '2026-11-24T04:40:00Z',
  changedAt: '2026-11-24T04:40:00Z',
  noData: false,
  handling: [],
  cells: [
    { label: 'Sailing', text: `SK-${id}` },
    { label: 'Reason', text: null },
  ],
  ...more,
})
const list = { total: 2, byRule: { 'late-sailings': 2 }, findings: [finding(1), finding(2)], next: null }

const body = (sent: unknown) => JSON.parse(String(sent)) as Record<string, unknown>

test('several are handled in one request, and what could not be done is counted', async () => {
  const sent: unknown[] = []
  renderAt('/findings', <FindingsPage />, {
    'GET /api/rules': [lateSailings()],
    'GET /api/findings': list,
    'POST /api/findings/handling': (asked: unknown) => {
      sent.push(body(asked))
      return { handled: 1, cleared: 1, unchanged: 0, missing: 0 }
    },
  })
  await userEvent.click(await screen.findByLabelText('Select all'))
  await userEvent.click(screen.getByRole('button', { name: 'Take' }))
  expect(await screen.findByText('Done for 1 finding. 1 has cleared.')).toBeInTheDocument()
  expect(sent).toEqual([
    { findings: [1, 2], filter: null, expected: null, kind: 'TAKE', note: '', until: null, withdraw: false },
  ])
  await userEvent.selectOptions(screen.getByLabelText(/Action for/), 'Add note')
  await userEvent.type(screen.getByLabelText('Note'), 'Called Holm')
  await userEvent.click(screen.getByRole('button', { name: 'Add note' }))
  expect(sent.at(-1)).toMatchObject({ kind: null, note: 'Called Holm' })
})

test('all that match are chosen over pages with the filter that a person saw', async () => {
  const sent: unknown[] = []
  renderAt('/findings?handling=BY_NOBODY', <FindingsPage />, {
    'GET /api/rules': [lateSailings()],
    'GET /api/findings?handling=BY_NOBODY': { ...list, total: 3, next: 'b' },
    'GET /api/findings?handling=BY_NOBODY&after=b': { ...list, total: 3, findings: [finding(3)], next: null },
    'POST /api/findings/handling': (asked: unknown) => {
      sent.push(body(asked))
      return { handled: 3, cleared: 0, unchanged: 0, missing: 0 }
    },
  })
  await userEvent.click(await screen.findByLabelText('Select all'))
  expect(screen.getByText('2 findings selected')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Select all 3 findings' }))
  expect(screen.getByText('3 findings selected')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Take' }))
  await vi.waitFor(() => expect(sent).toHaveLength(1))
  expect(sent[0]).toMatchObject({
    findings: null,
    filter: { handling: 'BY_NOBODY', rule: null, severity: null, state: null, q: null },
    expected: 3,
  })
  await userEvent.click(screen.getByRole('button', { name: 'Show more' }))
  expect(await screen.findByText('SK-3')).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Show more' })).toBeNull()
})

test('the address says what is sought', async () => {
  const calls = renderAt('/findings?rule=late-sailings&severity=CRITICAL', <FindingsPage />, {
    'GET /api/rules': [lateSailings()],
    'GET /api/findings?rule=late-sailings&severity=CRITICAL': { total: 0, byRule: {}, findings: [], next: null },
  })
  expect(await screen.findByText('No findings match.')).toBeInTheDocument()
  await vi.waitFor(() => expect(calls).toContain('GET /api/findings?rule=late-sailings&severity=CRITICAL'))
})
