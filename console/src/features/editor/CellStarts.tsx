import { Button } from 'react-bootstrap'
import { t } from '../../messages'
import type { Column } from '../fields/parts'
import { unquoted, type Simple } from './builder'
import { startsOf, verbWords } from './starts'

export type Picked = { column: Column; cell: string | null }

const valueWords = (part: Simple) => {
  if (part.is === 'compare' && part.operand.kind === 'value') return unquoted(part.operand.text)
  return part.is === 'within' && part.window.kind === 'last' ? `${part.window.amount} ${part.window.unit}` : ''
}

/** Conditions to begin with, from a cell that a person pointed at. */
export function CellStarts({ picked, onStart }: { picked: Picked; onStart: (part: Simple) => void }) {
  const { column, cell } = picked
  return (
    <div className="callout mt-2" role="group" aria-label={t('editor.condition_from_cell')}>
      {t('editor.add_condition_where', { label: column.label })}{' '}
      {startsOf(column, cell).map((part) => {
        const words = `${verbWords(part, column.type)} ${valueWords(part)}`.trim()
        return (
          <Button key={words} size="sm" variant="plain" className="me-1 mb-1" onClick={() => onStart(part)}>
            {words}
          </Button>
        )
      })}
    </div>
  )
}
