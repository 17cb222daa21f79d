import { screen, within } from '@testing-library/react'
import { dot, lateSailings, renderAt } from '../../shared/render.test-kit'
import { RulesPage } from './RulesPage'

test('each rule shows its state, what is open, its last check and its next', async () => {
  renderAt('/rules', <RulesPage />, { 'GET /api/rules': [lateSailings({ latest: [dot('FAILED')] }), lateSailings({ name: 'new', title: 'New one', open: {}, state: 'DRAFT', nextSlot: null })] })
  const failing = within((await screen.findByRole('link', { name: 'Late sailings without a reason' })).closest('tr') ?? document.body)
  expect(failing.getByText('failed')).toBeInTheDocument()
  expect(failing.getByText('18 warning')).toBeInTheDocument()
  const draft = within(screen.getByRole('link', { name: 'New one' }).closest('tr') ?? document.body)
  expect(draft.getByText('draft')).toBeInTheDocument()
  expect(draft.getByText('never')).toBeInTheDocument()
  expect(draft.getByText('not checked yet')).toBeInTheDocument()
})
