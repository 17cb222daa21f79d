import type { Schemas } from '../../api/types'
import { timeWords } from '../../shared/words'
import { t } from '../../messages'

export type ReaderChoice = Schemas['ReaderChoiceView']

/** What a recipient chose by the link in a message, in one line. */
export function choiceWords(choice: ReaderChoice): string {
  const words = [
    choice.pausedUntil && t('recipients.paused_until', { at: timeWords(choice.pausedUntil) }),
    !choice.pausedUntil &&
      choice.collect === 'daily' &&
      t('recipients.collected_daily', { next: choice.nextCollection ? timeWords(choice.nextCollection) : '' }),
    !choice.pausedUntil &&
      choice.collect === 'weekly' &&
      t('recipients.collected_weekly', { next: choice.nextCollection ? timeWords(choice.nextCollection) : '' }),
    choice.filesByLink && t('recipients.files_as_links'),
  ]
  return words.filter(Boolean).join(' · ')
}
