import { columnText, movedForward, ownLayout, sortOf, sortText, withLayout, type Layout } from './layout'
import type { DeliveryPart } from './parts'

const to: DeliveryPart = { to: ['ines.holm@skerryline.example'] }

test('a list of columns stays a list until it says more', () => {
  const columns = withLayout(to, { columns: ['sailing', 'delay_min'] })
  expect(columns).toEqual({ ...to, columns: ['sailing', 'delay_min'] })
  expect(ownLayout(columns)).toEqual({ columns: ['sailing', 'delay_min'] })
  const more: Layout = { columns: ['sailing'], rows_as: 'table' }
  expect(withLayout(columns, more)).toEqual({ ...to, layout: more })
  expect(withLayout(withLayout(columns, more), { columns: ['sailing'] })).toEqual({ ...to, columns: ['sailing'] })
})

test('a layout that says nothing is left out', () => expect(withLayout({ ...to, layout: 'terminals' }, {})).toEqual(to))

test('a column with a heading is more than its name', () => {
  expect(columnText({ column: 'sailing' })).toBe('sailing')
  expect(columnText({ column: 'sailing', label: 'Trip' })).toEqual({ column: 'sailing', label: 'Trip' })
  const labelled = withLayout(to, { columns: [{ column: 'sailing', label: 'Trip' }] })
  expect(labelled).toEqual({ ...to, layout: { columns: [{ column: 'sailing', label: 'Trip' }] } })
})

test.each([
  ['delay_min desc', { column: 'delay_min', descending: true }, 'delay_min desc'],
  ['delay_min asc', { column: 'delay_min', descending: false }, 'delay_min'],
  ['in desc order', { column: 'in desc order', descending: false }, 'in desc order'],
])('%s is read and written', (text, sorted, written) => {
  expect(sortOf({ sort: [text] })).toEqual([sorted])
  expect(sortText(sorted)).toBe(written)
})

test('an entry moves one step towards the beginning', () => {
  expect(movedForward(['a', 'b', 'c'], 2)).toEqual(['a', 'c', 'b'])
  expect(movedForward(['a', 'b'], 1)).toEqual(['b', 'a'])
})
