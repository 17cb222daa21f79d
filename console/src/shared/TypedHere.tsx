import { Button } from 'react-bootstrap'
import { timeWords } from './words'

/** Says that the page shows what its reader typed and has not saved, and how to be rid of it. */
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
