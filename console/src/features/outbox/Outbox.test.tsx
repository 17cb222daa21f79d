import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import type { MessageSummary } from '../../api/types'
import { renderAt } from '../../shared/render.test-kit'
import { MessagePage } from './MessagePage'
import { OutboxPage } from './OutboxPage'

const summary: MessageSummary = {
  id: 'm1', rule: 'late-sailings', roundUp: null, subject: '2 critical: Late sailings', slot: '2026-11-24T04:40:00Z', createdAt: '2026-11-24T04:40:01Z',
  recipients: [
    { address: 'ines.holm@skerryline.example', state: 'SENT', tries: 1, nextTry: null, words: '250 2.0.0 queued as T1' },
    { address: 'siv.tangen@skerryline.example', state: 'WAITING', tries: 4, nextTry: '2026-11-24T05:40:00Z', words: '450 mailbox busy' },
  ],
}

const routes = <Routes><Route path="/outbox" element={<OutboxPage />} /><Route path="/outbox/:id" element={<MessagePage />} /></Routes>

test('lists mail with where each recipient stands, and of one rule if asked', async () => {
  const calls = renderAt('/outbox?rule=late-sailings', routes, { 'GET /api/outbox?rule=late-sailings': [summary] })
  expect(await screen.findByRole('link', { name: '2 critical: Late sailings' })).toHaveAttribute('href', '/outbox/m1')
  expect(screen.getByText('sent')).toBeInTheDocument()
  expect(screen.getByText('waiting')).toBeInTheDocument()
  expect(screen.getByText(/Only mail of late-sailings/)).toBeInTheDocument()
  expect(calls).toEqual(['GET /api/outbox?rule=late-sailings'])
})

test('mail about trouble belongs to no rule and leads to none', async () => {
  renderAt('/outbox', routes, { 'GET /api/outbox': [{ ...summary, rule: null, subject: 'Source lake cannot be read' }] })
  const row = within(await screen.findByRole('row', { name: /Source lake cannot be read/ }))
  expect(row.getByText('trouble')).toBeInTheDocument()
  expect(row.getAllByRole('link')).toHaveLength(1)
})

test('an empty outbox says what would fill it', async () => {
  renderAt('/outbox', routes, { 'GET /api/outbox': [] })
  expect(await screen.findByText(/No mail was queued yet/)).toBeInTheDocument()
})

test('one mail is shown as its recipients see it, harmless, and as plain text', async () => {
  renderAt('/outbox/m1', routes, {
    'GET /api/outbox/m1': { message: summary, messageId: '<1@skerryline.example>', text: '2 new; 2 of them critical', attachments: ['late.csv'], tries: [] },
  })
  const frame = await screen.findByTitle('The mail as its recipients see it')
  expect(frame).toHaveAttribute('sandbox', '')
  expect(frame).toHaveAttribute('src', '/api/outbox/m1/html')
  expect(screen.getByText('450 mailbox busy')).toBeInTheDocument()
  expect(screen.getByText('Message-ID <1@skerryline.example>')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'As plain text' }))
  expect(screen.getByText('2 new; 2 of them critical')).toBeInTheDocument()
})
