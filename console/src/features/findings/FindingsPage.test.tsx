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
const list = { total: 2, byRule: { 'late-sailings': 2 }, findings: [finding(1), finding(2)] }

test('several are taken at once, and one that is refused keeps no other from it', async () => {
  const calls = renderAt('/findings', <FindingsPage />, {
    'GET /api/rules': [lateSailings()],
    'GET /api/findings': list,
    'POST /api/rules/late-sailings/handling': (sent: unknown) =>
      String(sent).includes('"finding":2')
        ? Response.json({ detail: 'The finding has cleared.' }, { status: 409 })
        : {},
  })
  await userEvent.click(await screen.findByLabelText('Select all'))
  await userEvent.click(screen.getByRole('button', { name: 'Take' }))
  expect(await screen.findByText('The finding has cleared.')).toBeInTheDocument()
  expect(calls.filter((call) => call.startsWith('POST'))).toHaveLength(2)
})

test('the address says what is sought', async () => {
  const calls = renderAt('/findings?rule=late-sailings&severity=CRITICAL', <FindingsPage />, {
    'GET /api/rules': [lateSailings()],
    'GET /api/findings?rule=late-sailings&severity=CRITICAL': { total: 0, byRule: {}, findings: [] },
  })
  expect(await screen.findByText('No findings match.')).toBeInTheDocument()
  await vi.waitFor(() => expect(calls).toContain('GET /api/findings?rule=late-sailings&severity=CRITICAL'))
})
