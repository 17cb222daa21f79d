import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { renderAt } from '../../shared/render.test-kit'
import { insertedAt, rowsSection } from './template'
import { TemplateField } from './TemplateField'

const seen = {
  messages: [],
  sample: null,
  fields: [
    { name: 'count', value: '2' },
    { name: 'next | weekday', value: 'Monday' },
    { name: 'split', value: '' },
  ],
  fileFields: [{ name: 'rule', value: 'late-sailings' }],
  columns: ['sailing', 'severity'],
}

function Text({ kind, from = '' }: { kind: 'line' | 'paragraph' | 'file'; from?: string }) {
  const [value, setValue] = useState(from)
  return (
    <TemplateField id="x" kind={kind} label="Subject" value={value} placeholder="" document="{}" onChange={setValue} />
  )
}

const open = async (kind: 'line' | 'paragraph' | 'file', from?: string) => {
  renderAt('/', <Text kind={kind} {...(from === undefined ? {} : { from })} />, { 'POST /api/mail-preview': seen })
  await userEvent.click(screen.getByRole('button', { name: 'Insert field: Subject' }))
}

test('a field goes in at the caret, with what it says now beside it', async () => {
  renderAt('/', <Text kind="line" from="late sailings" />, { 'POST /api/mail-preview': seen })
  const field = screen.getByLabelText('Subject')
  await userEvent.click(field)
  await userEvent.keyboard('{Home}')
  await userEvent.click(screen.getByRole('button', { name: 'Insert field: Subject' }))
  await userEvent.click(await screen.findByText('count'))
  expect(field).toHaveValue('{{count}}late sailings')
})

test('formats, empty fields and the rows of the message are offered', async () => {
  await open('paragraph')
  expect(await screen.findByText('Monday')).toBeVisible()
  expect(screen.getByText('empty now')).toBeVisible()
  await userEvent.click(screen.getByText('rows'))
  expect(screen.getByLabelText('Subject')).toHaveValue('{{#rows}}{{sailing}} {{/rows}}')
})

test('the name of a file has its own fields', async () => {
  await open('file')
  expect(await screen.findByText('late-sailings')).toBeVisible()
  expect(screen.queryByText('count')).toBeNull()
})

test.each([
  ['', { from: 0, to: 0 }, '{{a}}', 5],
  ['x y', { from: 1, to: 1 }, 'x{{a}} y', 6],
  ['x y', { from: 0, to: 3 }, '{{a}}', 5],
])('into %j at %j goes the field', (text, place, after, caret) => {
  expect(insertedAt(text, place, '{{a}}')).toEqual({ text: after, caret })
})

test('a result without columns has a section all the same', () => {
  expect(rowsSection([])).toBe('{{#rows}}{{severity}} {{/rows}}')
})
