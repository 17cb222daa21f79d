import type { RuleState, RuleSummary } from '../../api/types'

/** What the list of rules shows; it stands in the page's address, so that a link or a saved filter shows the same. */
export type Filter = {
  q: string
  state: '' | RuleState
  outcome: '' | 'FAILED' | 'FIRED' | 'QUIET' | 'NEVER'
  label: string
  owner: string
  open: boolean
}

export const filterOf = (search: URLSearchParams): Filter => ({
  q: search.get('q') ?? '',
  state: (['DRAFT', 'ACTIVE', 'PAUSED'] as const).find((each) => each === search.get('state')) ?? '',
  outcome: (['FAILED', 'FIRED', 'QUIET', 'NEVER'] as const).find((each) => each === search.get('outcome')) ?? '',
  label: search.get('label') ?? '',
  owner: search.get('owner') ?? '',
  open: search.get('open') === 'yes',
})

export function searchOf(filter: Filter): URLSearchParams {
  const search = new URLSearchParams()
  for (const name of ['q', 'state', 'outcome', 'label', 'owner'] as const)
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
  return rules.filter(
    (rule) =>
      words.every((word) => has(rule, word)) &&
      (filter.state === '' || rule.state === filter.state) &&
      ended(rule, filter.outcome) &&
      (filter.label === '' || rule.labels.includes(filter.label)) &&
      (filter.owner === '' || rule.owner === filter.owner) &&
      (!filter.open || Object.keys(rule.open).length > 0),
  )
}
