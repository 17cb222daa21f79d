import { useState } from 'react'
import { Button } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { timeWords } from '../../shared/words'
import { revisionsOf } from './api'
import { Compared } from './RevisionsPanel'
import { t } from '../../messages'

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
        {t('revisions.saved_revision_on_while_you', {
          author: newest.author ?? t('revisions.someone'),
          revision: newest.revision,
          at: timeWords(newest.at),
          reason: newest.reason && ` (${newest.reason})`,
          base,
        })}
      </p>
      <div className="d-flex gap-2 flex-wrap">
        <Button size="sm" variant="plain" onClick={() => setLooking(!looking)} aria-expanded={looking}>
          {looking ? t('revisions.hide_their_changes') : t('revisions.show_their_changes')}
        </Button>
        <Button size="sm" variant="plain" onClick={() => onSeen(newest.revision)}>
          {t('revisions.i_have_merged_their_changes')}
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
