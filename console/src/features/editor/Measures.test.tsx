import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { renderAt } from '../../shared/render.test-kit'
import type { RuleDocument } from './api'
import { Measures } from './Measures'
import { offeredOf } from './offered'

const columns = [
  { name: 'vessel', label: 'Vessel', type: 'text' },
  { name: 'litres', label: 'Litres', type: 'number' },
  { name: 'Liter per nm', label: 'Litres per mile', type: 'number' },
  { name: 'loaded', label: 'Loaded', type: 'date' },
]
const rule = { name: 'fuel', query: 'bunkering', per: ['vessel'] } as unknown as RuleDocument

function show(start: Partial<RuleDocument> = {}) {
  let last = { ...rule, ...start }
  function Held() {
    const [document, setDocument] = useState(last)
    last = document
    return <Measures document={document} columns={columns} onChange={(part) => setDocument({ ...document, ...part })} />
  }
  renderAt('/', <Held />, {
    'GET /api/queries': [
      { name: 'bunkering', title: 'Bunkering' },
      { name: 'vessels', title: 'Vessels in service' },
    ],
    'POST /api/conditions': { problems: [], parts: [], sentence: '' },
  })
  return () => last
}

test('measures are added, calculated otherwise, labelled and removed', async () => {
  const document = show()
  await userEvent.click(screen.getByRole('button', { name: 'Add measure' }))
  expect(document().measures).toEqual({ number_of_rows: 'count()' })
  await userEvent.click(screen.getByRole('button', { name: 'Add measure' }))
  expect(document().measures).toEqual({ number_of_rows: 'count()', sum_litres: 'sum(litres)' })
  const sum = within(screen.getByRole('group', { name: 'sum_litres' }))
  await userEvent.selectOptions(sum.getByLabelText('Calculation'), 'percentile')
  await userEvent.selectOptions(sum.getByLabelText('Of the column'), 'Litres per mile')
  expect(document().measures?.['sum_litres']).toBe('percentile("Liter per nm", 95)')
  await userEvent.type(sum.getByLabelText('Unit'), 'l')
  await userEvent.type(sum.getByLabelText('Label'), 'P95')
  expect(document().measures?.['sum_litres']).toEqual({
    value: 'percentile("Liter per nm", 95)',
    unit: 'l',
    label: 'P95',
  })
  await userEvent.click(screen.getByRole('button', { name: 'Remove number_of_rows' }))
  expect(Object.keys(document().measures ?? {})).toEqual(['sum_litres'])
})

test('only numbers are offered where numbers are needed', async () => {
  show({ measures: { litres: 'sum(litres)' } })
  const options = () => within(screen.getByLabelText('Of the column')).getAllByRole('option')
  expect(options().map((each) => each.textContent)).toEqual(['Litres', 'Litres per mile'])
  await userEvent.selectOptions(screen.getByLabelText('Calculation'), 'number of different values')
  expect(options()).toHaveLength(4)
})

test('groups that are there without rows come from earlier checks or a query', async () => {
  const document = show({ measures: { litres: 'sum(litres)' } })
  await userEvent.selectOptions(
    screen.getByLabelText('Groups without rows'),
    'are evaluated if an earlier check had them',
  )
  expect(document().expected_groups).toBe('last 5 checks')
  await screen.findByRole('option', { name: 'are evaluated if a query names them' })
  await userEvent.selectOptions(screen.getByLabelText('Groups without rows'), 'are evaluated if a query names them')
  expect(document().expected_groups).toBe('vessels')
  await userEvent.selectOptions(screen.getByLabelText('Groups without rows'), 'are left out')
  expect(document().expected_groups).toBeUndefined()
})

test('conditions of groups are offered what was measured before, those of rows the days until a date', () => {
  const groups = offeredOf({ per: ['vessel'], measures: { litres: { value: 'sum(litres)', label: 'Fuel' } } }, columns)
  expect(groups.map(({ name }) => name)).toEqual([
    'vessel',
    'litres',
    'change_pct(litres)',
    'change(litres)',
    'previous(litres)',
  ])
  expect(groups[2]?.label).toBe('Fuel: change since the previous check, in %')
  expect(offeredOf({}, columns).map(({ name }) => name)).toEqual([
    'vessel',
    'litres',
    '"Liter per nm"',
    'loaded',
    'days_between(today(), loaded)',
  ])
})
