import { useState } from 'react'
import { screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { renderAt } from '../../shared/render.test-kit'
import type { DeliveryPart } from '../fields/parts'
import { VariantFields } from './VariantFields'

type Variants = NonNullable<DeliveryPart['variants']>

let written: Variants = []

function Held({ first }: { first: Variants }) {
  const [variants, setVariants] = useState(first)
  return (
    <VariantFields
      variants={variants}
      attach={['csv']}
      plain={false}
      document=""
      onChange={(next) => {
        written = next
        setVariants(next)
      }}
    />
  )
}

const show = (first: Variants) =>
  renderAt('/', <Held first={first} />, {
    'GET /api/people': [],
    'GET /api/teams': [{ name: 'Traffic reporting', addresses: [], signature: '', hasLogo: false }],
    'GET /api/definitions': [],
    'GET /api/definitions/schema.json': { $defs: {} },
  })

test('a variant names its recipients and what differs; files begin as those of the others', async () => {
  show([])
  await userEvent.click(screen.getByRole('button', { name: 'Add variant' }))
  await userEvent.type(screen.getByLabelText('For'), 'lead@skerryline.example,')
  await userEvent.selectOptions(screen.getByLabelText('Rows in the message'), 'totals only, no rows')
  await userEvent.click(screen.getByRole('checkbox', { name: 'Other files' }))
  expect(written).toEqual([{ for: ['lead@skerryline.example'], rows_as: 'figures', attach: ['csv'] }])
  await userEvent.click(screen.getByRole('button', { name: 'Remove file 1' }))
  expect(written).toEqual([{ for: ['lead@skerryline.example'], rows_as: 'figures', attach: [] }])
  await userEvent.click(screen.getByRole('checkbox', { name: 'Other files' }))
  await userEvent.selectOptions(screen.getByLabelText('Rows in the message'), 'As for the others')
  expect(written).toEqual([{ for: ['lead@skerryline.example'] }])
})

test('one recipient written alone is shown as one, and a variant can be removed', async () => {
  show([{ for: 'team: Traffic reporting', show: 'link' }])
  expect(await screen.findByText('team: Traffic reporting')).toBeInTheDocument()
  await userEvent.click(screen.getByRole('button', { name: 'Remove variant 1' }))
  expect(written).toEqual([])
})
