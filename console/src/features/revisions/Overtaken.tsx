import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { revisionsOf } from './api'
import { Compared } from './RevisionsPanel'

/** Tells an editor that somebody else has saved meanwhile, shows what they changed, and leaves it to a person to go on. */
export function Overtaken({
  kind,
  name,
  base,
  onSeen,
}: {
  kind: string
  name: string
  base: number
  onSeen: (revision: number) => void
}) {
  const all = useQuery(revisionsOf(kind, name))
  const [looking, setLooking] = useState(false)
  const newest = all.data?.[0]
  if (!newest || newest.revision <= base) return null
  return (
    <div className="callout bad mt-2" role="alert">
      <p className="mb-1">
        {newest.author ?? 'Someone'} saved revision {newest.revision} on {timeWords(newest.at)}
        {newest.reason && ` (${newest.reason})`}while you were editing revision {base}. Neither version has been
        overwritten.
      </p>
      <div className="d-flex gap-2 flex-wrap">
        <Button size="sm" variant="plain" onClick={() => setLooking(!looking)} aria-expanded={looking}>
          {looking ? 'Hide their changes' : 'Show their changes'}
        </Button>
        <Button size="sm" variant="plain" onClick={() => onSeen(newest.revision)}>
          I have merged their changes; save mine
        </Button>
      </div>
      {looking && (
        <div className="mt-2">
          <Compared kind={kind} name={name} older={base} newer={newest.revision} />
        </div>
      )}
    </div>
  )
}
