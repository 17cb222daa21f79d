import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { renderAt } from '../../shared/render.test-kit'
import { PeopleField } from './PeopleField'
import { listOf, objection, withNew } from './recipients'

const known = { teams: ['Traffic reporting'], logins: ['ines'], lists: ['harbour-masters'] }

test.each([
  ['ines.holm@skerryline.example', null],
  ['Ines Holm <ines.holm@skerryline.example>', null],
  ['"Holm, Ines" <ines.holm@skerryline.example>', null],
  ['team: Traffic reporting', null],
  ['person: ines', null],
  ['ines.holm', '"ines.holm" is not an address. Examples: name@company.example, team: NAME'],
  [
    'ines@holm@skerryline.example',
    '"ines@holm@skerryline.example" is not an address. Examples: name@company.example, team: NAME',
  ],
  ['ines@mailhost', null],
  ['team: Traffic', 'There is no team "Traffic".'],
  ['list: harbour-masters', null],
  ['list: pilots', 'There is no list "pilots".'],
  ['person: per', 'There is no user "per".'],
])('%s: %s', (text, words) => {
  expect(objection(text, known)).toBe(words)
})

test.each([
  ['a@b.example; c@d.example,', ['a@b.example', 'c@d.example']],
  ['"Holm, Ines" <a@b.example>, c@d.example', ['"Holm, Ines" <a@b.example>', 'c@d.example']],
  [' , ;', []],
])('%s is read as %j', (text, list) => {
  expect(listOf(text)).toEqual(list)
})

test('nobody is in the list twice', () => {
  expect(withNew(['a@b.example'], ['A@b.example', 'c@d.example', 'c@D.example'])).toEqual([
    'a@b.example',
    'c@d.example',
  ])
})

function Field({ told }: { told: (recipients: string[]) => void }) {
  const [value, setValue] = useState<string[]>(['per.aune@skerryline.example'])
  return (
    <PeopleField
      id="to"
      label="To"
      value={value}
      onChange={(next) => {
        setValue(next)
        told(next)
      }}
    />
  )
}

const shown = () => {
  const told = vi.fn<(recipients: string[]) => void>()
  renderAt('/', <Field told={told} />, {
    'GET /api/people': [
      { login: 'ines', name: 'Ines Holm', email: 'ines.holm@skerryline.example', role: 'ANALYST', teams: [] },
    ],
    'GET /api/teams': [{ name: 'Traffic reporting', addresses: ['ines.holm@skerryline.example'], members: [] }],
  })
  return told
}

test('recipients are added by Enter, by comma and by leaving the field, and removed one by one', async () => {
  const told = shown()
  const field = screen.getByLabelText('To')
  await userEvent.type(field, 'a@skerryline.example{Enter}b@skerryline.example,c@skerryline.example')
  await userEvent.tab()
  expect(told).toHaveBeenLastCalledWith([
    'per.aune@skerryline.example',
    'a@skerryline.example',
    'b@skerryline.example',
    'c@skerryline.example',
  ])
  await userEvent.click(screen.getByRole('button', { name: 'Remove per.aune@skerryline.example' }))
  expect(told).toHaveBeenLastCalledWith(['a@skerryline.example', 'b@skerryline.example', 'c@skerryline.example'])
})

test('what is no address stays in the field and is marked there, and the others are taken', async () => {
  const told = shown()
  const field = screen.getByLabelText('To')
  await userEvent.click(field)
  await userEvent.paste('nobody; d@skerryline.example')
  await userEvent.tab()
  expect(told).toHaveBeenLastCalledWith(['per.aune@skerryline.example', 'd@skerryline.example'])
  expect(field).toHaveValue('nobody')
  expect(field).toBeInvalid()
  expect(screen.getByRole('alert')).toHaveTextContent('"nobody" is not an address.')
})

test('a team that is known goes in as soon as it is chosen', async () => {
  const told = shown()
  await screen.findByText('ines.holm@skerryline.example', { selector: 'option' })
  await userEvent.type(screen.getByLabelText('To'), 'team: Traffic reporting')
  expect(told).toHaveBeenLastCalledWith(['per.aune@skerryline.example', 'team: Traffic reporting'])
})
