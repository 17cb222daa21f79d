import { useState } from 'react'
import { render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import type { Parameter, Table } from './api'
import { TableFields } from './TableFields'

const tables: Table[] = [
  {
    schema: 'public',
    name: 'sailing',
    columns: [
      { name: 'number', type: 'text' },
      { name: 'planned', type: 'timestamptz' },
      { name: 'route', type: 'text' },
    ],
    references: [{ columns: ['route'], schema: 'public', table: 'route', otherColumns: ['code'] }],
  },
  {
    schema: 'public',
    name: 'route',
    columns: [
      { name: 'code', type: 'text' },
      { name: 'name', type: 'text' },
    ],
    references: [],
  },
]

type Shown = { sql: string; parameters: Record<string, Parameter> }
let now: Shown

function Held({ sql }: { sql: string }) {
  const [query, setQuery] = useState<Shown>({ sql, parameters: {} })
  return (
    <TableFields
      {...query}
      tables={tables}
      onChange={(next, parameters) => {
        now = { sql: next, parameters }
        setQuery(now)
      }}
    />
  )
}

const choose = (label: string, option: string) => userEvent.selectOptions(screen.getByLabelText(label), option)

test('a table, its columns, those of a related one, filters and order make the SQL', async () => {
  render(<Held sql="" />)
  await choose('Table', 'sailing')
  await userEvent.click(screen.getByRole('checkbox', { name: 'route text' }))
  await choose('Add columns of a related table', 'route (by sailing.route)')
  await userEvent.click(within(screen.getByRole('group', { name: 'Columns of route' })).getByLabelText('name text'))
  await choose('Only rows where', 'sailing.planned')
  await choose('Comparison', 'is at or after')
  await userEvent.type(screen.getByLabelText('Value, :planned'), 'today - 7 days')
  await choose('Order by', 'sailing.planned')
  await choose('Direction', 'descending')
  expect(now.sql).toBe(
    [
      'select sailing.number,',
      '       sailing.planned,',
      '       route.name',
      'from sailing',
      'left join route on sailing.route = route.code',
      'where sailing.planned >= :planned',
      'order by sailing.planned desc',
    ].join('\n'),
  )
  expect(now.parameters).toEqual({ planned: { type: 'instant', default: 'today - 7 days' } })
})

test('a filter that goes takes its parameter along, as does a table its filters', async () => {
  render(<Held sql="select sailing.number, route.name from sailing left join route on sailing.route = route.code" />)
  await choose('Only rows where', 'route.name')
  await choose('Comparison', 'is one of')
  expect(now.sql).toContain('where route.name in (:name)')
  expect(now.parameters).toEqual({ name: { multiple: true } })
  await choose('Comparison', 'is missing')
  expect(now.sql).toContain('where route.name is null')
  expect(now.parameters).toEqual({})
  await userEvent.click(screen.getByRole('button', { name: 'Remove route' }))
  expect(now.sql).toBe('select number\nfrom sailing')
})

test('a constant stays one, and a number takes only numbers', async () => {
  render(<Held sql="select number from sailing where route = 'HL' and number = 5" />)
  const [text, number] = screen.getAllByLabelText('Value')
  if (!text || !number) throw new Error('two values were expected')
  await userEvent.type(text, "'s")
  await userEvent.type(number, 'x1')
  expect(now.sql).toContain("where route = 'HL''s'\n  and number = 51")
})

test('SQL with more than the fields have is left alone, and what stops them is named', () => {
  render(<Held sql="select number from sailing limit 5" />)
  expect(screen.getByText('limit')).toBeInTheDocument()
  expect(screen.queryByLabelText('Table')).toBeNull()
})
