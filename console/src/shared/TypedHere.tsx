import { Button } from 'react-bootstrap'
import { timeWords } from './words'
import { t } from '../messages'

/** Says that the page shows unsaved input, and how to discard it. */
export function TypedHere({
  typed,
  onDiscard,
}: {
  typed: { found: string | null; dirty: boolean }
  onDiscard: () => void
}) {
  if (!typed.dirty) return null
  return (
    <p className="callout mt-2 mb-0">
      {typed.found
        ? t('shared.your_unsaved_changes_from_were', { found: timeWords(typed.found) })
        : t('shared.not_saved_kept_in_this')}{' '}
      <Button size="sm" variant="plain" onClick={onDiscard}>
        {t('shared.discard_draft')}
      </Button>
    </p>
  )
}
