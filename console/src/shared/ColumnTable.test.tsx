import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { ColumnTable } from './ColumnTable'
import { renderAt } from './render.test-kit'

const column = (key: string) => ({ key, label: `The ${key}`, cell: (row: string) => `${key} of ${row}` })

function show(keys: string[], views: object[], answers: Record<string, unknown> = {}) {
  return renderAt(
    '/',
    <ColumnTable
      table="query:sailings"
      label="Rows"
      columns={keys.map(column)}
      rows={['SK-1', 'SK-2']}
      keyOf={(row) => row}
    />,
    { 'GET /api/table-views': views, ...answers },
  )
}

const headings = () => screen.getAllByRole('columnheader').map((each) => each.textContent)

test('columns are hidden and shown again, and the choice is kept', async () => {
  const sent: unknown[] = []
  const calls = show(['number', 'route'], [], {
    'PUT /api/table-views/query%3Asailings': (body: string) => {
      sent.push(JSON.parse(body))
      return new Response(null, { status: 204 })
    },
    'DELETE /api/table-views/query%3Asailings': new Response(null, { status: 204 }),
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Columns' }))
  await userEvent.click(screen.getByLabelText('The route'))
  expect(headings()).toEqual(['The number'])
  expect(screen.queryByText('route of SK-2')).not.toBeInTheDocument()
  expect(screen.getByLabelText('The number')).toBeDisabled()
  expect(sent).toEqual([{ hidden: ['route'], widths: {} }])
  await userEvent.click(screen.getByRole('button', { name: 'Reset' }))
  expect(headings()).toEqual(['The number', 'The route'])
  expect(calls).toContain('DELETE /api/table-views/query%3Asailings')
})

test('a width is changed with the keyboard and kept within its bounds', async () => {
  const sent: unknown[] = []
  show(['number', 'route'], [{ table: 'query:sailings', hidden: [], widths: { route: 300 } }], {
    'PUT /api/table-views/query%3Asailings': (body: string) => {
      sent.push(JSON.parse(body))
      return new Response(null, { status: 204 })
    },
  })
  const edge = await screen.findByRole('separator', { name: 'Width of The route' })
  expect(await screen.findByText('route of SK-1')).toHaveStyle({ width: '300px' })
  edge.focus()
  await userEvent.keyboard('{ArrowLeft}')
  // Nothing has a size here, so the least width is what is left.
  expect(sent).toEqual([{ hidden: [], widths: { route: 40 } }])
  expect(screen.getByText('route of SK-2')).toHaveStyle({ width: '40px' })
})

test('among 300 columns one is found by a part of its heading, and a hidden one that is gone hides nothing', async () => {
  const keys = Array.from({ length: 300 }, (_, index) => `column_${index}`)
  show(keys, [{ table: 'query:sailings', hidden: ['column_299', 'was_there_once'], widths: {} }])
  await userEvent.click(await screen.findByRole('button', { name: 'Columns: 299 of 300' }))
  await userEvent.type(screen.getByLabelText('Find a column'), 'column_29')
  const list = within(screen.getByRole('group', { name: 'Columns' }))
  expect(list.getAllByRole('checkbox')).toHaveLength(11)
  await userEvent.click(list.getByRole('button', { name: 'Hide all' }))
  expect(headings()).toHaveLength(289)
  await userEvent.click(list.getByRole('button', { name: 'Show all' }))
  expect(headings()).toHaveLength(300)
})

test('a table whose every column was hidden once is shown whole', async () => {
  show(['number'], [{ table: 'query:sailings', hidden: ['number'], widths: {} }])
  expect(await screen.findByText('number of SK-1')).toBeInTheDocument()
})
