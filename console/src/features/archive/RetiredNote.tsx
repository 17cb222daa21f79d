import { Button } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMay } from '../../shared/may'
import { Refusal } from '../../shared/Refusal'
import { timeWords } from '../../shared/words'
import { restore, type Retired } from './api'
import { t } from '../../messages'

/** Says of a page that its definition was retired, and brings it back. */
export function RetiredNote({ retired }: { retired: Retired | undefined }) {
  const may = useMay()
  const client = useQueryClient()
  const back = useMutation({
    mutationFn: ({ kind, name }: Retired) => restore(kind, name),
    onSuccess: () => client.invalidateQueries(),
  })
  if (!retired) return null
  return (
    <div className="callout mt-2 d-flex flex-wrap gap-2 align-items-center">
      <span>
        {t('archive.retired_by_because', { at: timeWords(retired.at), by: retired.by, reason: retired.reason })}
      </span>
      {may('write', retired.owner ?? undefined) && (
        <Button size="sm" variant="plain" disabled={back.isPending} onClick={() => back.mutate(retired)}>
          {t('archive.restore')}
        </Button>
      )}
      <Refusal error={back.error} />
    </div>
  )
}
