import { render, screen } from '@testing-library/react'
import { CheckStrip } from './CheckStrip'
import { check } from './render.test-kit'

test('the strip says in words what its dots show', () => {
  render(<CheckStrip newestFirst={[check('FIRED'), check('FAILED'), check('QUIET'), check('RUNNING')]} />)
  expect(screen.getByRole('img')).toHaveAccessibleName('Last 4 checks: 1 fired, 1 failed, 2 others')
})

test('a rule that was never checked says so', () => {
  render(<CheckStrip newestFirst={[]} />)
  expect(screen.getByText('not checked yet')).toBeInTheDocument()
})
