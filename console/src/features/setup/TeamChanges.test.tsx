import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { TeamChanges } from './TeamChanges'
import type { Team, TeamDefinition } from './api'

const team: Team = {
  name: 'Båt & last',
  addresses: ['deck@skerryline.example'],
  signature: '',
  hasLogo: false,
  members: [],
}
const path = '/api/teams/B%C3%A5t%20%26%20last'
const rule: TeamDefinition = {
  kind: 'rule',
  name: 'late-sailings',
  title: 'Late sailings',
  owned: true,
  mailed: true,
  shown: false,
  retired: false,
}

function show(list: TeamDefinition[], canChange: boolean, answers: Record<string, unknown> = {}) {
  return renderAt('/', <TeamChanges team={team} others={['Terminal operations']} canChange={canChange} />, {
    [`GET ${path}/definitions`]: list,
    ...answers,
  })
}

test('lists what the team owns and is mailed, and hands everything over', async () => {
  const sent: unknown[] = []
  show(
    [rule, { ...rule, kind: 'round-up', name: 'week', title: 'The week', owned: false, shown: true, retired: true }],
    true,
    {
      [`POST ${path}/hand-over`]: (body: string) => {
        sent.push(JSON.parse(body))
        return [rule]
      },
    },
  )
  expect(await screen.findByText('rule, also mailed')).toBeInTheDocument()
  expect(screen.getByText('round up, is mailed, shown to it, retired')).toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Reason'), 'merged')
  await userEvent.click(screen.getByRole('button', { name: 'Hand over' }))
  expect(sent).toEqual([{ to: 'Terminal operations', reason: 'merged' }])
  expect(screen.queryByRole('button', { name: 'Remove team' })).not.toBeInTheDocument()
})

test('is renamed to another name only', async () => {
  const calls = show([rule], true, { [`POST ${path}/rename`]: team })
  expect(await screen.findByRole('button', { name: 'Rename' })).toBeDisabled()
  await userEvent.type(screen.getByLabelText('Name of the team'), ' & gods')
  await userEvent.click(screen.getByRole('button', { name: 'Rename' }))
  expect(calls).toContain(`POST ${path}/rename`)
})

test('is removed when nothing names it, and changed by nobody else', async () => {
  show([], true)
  expect(await screen.findByRole('button', { name: 'Remove team' })).toBeInTheDocument()
  expect(screen.queryByRole('button', { name: 'Hand over' })).not.toBeInTheDocument()
})

test('offers no change to those who are no operators', async () => {
  show([rule], false)
  expect(await screen.findByRole('link', { name: 'Late sailings' })).toHaveAttribute('href', '/rules/late-sailings')
  expect(screen.queryByRole('button')).not.toBeInTheDocument()
})
