import type { ApiProblem } from '../../api/client'
import type { DraftSeen, Review, RuleDocument } from './api'
import { plural } from '../../shared/words'

export const steps = [
  ['query', 'Query'],
  ['conditions', 'Conditions'],
  ['memory', 'Memory'],
  ['schedule', 'Schedule'],
  ['delivery', 'Delivery'],
  ['review', 'Review'],
] as const
export type Step = (typeof steps)[number][0]

/** One thing to look at before the rule becomes active: missing, or only risky. */
export type Remark = { step: Step; words: string; missing: boolean }

/** Where in the page a field of the document stands. */
export function stepOf(field: string | undefined): Step {
  const top = field?.split(/[.[]/)[0] ?? ''
  if (['memory'].includes(top)) return 'memory'
  if (['schedule', 'limits'].includes(top)) return 'schedule'
  if (['delivery'].includes(top)) return 'delivery'
  if (['exceptions', 'severity', 'fire_when', 'per', 'measures', 'expected_groups'].includes(top)) return 'conditions'
  return 'query'
}

const said = (problem: ApiProblem) =>
  `${problem.field ? `${problem.field}: ` : ''}${problem.message}${problem.suggestion ? ` – did you mean “${problem.suggestion}”?` : ''}`

/** What is missing or risky, in plain words and in the order of work. */
export function remarksOf(
  document: RuleDocument,
  review: Review | undefined,
  preview: DraftSeen | undefined,
  failure: string | null = null,
): Remark[] {
  const remarks: Remark[] = (review?.problems ?? []).map((problem) => ({
    step: stepOf(problem.field),
    words: said(problem),
    missing: problem.weight !== 'WARNING',
  }))
  const risky = (step: Step, words: string) => remarks.push({ step, words, missing: false })
  const { delivery, schedule } = document
  const split =
    Object.values(delivery?.['split_to'] ?? {}).flat().length > 0 ||
    Boolean(delivery?.['split_from']) ||
    Boolean(delivery?.['split_address'])
  if ((delivery?.to ?? []).length === 0) {
    if (split)
      risky('delivery', 'Values without recipients of their own are sent to nobody. Add an address under To for them.')
    else remarks.push({ step: 'delivery', words: 'No recipients: add an address under To.', missing: true })
  }
  if (
    !schedule ||
    ((schedule.recur ?? []).length === 0 &&
      (schedule.also ?? []).length === 0 &&
      (schedule['working_days'] ?? []).length === 0)
  )
    risky('schedule', 'No schedule: it runs only on demand.')
  if (!document.exceptions?.trim()) risky('conditions', 'All rows are exceptions: there is no condition.')
  // Problems of the document are shown above, with their fields.
  if (failure !== null && remarks.every((each) => !each.missing))
    risky('conditions', `A check now would fail: ${failure}`)
  const seen = failure === null ? preview?.draft : undefined
  if (seen) {
    const judged = seen.grouped ? 'group' : 'row'
    if (seen.exceptions === 0)
      risky('conditions', `No ${judged} in the current result is an exception. Is a comparison reversed?`)
    else if (document.exceptions?.trim() && !seen.grouped && seen.exceptions === seen.rowsRead && seen.rowsRead > 3)
      risky('conditions', 'All rows in the current result are exceptions. Is a comparison reversed?')
    if (seen.unknownRows > 0)
      risky('conditions', `${plural(seen.unknownRows, judged)} could not be evaluated because a value is missing.`)
    for (const offer of seen.suggestions)
      if (offer.empty)
        risky(
          'conditions',
          `${plural(offer.rows, 'row')} with an empty text in ${offer.column} ${offer.rows === 1 ? 'is' : 'are'} not matched by “is missing”; “is missing or empty” matches them.`,
        )
    if (seen.wouldReport > 200) risky('memory', `A check now would report ${plural(seen.wouldReport, 'finding')}.`)
  }
  const order = steps.map(([step]) => step)
  return remarks.sort((a, b) => Number(b.missing) - Number(a.missing) || order.indexOf(a.step) - order.indexOf(b.step))
}
