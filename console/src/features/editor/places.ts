import { fieldWords } from '../fields/schema'
import { t } from '../../messages'
import type { RuleDocument } from './api'
import { isPlain } from './kind'
import type { Step } from './steps'

/** Fields whose labels in the form are not their names; what is more exact comes first. */
const labels: [string, string][] = [
  ['title', t('shared.title')],
  ['name', t('shared.name_for_urls_and_commands')],
  ['query', t('shared.query')],
  ['owner', t('editor.owner_team')],
  ['zone', t('shared.time_zone')],
  ['severity', t('shared.severity')],
  ['fire_when', t('editor.fire_only_if')],
  ['per', t('editor.group_by')],
  ['measures', t('editor.measures')],
  ['expected_groups', t('editor.expected_groups')],
  ['memory.key', t('editor.key_columns_rows_with_the')],
  ['memory.report', t('editor.report_a_finding_when_it')],
  ['memory.watch', t('editor.watched_columns_comma_separated')],
  ['memory.first_check', t('editor.first_check')],
  ['memory.absence', t('editor.when_a_finding_is_no')],
  ['memory.open_after', t('shared.open_after')],
  ['memory.clear_after', t('shared.clear_after')],
  ['memory.remind_every', t('editor.remind_every')],
  ['schedule.recur', t('editor.repeat')],
  ['schedule.working_days', t('editor.working_days')],
  ['schedule.on_holidays', t('shared.on_holidays')],
  ['schedule.until', t('editor.ends')],
  ['delivery.to', t('editor.to')],
  ['delivery.cc', t('editor.cc')],
  ['delivery.bcc', t('editor.bcc')],
  ['delivery.subject', t('shared.subject')],
  ['delivery.opening', t('editor.introduction')],
  ['delivery.closing', t('editor.closing')],
  ['delivery.language', t('shared.language')],
  ['delivery.split_by', t('editor.split_by_column')],
  ['delivery.split_from', t('editor.split_from')],
  ['delivery.split_address', t('editor.split_address')],
  ['delivery.split_to', t('editor.split')],
  ['delivery.split', t('editor.split')],
  ['delivery.attach', t('editor.files')],
  ['delivery.variants', t('editor.variants')],
  ['delivery.layout.sort', t('editor.sort_by')],
  ['delivery.layout.group_by', t('editor.group_rows_by')],
  ['delivery.layout.rows_in_mail', t('editor.rows_in_mail')],
  ['delivery.layout', t('editor.layout')],
  ['delivery.columns', t('editor.layout')],
]

const isWithin = (field: string, part: string) =>
  field === part || field.startsWith(`${part}.`) || field.startsWith(`${part}[`) || field.startsWith(`${part} `)

/** What the condition of a rule says of its rows or groups. */
export function conditionLabel(document: RuleDocument) {
  if (isPlain(document)) return document.per ? t('editor.groups_sent') : t('editor.rows_sent')
  return document.per ? t('editor.exception_each_group_where') : t('shared.exception_each_row_where')
}

/** What the form calls the field of a document. */
export function labelOf(field: string, document: RuleDocument): string {
  if (isWithin(field, 'exceptions')) return conditionLabel(document)
  const known = labels.find(([part]) => isWithin(field, part))
  // What a label explains in brackets is for those who fill the field in.
  if (known) return known[1].replace(/ \(.*\)$/, '')
  const names = field.split('.').map((each) => each.replace(/\[\d+\]$/, ''))
  return fieldWords(names.at(-1) ?? field)
}

const named = 'label, legend, summary, h3, [aria-label]'
const entered = 'input, select, textarea, button, summary'

/** What belongs to a label: the field that it names, or the first in what it heads. */
function fieldOf(label: Element): HTMLElement | null {
  if (label.matches(entered)) return label as HTMLElement
  const id = label.getAttribute('for')
  const one = id === null ? null : document.getElementById(id)
  return one ?? label.parentElement?.querySelector<HTMLElement>(entered) ?? null
}

/** Shows a field of a step and puts the caret into it, also one that is folded away. */
export function showField(step: Step, label: string): boolean {
  const section = document.getElementById(step)
  const words = (each: Element) => (each.getAttribute('aria-label') ?? each.textContent).trim()
  const found = [...(section?.querySelectorAll(named) ?? [])]
  const place = found.find((each) => words(each) === label) ?? found.find((each) => words(each).startsWith(label))
  const field = place && fieldOf(place)
  if (!place || !field) return false
  for (let fold = place.closest('details'); fold; fold = fold.parentElement?.closest('details') ?? null)
    fold.open = true
  place.scrollIntoView({ block: 'center' })
  field.focus({ preventScroll: true })
  return true
}
