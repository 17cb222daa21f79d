import type { RuleState, RuleSummary } from '../../api/types'

/** What the list of rules shows; it stands in the page's address, so that a link or a saved filter shows the same. */
export type Filter = {
  q: string
  state: '' | RuleState
  outcome: '' | 'FAILED' | 'FIRED' | 'QUIET' | 'NEVER'
  label: string
  owner: string
  open: boolean
  sort: '' | (typeof orders)[number]
}

const orders = ['next', 'open', 'last'] as const

export const filterOf = (search: URLSearchParams): Filter => ({
  q: search.get('q') ?? '',
  state: (['DRAFT', 'ACTIVE', 'PAUSED'] as const).find((each) => each === search.get('state')) ?? '',
  outcome: (['FAILED', 'FIRED', 'QUIET', 'NEVER'] as const).find((each) => each === search.get('outcome')) ?? '',
  label: search.get('label') ?? '',
  owner: search.get('owner') ?? '',
  open: search.get('open') === 'yes',
  sort: orders.find((each) => each === search.get('sort')) ?? '',
})

export function searchOf(filter: Filter): URLSearchParams {
  const search = new URLSearchParams()
  for (const name of ['q', 'state', 'outcome', 'label', 'owner', 'sort'] as const)
    if (filter[name]) search.set(name, filter[name])
  if (filter.open) search.set('open', 'yes')
  return search
}

/** Each kind of thing that a rule can be found by; `column:delay_min` seeks among columns alone. */
const kinds: Record<string, (rule: RuleSummary) => string[]> = {
  name: (rule) => [rule.name, rule.title],
  query: (rule) => [rule.query],
  column: (rule) => rule.columns,
  source: (rule) => [rule.source],
  threshold: (rule) => rule.thresholds,
  to: (rule) => [...rule.named, ...rule.to],
  label: (rule) => rule.labels,
  owner: (rule) => [rule.owner],
  schedule: (rule) => [rule.schedule],
  format: (rule) => rule.formats,
  split: (rule) => (rule.splitBy ? [rule.splitBy] : []),
  copied: (rule) => (rule.copiedFrom ? [rule.copiedFrom] : []),
}

export const soughtKinds = Object.keys(kinds)

function has(rule: RuleSummary, word: string): boolean {
  const [kind, rest] = [word.slice(0, word.indexOf(':')), word.slice(word.indexOf(':') + 1)] as const
  const of = word.includes(':') ? kinds[kind] : undefined
  const texts = of ? of(rule) : Object.values(kinds).flatMap((each) => each(rule))
  const sought = of ? rest : word
  return texts.some((text) => text.toLowerCase().includes(sought))
}

const outcomes = {
  FAILED: ['FAILED', 'PARTLY_FAILED', 'AWAITING_APPROVAL', 'INCOMPLETE'],
  FIRED: ['FIRED'],
  QUIET: ['QUIET'],
} as const

function ended(rule: RuleSummary, outcome: Filter['outcome']): boolean {
  const last = rule.latest[0]
  if (outcome === '') return true
  if (outcome === 'NEVER') return last === undefined
  return last !== undefined && (outcomes[outcome] as readonly string[]).includes(last.state)
}

/** Every word must be found somewhere, in any order. */
export function matching(rules: RuleSummary[], filter: Filter): RuleSummary[] {
  const words = filter.q.toLowerCase().split(/\s+/).filter(Boolean)
  const found = rules.filter(
    (rule) =>
      words.every((word) => has(rule, word)) &&
      (filter.state === '' || rule.state === filter.state) &&
      ended(rule, filter.outcome) &&
      (filter.label === '' || rule.labels.includes(filter.label)) &&
      (filter.owner === '' || rule.owner === filter.owner) &&
      (!filter.open || Object.keys(rule.open).length > 0),
  )
  return filter.sort === '' ? found : found.toSorted(by[filter.sort])
}

const openOf = (rule: RuleSummary) => Object.values(rule.open).reduce((sum, each) => sum + each, 0)

/** The soonest first, the most open findings first, the longest ago first; what has none comes last. */
const by = {
  next: (a: RuleSummary, b: RuleSummary) => (a.nextSlot ?? '9').localeCompare(b.nextSlot ?? '9'),
  open: (a: RuleSummary, b: RuleSummary) => openOf(b) - openOf(a),
  last: (a: RuleSummary, b: RuleSummary) => (a.latest[0]?.slot ?? '9').localeCompare(b.latest[0]?.slot ?? '9'),
} as const
