import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import { within } from './api'
import { StatementPanel, StatementsPage } from './Statements'

describe('a period', () => {
  const now = new Date(2026, 2, 10, 12)
  test.each([
    ['week', new Date(2026, 2, 3, 12), now],
    ['thirty_days', new Date(now.getTime() - 30 * 86_400_000), now],
    ['this_month', new Date(2026, 2, 1), now],
    ['last_month', new Date(2026, 1, 1), new Date(2026, 2, 1)],
  ] as const)('%s', (period, from, to) => {
    expect(within(period, now)).toEqual({ from, to })
  })

  test('the month before January is December', () => {
    expect(within('last_month', new Date(2026, 0, 31)).from).toEqual(new Date(2025, 11, 1))
  })
})

const statement = (rule: string, complete: boolean, ...sentences: string[]) => ({
  rule,
  title: `The rule ${rule}`,
  zone: 'Europe/Oslo',
  complete,
  sentences,
  gaps: [],
})

function stub(...statements: unknown[]) {
  vi.setSystemTime(new Date('2026-11-30T12:00:00Z'))
  return { from: '2026-11-23T12:00:00Z', to: '2026-11-30T12:00:00Z', statements }
}

afterEach(() => vi.useRealTimers())

const week = 'from=2026-11-23T12%3A00%3A00.000Z&to=2026-11-30T12%3A00%3A00.000Z'

test('rules of which silence says nothing come first, each with its sentences', async () => {
  const answer = stub(
    statement('bunkering', true, 'Every check was complete.', 'Checked 7 times.'),
    statement('late', false, 'Since Sunday, silence does not mean that.', 'One check failed.'),
  )
  renderAt('/statements', <StatementsPage />, { [`GET /api/statements?${week}`]: answer })
  expect(await screen.findByText(/1 complete, 1 not/)).toBeInTheDocument()
  expect(screen.getAllByRole('link').map((each) => each.textContent)).toEqual(['The rule late', 'The rule bunkering'])
  expect(screen.getByText('Since Sunday, silence does not mean that.')).toHaveClass('bad')
  expect(screen.getByText('Every check was complete.')).not.toHaveClass('bad')
})

test('the page of a rule states it for the period that is chosen', async () => {
  const answer = stub(statement('late', true, 'Every check was complete.'))
  const calls = renderAt('/rules/late', <StatementPanel name="late" />, {
    [`GET /api/statements?${week}&rule=late`]: answer,
    'GET /api/statements?from=2026-10-31T12%3A00%3A00.000Z&to=2026-11-30T12%3A00%3A00.000Z&rule=late': answer,
  })
  expect(await screen.findByText('Every check was complete.')).toBeInTheDocument()
  await userEvent.selectOptions(screen.getByLabelText('Period'), 'thirty_days')
  expect(await screen.findByText('Every check was complete.')).toBeInTheDocument()
  expect(calls).toHaveLength(2)
})
