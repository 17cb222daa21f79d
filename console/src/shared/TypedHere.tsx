import { Button } from 'react-bootstrap'
import { timeWords } from './words'

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
        ? `Your unsaved changes from ${timeWords(typed.found)} were restored.`
        : 'Not saved. Kept in this browser.'}{' '}
      <Button size="sm" variant="plain" onClick={onDiscard}>
        Discard draft
      </Button>
    </p>
  )
}
