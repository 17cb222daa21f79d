import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { FilesField } from './FilesField'
import type { DeliveryPart } from '../fields/parts'
import { renderAt } from '../../shared/render.test-kit'
import schema from '../../../../contract/definition.schema.json'

type Attach = NonNullable<DeliveryPart['attach']>

function Files({ from, plain = false, told }: { from: Attach; plain?: boolean; told: (attach: Attach) => void }) {
  const [attach, setAttach] = useState(from)
  const change = (next: Attach) => {
    setAttach(next)
    told(next)
  }
  return <FilesField attach={attach} plain={plain} document="{}" onChange={change} />
}

const shown = (from: Attach, plain = false) => {
  const told = vi.fn<(attach: Attach) => void>()
  renderAt('/', <Files from={from} plain={plain} told={told} />, {
    'GET /api/schemas/odd-document.schema.json': schema,
  })
  return told
}

test('each file says its format, its rows and its name', async () => {
  const told = shown(['csv'])
  const person = userEvent.setup()
  await person.selectOptions(screen.getByLabelText('Rows in the file'), 'all')
  expect(told).toHaveBeenLastCalledWith([{ format: 'csv', rows: 'all' }])
  await person.click(screen.getByRole('button', { name: 'Add file' }))
  const names = screen.getAllByLabelText('File name, without its ending')
  await person.type(names[1] as HTMLElement, 'news')
  expect(told).toHaveBeenLastCalledWith([
    { format: 'csv', rows: 'all' },
    { format: 'csv', file: 'news' },
  ])
  await person.click(screen.getByRole('button', { name: 'Remove file 1' }))
  expect(told).toHaveBeenLastCalledWith([{ format: 'csv', file: 'news' }])
})

test('what is usual is left out again, and no file is said as such', async () => {
  const told = shown([{ format: 'pdf', rows: 'updates' }])
  const person = userEvent.setup()
  await person.selectOptions(screen.getByLabelText('Rows in the file'), 'open')
  expect(told).toHaveBeenLastCalledWith(['pdf'])
  await person.click(screen.getByRole('button', { name: 'Remove file 1' }))
  expect(told).toHaveBeenLastCalledWith([])
  expect(screen.getByText('No files. The message contains the rows.')).toBeVisible()
})

test('settings of a format are offered for files of that format alone', async () => {
  shown(['csv', 'pdf', 'json'])
  const summaries = await screen.findAllByText('Format settings')
  const settings = summaries.map((summary) => summary.closest('details'))
  expect(settings).toHaveLength(2)
  expect(within(settings[0] as HTMLElement).queryByText('Delimiter')).not.toBeNull()
  expect(within(settings[1] as HTMLElement).queryByText('Delimiter')).toBeNull()
  expect(within(settings[1] as HTMLElement).queryByText('Paper')).not.toBeNull()
})

test('a plain report has no choice of rows', () => {
  shown(['csv'], true)
  expect(screen.queryByLabelText('Rows in the file')).toBeNull()
})
