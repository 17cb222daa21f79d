import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { MeasurementsPanel } from './MeasurementsPanel'

const call = 'GET /api/rules/fuel-per-mile/measurements'
const point = (day: number, value: number) => ({ slot: `2026-11-0${day}T04:40:00Z`, value, backfilled: false })

test('shows the last value of each group and the way there', async () => {
  renderAt('/', <MeasurementsPanel name="fuel-per-mile" />, {
    [call]: [
      {
        group: 'Terna',
        measure: 'litres_per_mile',
        total: 312,
        earlier: false,
        points: [point(1, 4.5), point(2, 6), point(3, 5.25)],
      },
      { group: 'Skua', measure: 'litres_per_mile', total: 1, earlier: false, points: [point(3, 4)] },
      { group: 'Lomvi', measure: 'litres_per_mile', total: 2, earlier: false, points: [point(2, 4), point(3, 4)] },
    ],
  })
  const terna = within(await screen.findByRole('row', { name: /Terna/ }))
  expect(terna.getByText('5.25')).toBeInTheDocument()
  expect(terna.getByText('312')).toBeInTheDocument()
  expect(terna.getByRole('img')).toHaveAccessibleName('3 points from 4.5 to 6')
  expect(within(screen.getByRole('row', { name: /Skua/ })).queryByRole('img')).not.toBeInTheDocument()
  const flat = within(screen.getByRole('row', { name: /Lomvi/ })).getByRole('img')
  expect(flat.querySelector('polyline')).toHaveAttribute('points', '1,12 119,12')
})

test('before anything was measured it says what will', async () => {
  renderAt('/', <MeasurementsPanel name="fuel-per-mile" />, { [call]: [] })
  expect(await screen.findByText('No measurements yet. Each scheduled check adds one.')).toBeInTheDocument()
})

test('what was measured before an edit is kept at one press', async () => {
  const calls = renderAt('/', <MeasurementsPanel name="fuel-per-mile" />, {
    [call]: [
      { group: 'Terna', measure: 'litres_per_mile', total: 40, earlier: true, points: [point(1, 4.5)] },
      { group: 'Terna', measure: 'litres_per_mile', total: 1, earlier: false, points: [point(2, 4.5)] },
    ],
    'POST /api/rules/fuel-per-mile/measurements/keep': { moved: 40 },
  })
  expect(await screen.findByText(/^40 measurements were recorded before/)).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Keep earlier measurements' }))
  expect(calls).toContain('POST /api/rules/fuel-per-mile/measurements/keep')
})
