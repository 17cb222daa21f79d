import { dot, lateSailings } from '../../shared/render.test-kit'
import { filterOf, matching, searchOf } from './filter'

const late = lateSailings({ labels: ['daily'], latest: [dot('FAILED')] })
const fuel = lateSailings({
  name: 'fuel-per-mile',
  title: 'Fuel per mile',
  query: 'bunkering',
  columns: ['vessel', 'litres'],
  thresholds: ['fuel_per_mile'],
  named: ['per.aune@skerryline.example'],
  to: [],
  open: {},
  state: 'PAUSED',
  schedule: 'every day at 06:00',
  formats: ['pdf', 'xlsx'],
  splitBy: 'vessel',
  nextSlot: '2026-11-25T04:00:00Z',
})
const found = (search: string) => matching([late, fuel], filterOf(new URLSearchParams(search))).map((rule) => rule.name)

test.each([
  ['', ['late-sailings', 'fuel-per-mile']],
  ['q=fuel', ['fuel-per-mile']],
  ['q=litres', ['fuel-per-mile']],
  ['q=late_minutes', ['late-sailings']],
  ['q=per.aune', ['fuel-per-mile']],
  ['q=column:vessel', ['fuel-per-mile']],
  ['q=threshold:vessel', []],
  ['q=without late', ['late-sailings']],
  ['state=PAUSED', ['fuel-per-mile']],
  ['outcome=FAILED', ['late-sailings']],
  ['outcome=NEVER', ['fuel-per-mile']],
  ['label=daily', ['late-sailings']],
  ['open=yes', ['late-sailings']],
  ['q=format:pdf', ['fuel-per-mile']],
  ['q=split:vessel', ['fuel-per-mile']],
  ['q=schedule:friday', ['late-sailings']],
  ['sort=next', ['fuel-per-mile', 'late-sailings']],
  ['sort=open', ['late-sailings', 'fuel-per-mile']],
  ['sort=last', ['late-sailings', 'fuel-per-mile']],
  ['sort=never', ['late-sailings', 'fuel-per-mile']],
])('%s finds %o', (search, names) => expect(found(search)).toEqual(names))

test('a filter comes back from its address', () => {
  const search = 'q=fog&state=ACTIVE&outcome=FIRED&label=daily&owner=Traffic&open=yes'
  expect(searchOf(filterOf(new URLSearchParams(search))).toString()).toBe(search)
})
