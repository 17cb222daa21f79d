import { t } from '../../messages'
import type { RuleDocument } from './api'

/** Without what a form leaves behind when its fields are emptied. */
export const withoutEmpty = (document: RuleDocument): RuleDocument =>
  Object.fromEntries(
    Object.entries(document).filter(
      ([name, value]) =>
        !(typeof value === 'string' && value.trim() === '' && !['name', 'title', 'owner', 'query'].includes(name)) &&
        !(name === 'labels' && Array.isArray(value) && value.length === 0),
    ),
  ) as RuleDocument

/** A preview needs a name; an unsaved rule has one that no rule has. */
export const previewable = (document: RuleDocument): RuleDocument => ({
  ...document,
  name: document.name || 'not-named-yet',
  title: document.title || t('editor.not_named_yet'),
  owner: document.owner || t('editor.no_recipients_yet'),
  memory:
    (document.memory?.mode ?? 'incremental') === 'incremental' &&
    !document.per &&
    (document.memory?.key ?? []).length === 0
      ? { ...document.memory, mode: 'full' }
      : (document.memory ?? {}),
})

/** Fields that a preview has something in place of while they are empty. */
export const putInPlace = ['name', 'title', 'owner', 'memory.key']
