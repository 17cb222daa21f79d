import type { ApiProblem } from '../../api/client'
import type { DraftSeen, Review, RuleDocument, Seen } from './api'
import { isPlain } from './kind'
import { labelOf } from './places'
import { countWords } from '../../shared/words'
import { t } from '../../messages'

export const steps = [
  ['query', t('shared.query')],
  ['conditions', t('editor.conditions')],
  ['memory', t('editor.memory')],
  ['schedule', t('shared.schedule')],
  ['delivery', t('editor.delivery')],
  ['review', t('editor.review')],
] as const
export type Step = (typeof steps)[number][0]

/** One thing to look at before the rule becomes active: missing, or only risky. */
export type Remark = {
  step: Step
  /** What the form calls the field that it is about; without one it is about the step. */
  label?: string
  words: string
  missing: boolean
}

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
  `${problem.message}${problem.suggestion ? t('editor.did_you_mean', { suggestion: problem.suggestion }) : ''}`

/** How near the values come to the bounds of a condition that nothing meets. */
const nearestWords = (seen: Seen) =>
  seen.nearest.map(({ label, highest, text }) =>
    t(highest ? 'editor.highest_value' : 'editor.lowest_value', { label, text }),
  )

/** What is missing or risky, in plain words and in the order of work. */
export function remarksOf(
  document: RuleDocument,
  review: Review | undefined,
  preview: DraftSeen | undefined,
  failure: string | null = null,
): Remark[] {
  const remarks: Remark[] = (review?.problems ?? []).map((problem) => ({
    step: stepOf(problem.field),
    ...(problem.field ? { label: labelOf(problem.field, document) } : {}),
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
    if (split) risky('delivery', t('editor.values_without_recipients_of_their'))
    else remarks.push({ step: 'delivery', words: t('editor.no_recipients_add_an_address'), missing: true })
  }
  if (
    !schedule ||
    ((schedule.recur ?? []).length === 0 &&
      (schedule.also ?? []).length === 0 &&
      (schedule['working_days'] ?? []).length === 0)
  )
    risky('schedule', t('editor.no_schedule_it_runs_only'))
  const plain = isPlain(document)
  if (!document.exceptions?.trim() && !plain) risky('conditions', t('editor.all_rows_are_exceptions_there'))
  // Problems of the document are shown above, with their fields.
  if (failure !== null && remarks.every((each) => !each.missing))
    risky('conditions', t('editor.a_check_now_would_fail', { failure }))
  const seen = failure === null ? preview?.draft : undefined
  if (seen) {
    if (seen.exceptions === 0 && plain) risky('conditions', t('editor.no_row_now'))
    else if (seen.exceptions === 0)
      risky(
        'conditions',
        [
          t(seen.grouped ? 'editor.no_group_in_the_current' : 'editor.no_row_in_the_current'),
          ...nearestWords(seen),
        ].join(' '),
      )
    else if (document.exceptions?.trim() && !seen.grouped && seen.exceptions === seen.rowsRead && seen.rowsRead > 3)
      risky('conditions', t('editor.all_rows_in_the_current'))
    if (seen.unknownRows > 0)
      risky(
        'conditions',
        t('editor.could_not_be_evaluated_because', { unknownRows: countWords(seen.unknownRows, seen.grouped) }),
      )
    for (const offer of seen.suggestions)
      if (offer.empty)
        risky('conditions', t('editor.row_with_an_empty_text_in', { rows: offer.rows, column: offer.column }))
    if (seen.wouldReport > 200 && !plain)
      risky('memory', t('editor.a_check_now_would_report', { wouldReport: seen.wouldReport }))
  }
  const order = steps.map(([step]) => step)
  return remarks.sort((a, b) => Number(b.missing) - Number(a.missing) || order.indexOf(a.step) - order.indexOf(b.step))
}
