import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { covered } from '../editor/covered'
import { MoreFields } from './MoreFields'
import { entryOf, listOfText, listText, withField, type DocumentSchema, type Values } from './schema'
import { renderAt } from '../../shared/render.test-kit'
import written from '../../../../contract/definition.schema.json'

const schema = written as unknown as DocumentSchema

const field = (part: string, name: string) => {
  const found = schema.$defs[part]?.properties?.[name]
  if (!found) throw new Error(`no field ${part}.${name}`)
  return found
}

test.each([
  ['memory', 'confirm_after', { is: 'text' }],
  ['memory', 'max_opened', { is: 'number', least: 1, most: 999_999_999 }],
  ['memory', 'max_cleared', { is: 'text' }],
  ['schedule', 'missed', { is: 'choice', options: ['latest', 'each', 'skip'] }],
  ['schedule', 'except', { is: 'list' }],
  ['schedule', 'ready_when', { is: 'part', part: 'ready_when' }],
  ['schedule', 'after', { is: 'parts', part: 'after', alone: 'rule' }],
  ['after', 'on', { is: 'list', options: ['fired', 'quiet', 'failed', 'no_rows'] }],
  ['delivery', 'split_to', { is: 'map' }],
  ['delivery', 'allow_unsubscribe', { is: 'check' }],
  ['delivery', 'also_send', { is: 'parts', part: 'also_send', alone: 'query' }],
])('%s.%s has its way of entry', (part, name, entry) => expect(entryOf(field(part, name), schema)).toEqual(entry))

test('every field that a step is said to have is one', () => {
  for (const [part, names] of Object.entries(covered)) for (const name of names) field(part, name)
})

test.each([
  ['a, b', ['a', 'b']],
  ['"Holm, north", b', ['Holm, north', 'b']],
  ['', []],
  [' a ,, b ', ['a', 'b']],
])('%s is read as a list', (text, list) => {
  expect(listOfText(text)).toEqual(list)
  expect(listOfText(listText(list))).toEqual(list)
})

test('a field that says nothing is left out, but no file is something', () => {
  expect(withField({ retries: 2 }, 'retries', undefined)).toEqual({})
  expect(withField({}, 'except', [])).toEqual({})
  expect(withField({}, 'ready_when', {})).toEqual({})
  expect(withField({ query: 'q' }, 'attach', [])).toEqual({ query: 'q', attach: [] })
  expect(withField({}, 'retries', 0)).toEqual({ retries: 0 })
})

type Told = (value: Values) => void

function Part({ part, told, from = {} }: { part: 'schedule' | 'delivery' | 'attachment'; told: Told; from?: Values }) {
  const [value, setValue] = useState<Values>(from)
  const change = (next: Values) => {
    setValue(next)
    told(next)
  }
  return (
    <MoreFields
      part={part}
      value={value}
      covered={part === 'attachment' ? ['format', 'rows'] : covered[part].filter((each) => each !== 'split_to')}
      onChange={change}
    />
  )
}

test('what has no field of its own is entered by the schema, and told as the document has it', async () => {
  let last: Values = {}
  renderAt('/', <Part part="schedule" told={(value) => (last = value)} />, {
    'GET /api/schemas/odd-document.schema.json': schema,
  })
  const user = userEvent.setup()
  await user.click(await screen.findByText('More settings'))
  await user.selectOptions(screen.getByLabelText('Missed'), 'skip')
  await user.type(screen.getByLabelText('Except'), '2026-12-24, 2026-12-31')
  await user.tab()
  const after = screen.getByRole('group', { name: 'After' })
  await user.click(within(after).getByRole('button', { name: 'Add' }))
  await user.type(screen.getByLabelText('Rule'), 'late-sailings')
  expect(last).toEqual({ missed: 'skip', except: ['2026-12-24', '2026-12-31'], after: ['late-sailings'] })
  await user.selectOptions(screen.getByLabelText('Missed'), '')
  expect(last['missed']).toBeUndefined()
  expect(screen.getByLabelText('Missed')).toHaveAccessibleDescription(/slots/)
  expect(screen.queryByLabelText('Recur')).toBeNull()
})

test('what a rule says already is open, and a part or a value can be taken away again', async () => {
  let last: Values = {}
  const from = {
    escalate: { after: '2 hours', to: ['marit.lunde@skerryline.example'] },
    split_to: { Holm: ['per.aune@skerryline.example'] },
  }
  renderAt('/', <Part part="delivery" from={from} told={(value) => (last = value)} />, {
    'GET /api/schemas/odd-document.schema.json': schema,
  })
  const user = userEvent.setup()
  const escalate = await screen.findByRole('group', { name: 'Escalate' })
  expect(within(escalate).getByLabelText('To')).toHaveValue('marit.lunde@skerryline.example')
  await user.clear(within(escalate).getByLabelText('After'))
  await user.clear(within(escalate).getByLabelText('To'))
  await user.tab()
  expect(last['escalate']).toBeUndefined()
  const split = screen.getByRole('group', { name: 'Split to' })
  await user.type(within(split).getByPlaceholderText('a value'), 'Gråvik')
  await user.click(within(split).getByRole('button', { name: 'Add' }))
  await user.type(within(split).getByLabelText('Split to: Gråvik'), 'ines.holm@skerryline.example')
  await user.tab()
  await user.click(within(split).getByRole('button', { name: 'Remove Holm' }))
  expect(last['split_to']).toEqual({ Gråvik: ['ines.holm@skerryline.example'] })
})

test('what is usually on can be switched off', async () => {
  let last: Values = {}
  renderAt('/', <Part part="attachment" from={{ format: 'xlsx' }} told={(value) => (last = value)} />, {
    'GET /api/schemas/odd-document.schema.json': schema,
  })
  await userEvent.click(await screen.findByText('More settings'))
  await userEvent.selectOptions(screen.getByLabelText('Filter'), 'no')
  expect(last).toEqual({ format: 'xlsx', filter: false })
  await userEvent.selectOptions(screen.getByLabelText('Filter'), 'default')
  expect(last).toEqual({ format: 'xlsx' })
})
