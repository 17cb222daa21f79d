import { useState } from 'react'
import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { edited, type DeliveryPart } from '../fields/parts'
import { SplitFields } from './SplitFields'

const columns = [
  { name: 'terminal', label: 'Terminal', type: 'text' },
  { name: 'mail', label: 'Mail', type: 'text' },
]

function Form({ start, onChange }: { start: DeliveryPart; onChange: (delivery: DeliveryPart) => void }) {
  const [delivery, setDelivery] = useState(start)
  return (
    <SplitFields
      delivery={delivery}
      columns={columns}
      document="{}"
      onChange={(edits) => {
        const next = edited(delivery, edits)
        setDelivery(next)
        onChange(next)
      }}
    />
  )
}

const holm = 'holm@skerryline.example'
const answers = {
  'GET /api/queries': [{ name: 'terminal-mail', title: 'Mail of the terminals' }],
  'GET /api/people': [],
  'GET /api/teams': [],
  'POST /api/audiences': {
    by: 'terminal',
    all: 3,
    nobody: 1,
    audiences: [
      { value: 'Ytre', rows: 4, to: [], namedBy: 'NOBODY', problem: null },
      { value: 'Holm', rows: 12, to: [holm], namedBy: 'RULE', problem: null },
      { value: 'Vik', rows: 0, to: ['vik@skerryline.example'], namedBy: 'QUERY', problem: null },
    ],
  },
}

const row = (value: string) => within(screen.getByRole('cell', { name: value }).closest('tr') as HTMLElement)

test('who gets what is a table with those first whom nobody hears of, and recipients are given in it', async () => {
  const seen: DeliveryPart[] = []
  renderAt(
    '/',
    <Form start={{ split_by: 'terminal', split_to: { Holm: [holm] } }} onChange={(d) => seen.push(d)} />,
    answers,
  )
  expect(row('Holm').getByText(holm)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Show who gets what' }))
  expect(await screen.findByText('3 values, 1 without recipients')).toBeInTheDocument()
  expect(row('Ytre').getByText('nobody')).toBeInTheDocument()
  expect(row('Vik').getByText('none')).toBeInTheDocument()
  expect(row('Vik').getByText('query')).toBeInTheDocument()
  await userEvent.click(screen.getByLabelText('Only those without recipients'))
  expect(screen.queryByRole('cell', { name: 'Holm' })).not.toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Change recipients of Ytre' }))
  await userEvent.type(screen.getByLabelText('Recipients of Ytre'), 'ytre@skerryline.example{Enter}')
  expect(seen.at(-1)?.split_to).toEqual({ Holm: [holm], Ytre: ['ytre@skerryline.example'] })
  expect(screen.getByText('3 values, all with recipients')).toBeInTheDocument()
})

test('a value without rows yet is added, and without a split nothing of it stays', async () => {
  const seen: DeliveryPart[] = []
  renderAt('/', <Form start={{}} onChange={(d) => seen.push(d)} />, answers)
  expect(screen.queryByRole('button', { name: 'Show who gets what' })).not.toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('Split by column'), 'terminal')
  await screen.findByRole('option', { name: 'Mail of the terminals' })
  await userEvent.selectOptions(screen.getByLabelText('Recipients from a query'), 'terminal-mail')
  await userEvent.selectOptions(screen.getByLabelText('Recipients from a column'), 'mail')
  await userEvent.type(screen.getByLabelText('New value with recipients'), 'Sund')
  await userEvent.click(screen.getByRole('button', { name: 'Add value' }))
  expect(screen.getByRole('cell', { name: 'Sund' })).toBeInTheDocument()
  expect(seen.at(-1)).toMatchObject({ split_by: 'terminal', split_from: 'terminal-mail', split_address: 'mail' })
  await userEvent.selectOptions(screen.getByLabelText('Split by column'), '')
  expect(seen.at(-1)).toEqual({})
})
