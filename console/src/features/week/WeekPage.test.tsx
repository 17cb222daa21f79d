import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { WeekPage } from './WeekPage'

const at = (hour: number) => new Date(2026, 10, 23, hour).toISOString()
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
const week = {
  zone,
  from: at(0),
  until: at(168),
  hours: Array.from({ length: 168 }, (_, hour) => ({
    from: at(hour),
    checks: hour === 6 ? 3 : 0,
    seconds: hour === 6 ? 200 : 0,
    messages: hour === 7 ? 1.25 : 0,
    rules: hour === 6 ? [{ rule: 'fuel-per-mile', title: 'Fuel per mile', checks: 3, at: at(6) }] : [],
  })),
}

test('hours show how much there is to do, and their rules', async () => {
  renderAt('/week?first=2026-11-23', <WeekPage />, {
    [`GET /api/week?${new URLSearchParams({ first: '2026-11-23', zone })}`]: week,
  })
  await userEvent.click(await screen.findByRole('button', { name: 'Mon 23 Nov, 06:00: 3' }))
  expect(screen.getByRole('link', { name: 'Fuel per mile' })).toHaveAttribute('href', '/rules/fuel-per-mile')
  await userEvent.selectOptions(screen.getByLabelText('Show'), 'Time that the checks take')
  expect(screen.getByRole('button', { name: 'Mon 23 Nov, 06:00: 3 min' })).toHaveAttribute('aria-pressed', 'true')
  await userEvent.selectOptions(screen.getByLabelText('Show'), 'Messages, usually')
  await userEvent.click(screen.getByRole('button', { name: 'Mon 23 Nov, 07:00: 1.3' }))
  expect(screen.getByText('No rule is checked in this hour.')).toBeInTheDocument()
})
