import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import type { ThresholdSummary } from './api'
import { ImportTable } from './ImportTable'
import { ThresholdsPage } from './ThresholdsPage'

const poorLoad: ThresholdSummary = {
  name: 'poor_load',
  title: 'poor load',
  unit: 'heads',
  description: null,
  owner: null,
  key: ['route'],
  number: 112,
  values: 9,
  planned: 1,
  rules: ['poorly-used-routes'],
}
const lateMinutes: ThresholdSummary = {
  name: 'late_minutes',
  title: 'late',
  unit: 'min',
  description: 'From when a sailing is late.',
  owner: null,
  key: [],
  number: null,
  values: 0,
  planned: 0,
  rules: [],
}
const importCall = 'POST /api/thresholds/poor_load/values.csv?reason=summer%20timetable'

test('lists what each threshold is now, what it is kept by and who uses it', async () => {
  renderAt('/thresholds', <ThresholdsPage />, { 'GET /api/thresholds': [poorLoad, lateMinutes] })
  const kept = within(await screen.findByRole('row', { name: /poor load/ }))
  expect(kept.getByText('112 heads')).toBeInTheDocument()
  expect(kept.getByText('route')).toBeInTheDocument()
  expect(kept.getByRole('link', { name: 'poorly-used-routes' })).toHaveAttribute('href', '/rules/poorly-used-routes')
  const one = within(screen.getByRole('row', { name: /From when a sailing is late/ }))
  expect(one.getByText('–')).toBeInTheDocument()
  expect(one.getByText('single value')).toBeInTheDocument()
  expect(one.getByText('no rules')).toBeInTheDocument()
})

test('without any threshold it says what to do first', async () => {
  renderAt('/thresholds', <ThresholdsPage />, { 'GET /api/thresholds': [] })
  expect(await screen.findByText(/No thresholds yet/)).toBeInTheDocument()
})

async function paste() {
  await userEvent.type(screen.getByLabelText(/The first line is/), 'route,from,number{enter}Holm – Vik,,95')
  await userEvent.type(screen.getByLabelText('Reason'), 'summer timetable')
  await userEvent.click(screen.getByRole('button', { name: 'Import' }))
}

test('a pasted table is imported once it is there and said why', async () => {
  let sent: unknown
  renderAt('/thresholds/poor_load', <ImportTable threshold={poorLoad} />, {
    [importCall]: (body: string) => {
      sent = body
      return { read: 1, changed: 1 }
    },
  })
  expect(screen.getByRole('button', { name: 'Import' })).toBeDisabled()
  expect(screen.getByText(/Paste a table. A line without key values/)).toBeInTheDocument()
  await paste()
  expect(await screen.findByText('1 value read, 1 of them changed.')).toBeInTheDocument()
  expect(sent).toBe('route,from,number\nHolm – Vik,,95')
})

test('every line that cannot be read is named', async () => {
  renderAt('/thresholds/poor_load', <ImportTable threshold={poorLoad} />, {
    [importCall]: Response.json(
      {
        detail: 'Two things to put right.',
        problems: [
          { field: 'line 2', message: '"many" is no number' },
          { field: 'line 3', message: '"May" is no date' },
        ],
      },
      { status: 422 },
    ),
  })
  await paste()
  expect(await screen.findByText('line 2: "many" is no number')).toBeInTheDocument()
  expect(screen.getByText('line 3: "May" is no date')).toBeInTheDocument()
})
