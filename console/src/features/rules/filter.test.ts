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
])('%s finds %o', (search, names) => expect(found(search)).toEqual(names))

test('a filter comes back from its address', () => {
  const search = 'q=fog&state=ACTIVE&outcome=FIRED&label=daily&owner=Traffic&open=yes'
  expect(searchOf(filterOf(new URLSearchParams(search))).toString()).toBe(search)
})
