import { screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { renderAt } from '../../shared/render.test-kit'
import type { Layout } from './layout'
import { SeverityLooks } from './SeverityLooks'

function show(start: Layout = {}) {
  let last = start
  function Held() {
    const [layout, setLayout] = useState<Layout>(start)
    last = layout
    return <SeverityLooks layout={layout} put={(edits) => setLayout({ ...layout, ...edits })} />
  }
  renderAt('/', <Held />)
  return () => last.severities
}

test('a word and a colour are kept for their severity alone, and shown as readers see them', async () => {
  const written = show()
  await userEvent.type(screen.getByLabelText('Word for notice'), 'on target')
  await userEvent.selectOptions(screen.getByLabelText('Colour of notice'), 'green (good)')
  expect(written()).toEqual([{ level: 'notice', word: 'on target', colour: 'green' }])
  expect(screen.getByText('on target', { selector: '.tag' })).toHaveClass('tone-green')
  expect(within(screen.getByText('on target', { selector: '.tag' })).getByText('✓')).toBeInTheDocument()
})

test('what is as usual is not written', async () => {
  const written = show({ severities: ['warning', { level: 'critical', word: 'overdue', colour: 'violet' }] })
  await userEvent.selectOptions(screen.getByLabelText('Colour of critical'), 'red')
  expect(written()).toEqual([{ level: 'critical', word: 'overdue' }])
  await userEvent.clear(screen.getByLabelText('Word for critical'))
  expect(written()).toEqual([])
  expect(screen.getByText('critical', { selector: '.tag' })).toHaveClass('tone-red')
})
