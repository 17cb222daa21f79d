import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { OverTimePage } from './OverTimePage'

const zone = encodeURIComponent(Intl.DateTimeFormat().resolvedOptions().timeZone)
const line = (name: string, more: object) => ({
  name,
  title: name,
  open: [0, 2, 3],
  opened: 4,
  cleared: 1,
  agedOut: 0,
  medianSeconds: 3 * 3600,
  oldest: '2020-01-01T00:00:00Z',
  ...more,
})

test('each line shows its days, its counts and how long findings stay open', async () => {
  const calls = renderAt('/findings/over-time', <OverTimePage />, {
    [`GET /api/findings/over-time?days=90&by=RULE&zone=${zone}`]: {
      zone: 'Europe/Oslo',
      from: '2026-11-28',
      until: '2026-11-30',
      open: [0, 2, 3],
      lines: [line('late-sailings', {}), line('fuel', { open: [1, 0, 0], medianSeconds: null, oldest: null })],
    },
    [`GET /api/findings/over-time?days=30&by=TEAM&zone=${zone}`]: {
      zone: 'Europe/Oslo',
      from: '2026-11-28',
      until: '2026-11-30',
      open: [],
      lines: [],
    },
  })
  expect(await screen.findByRole('img', { name: /3 now; the highest number was 3/ })).toBeInTheDocument()
  const late = within(screen.getByRole('link', { name: 'late-sailings' }).closest('tr') ?? document.body)
  expect(late.getByText('3 hours')).toBeInTheDocument()
  expect(late.getByRole('link', { name: '3' })).toHaveAttribute('href', '/findings?rule=late-sailings&state=OPEN')
  const fuel = within(screen.getByRole('link', { name: 'fuel' }).closest('tr') ?? document.body)
  expect(fuel.getAllByText('–')).toHaveLength(2)
  await userEvent.selectOptions(screen.getByLabelText('Lines'), 'by team')
  await userEvent.selectOptions(screen.getByLabelText('Period'), 'last 30 days')
  expect(await screen.findByText('No findings were open in these days.')).toBeInTheDocument()
  expect(calls.at(-1)).toContain('days=30&by=TEAM')
})
