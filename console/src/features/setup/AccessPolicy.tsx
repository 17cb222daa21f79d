import { Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { accessPolicy } from '../../shared/may'
import { saveAccessPolicy } from './api'
import { t } from '../../messages'

/** Whether members of the owning team alone change what it owns. */
export function AccessPolicy({ canChange }: { canChange: boolean }) {
  const policy = useQuery(accessPolicy)
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: saveAccessPolicy,
    onSuccess: (saved) => client.setQueryData(accessPolicy.queryKey, saved),
  })
  if (!policy.data) return null
  return (
    <div className="mt-3">
      <Form.Check
        type="switch"
        id="teams-decide"
        label={t('setup.teams_decide')}
        checked={policy.data.teamsDecide}
        disabled={!canChange || save.isPending}
        onChange={(event) => save.mutate({ teamsDecide: event.target.checked })}
      />
      <p className="small quiet mb-0">{t('setup.teams_decide_help')}</p>
      <Refusal error={save.error} />
    </div>
  )
}
