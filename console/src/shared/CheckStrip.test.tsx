import { render, screen } from '@testing-library/react'
import { CheckStrip } from './CheckStrip'
import { dot } from './render.test-kit'

test('the strip says in words what its dots show', () => {
  render(<CheckStrip newestFirst={[dot('FIRED'), dot('FAILED'), dot('QUIET'), dot('RUNNING')]} />)
  expect(screen.getByRole('img')).toHaveAccessibleName('Last 4 checks: 1 fired, 1 failed, 2 others')
})

test('a rule that was never checked says so', () => {
  render(<CheckStrip newestFirst={[]} />)
  expect(screen.getByText('not checked yet')).toBeInTheDocument()
})
