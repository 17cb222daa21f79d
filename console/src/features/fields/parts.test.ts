import { expect, test } from 'vitest'
import type { DeliveryPart } from './parts'
import { edited } from './parts'

const delivery: DeliveryPart = {
  to: ['ines.holm@skerryline.example'],
  language: 'nb',
  subject: 'Late',
  attach: ['csv'],
}

test('an edit replaces its field alone', () => {
  expect(edited(delivery, { language: 'de' })).toEqual({ ...delivery, language: 'de' })
})

test.each([
  ['an empty text', { subject: '' as const }, 'subject'],
  ['an empty list', { to: [] }, 'to'],
  ['nothing', { language: undefined }, 'language'],
  ['false', { allow_unsubscribe: false }, 'allow_unsubscribe'],
])('%s takes the field out', (_, edits, field) => {
  expect(edited({ ...delivery, allow_unsubscribe: true }, edits)).not.toHaveProperty(field)
})

test('no attachments are said, since a document without the field has a CSV file', () => {
  expect(edited(delivery, { attach: [] }, ['attach'])).toHaveProperty('attach', [])
})
