import { useState } from 'react'
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { Route, Routes } from 'react-router'
import { renderAt } from '../../shared/render.test-kit'
import { ownedBy, SharedBelongingFields } from './Belonging'

const answers = {
  'GET /api/teams': ['Traffic reporting', 'Terminal operations', 'Fleet'].map((name) => ({
    name,
    addresses: [],
    members: [],
  })),
}

type Written = { owner?: string; visible_to?: string[] }

function shown(start: Written) {
  const written: { now: Written } = { now: start }
  function Form() {
    const [value, setValue] = useState<Written>(start)
    written.now = value
    return <SharedBelongingFields value={value} onChange={(part) => setValue({ ...value, ...part } as Written)} />
  }
  renderAt(
    '/',
    <Routes>
      <Route path="/" element={<Form />} />
    </Routes>,
    answers,
  )
  return written
}

const who = () => screen.getByLabelText('Who sees it')

test('what belongs to all teams is seen by everybody', async () => {
  const written = shown({})
  expect(screen.queryByLabelText('Who sees it')).not.toBeInTheDocument()
  await userEvent.type(screen.getByLabelText('Owner (team)'), 'Fleet')
  expect(who()).toHaveDisplayValue('Everybody')
  expect(written.now).toEqual({ owner: 'Fleet', visible_to: [] })
})

test('it is hidden from others, and shown to chosen teams', async () => {
  const written = shown({ owner: 'Traffic reporting' })
  await userEvent.selectOptions(who(), 'Only Traffic reporting')
  expect(written.now.visible_to).toEqual(['Traffic reporting'])
  await screen.findByRole('option', { name: 'Traffic reporting and other teams' })
  await userEvent.selectOptions(who(), 'Traffic reporting and other teams')
  await userEvent.click(screen.getByLabelText('Fleet'))
  expect(written.now.visible_to).toEqual(['Traffic reporting', 'Terminal operations', 'Fleet'])
  await userEvent.click(screen.getByLabelText('Terminal operations'))
  await userEvent.click(screen.getByLabelText('Fleet'))
  expect(who()).toHaveDisplayValue('Only Traffic reporting')
  await userEvent.selectOptions(who(), 'Everybody')
  expect(written.now.visible_to).toEqual([])
})

test('a team that is not entered any longer stays among those that see it', async () => {
  shown({ owner: 'Fleet', visible_to: ['Fleet', 'Harbour'] })
  expect(await screen.findByLabelText('Harbour')).toBeChecked()
})

test.each([
  [{ owner: 'Fleet', visible_to: ['Fleet'] }, 'Harbour', ['Harbour']],
  [{ owner: 'Fleet', visible_to: ['Fleet', 'Harbour'] }, 'Harbour', ['Harbour']],
  [{ owner: 'Fleet', visible_to: ['Harbour'] }, 'Traffic reporting', ['Traffic reporting', 'Harbour']],
  [{ owner: 'Fleet' }, 'Harbour', []],
])('under another owner it stays hidden from others: %o', (value, owner, expected) => {
  expect(ownedBy(value, owner).visible_to).toEqual(expected)
})
