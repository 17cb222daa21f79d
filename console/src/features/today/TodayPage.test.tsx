import { screen, within } from '@testing-library/react'
import { check, lateSailings, renderAt } from '../../shared/render.test-kit'
import { TodayPage } from './TodayPage'

test('says first what needs a person, then how the checks went and what is open', async () => {
  renderAt('/today', <TodayPage />, {
    'GET /api/rules': [lateSailings({ latest: [check('QUIET'), check('FIRED')] }), lateSailings({ name: 'headcount', title: 'Headcount', open: {}, state: 'PAUSED' })],
    'GET /api/outbox': [], 'GET /api/holds': [],
  })
  expect(await screen.findByRole('heading', { level: 1, name: 'One thing needs a person' })).toBeInTheDocument()
  expect(screen.getByText(/1 rule is active\. The next check is/)).toBeInTheDocument()
  expect(screen.getByRole('img', { name: 'Last 2 checks: 1 fired, 0 failed, 1 others' })).toBeInTheDocument()
  const open = within(screen.getByRole('heading', { name: 'Open findings' }).closest('section') ?? document.body)
  expect(open.getByText('2 critical')).toBeInTheDocument()
  expect(open.queryByText('Headcount')).not.toBeInTheDocument()
})

test('a service that fails is told in words', async () => {
  renderAt('/today', <TodayPage />, { 'GET /api/rules': () => Response.json({ detail: 'The log has it under 42.' }, { status: 500 }) })
  expect(await screen.findByRole('alert')).toHaveTextContent('The rules could not be loaded. The log has it under 42.')
})
