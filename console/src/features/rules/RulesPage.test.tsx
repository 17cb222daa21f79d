import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { dot, lateSailings, renderAt } from '../../shared/render.test-kit'
import { RulesPage } from './RulesPage'

const answers = { 'GET /api/filters': [], 'GET /api/teams': [{ name: 'Crew', addresses: [] }] }

test('each rule shows its state, what is open, its last check, its next and who is mailed', async () => {
  renderAt('/rules', <RulesPage />, {
    ...answers,
    'GET /api/rules': [
      lateSailings({ latest: [dot('FAILED')] }),
      lateSailings({ name: 'new', title: 'New one', open: {}, state: 'DRAFT', nextSlot: null, named: [] }),
    ],
  })
  const failing = within(
    (await screen.findByRole('link', { name: 'Late sailings without a reason' })).closest('tr') ?? document.body,
  )
  expect(failing.getByText('failed')).toBeInTheDocument()
  expect(failing.getByText('18 warning')).toBeInTheDocument()
  expect(failing.getByRole('link', { name: 'ines.holm@skerryline.example' })).toHaveAttribute(
    'href',
    '/recipients/ines.holm%40skerryline.example',
  )
  const draft = within(screen.getByRole('link', { name: 'New one' }).closest('tr') ?? document.body)
  expect(draft.getByText('draft')).toBeInTheDocument()
  expect(draft.getByText('never')).toBeInTheDocument()
  expect(draft.getByText('not checked yet')).toBeInTheDocument()
  expect(draft.getAllByText('none')).not.toHaveLength(0)
})

test('many are acted on only after the list of what would be done', async () => {
  const asked: unknown[] = []
  const done = (sent: unknown) => {
    asked.push(JSON.parse(String(sent)))
    return [
      { rule: 'late-sailings', title: 'Late sailings', result: 'from Traffic reporting to Crew', refused: null },
      { rule: 'fuel', title: 'Fuel', result: '', refused: 'It is owned by Crew already.' },
    ]
  }
  renderAt('/rules', <RulesPage />, {
    ...answers,
    'GET /api/rules': [lateSailings(), lateSailings({ name: 'fuel', title: 'Fuel' })],
    'POST /api/bulk-actions?apply=false': done,
    'POST /api/bulk-actions?apply=true': done,
  })
  await userEvent.click(await screen.findByLabelText('Select all results'))
  await userEvent.selectOptions(screen.getByLabelText('Action'), 'Hand over')
  await userEvent.type(screen.getByLabelText('to the team'), 'Crew')
  await userEvent.click(screen.getByRole('button', { name: 'Preview' }))
  expect(await screen.findByText('from Traffic reporting to Crew')).toBeInTheDocument()
  expect(screen.getByText('Not changed: It is owned by Crew already.')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Hand over: 1 rule' }))
  expect(await screen.findByText('Changed: 1 rule.')).toBeInTheDocument()
  expect(asked).toHaveLength(2)
  expect(asked[1]).toMatchObject({ action: 'HAND_OVER', rules: ['late-sailings', 'fuel'], owner: 'Crew' })
})

test('a filter is saved for a team, stands beside the ones of others, and is removed for its team', async () => {
  const mine = { name: 'Late', filter: 'state=PAUSED', team: null, savedBy: 'Ines Holm' }
  const crew = { name: 'Late', filter: 'q=late', team: 'Crew', savedBy: 'Ines Holm' }
  const sent: unknown[] = []
  const calls = renderAt('/rules?q=late', <RulesPage />, {
    ...answers,
    'GET /api/filters': [mine],
    'GET /api/rules': [lateSailings()],
    'PUT /api/filters/Late': (body: string) => {
      sent.push(JSON.parse(body))
      return [mine, crew]
    },
    'DELETE /api/filters/Late?team=Crew': [mine],
  })
  await userEvent.type(await screen.findByLabelText('Name for this filter'), 'Late')
  await userEvent.selectOptions(await screen.findByLabelText('Who uses this filter'), 'for Crew')
  await userEvent.click(screen.getByRole('button', { name: 'Save' }))
  expect(await screen.findByRole('button', { name: 'Late (Crew)' })).toHaveAttribute('aria-pressed', 'true')
  expect(screen.getByRole('button', { name: 'Late' })).toHaveAttribute('aria-pressed', 'false')
  expect(sent).toEqual([{ filter: 'q=late', team: 'Crew' }])
  await userEvent.click(screen.getByRole('button', { name: /^Remove the filter/ }))
  expect(calls).toContain('DELETE /api/filters/Late?team=Crew')
})
