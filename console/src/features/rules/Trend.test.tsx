import { render, screen } from '@testing-library/react'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { ThresholdPage } from '../thresholds/api'
import { stepsFor, Trend } from './Trend'

const page = {
  threshold: {
    name: 'fuel',
    title: 'fuel per mile',
    unit: 'l',
    description: null,
    owner: null,
    key: ['vessel'],
    number: 44,
    values: 3,
    planned: 1,
    rules: [],
  },
  values: [
    { key: [], from: null, number: 44, when: 'NOW' },
    { key: ['Terna'], from: '2027-06-01', number: 40, when: 'PLANNED' },
    { key: ['Terna'], from: null, number: 42, when: 'NOW' },
  ],
  history: [],
} satisfies ThresholdPage

test('a group has its own values in the order in which they apply, and those of all others where it has none', () => {
  expect(stepsFor(page, 'Terna').map(({ number, planned }) => [number, planned])).toEqual([
    [42, false],
    [40, true],
  ])
  expect(stepsFor(page, 'Skua').map(({ number }) => number)).toEqual([44])
})

test('the drawn line says in words where it went', () => {
  const points = [50, 52.63, 49].map((value, index) => ({
    slot: `2026-11-2${index}T04:40:00Z`,
    value,
    backfilled: false,
  }))
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Trend all={[{ group: 'Terna', measure: 'litres_per_mile', total: 3, earlier: false, points }]} thresholds={[]} />
    </QueryClientProvider>,
  )
  expect(screen.getByRole('img')).toHaveAccessibleName(
    'litres_per_mile of Terna: 3 measurements from 49 to 52.63, last 49',
  )
})
