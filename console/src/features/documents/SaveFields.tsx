import { Button, Form } from 'react-bootstrap'
import { useMay } from '../../shared/may'
import { t } from '../../messages'

type Props = {
  /** The team that owns what is saved; none for what all teams share. */
  owner: string | undefined
  reason: string
  onReason: (reason: string) => void
  disabled: boolean
  saving?: boolean
}

/** Reason and button at the end of a form, for those who may save; for others whose it is. */
export function SaveFields({ owner, reason, onReason, disabled, saving = false }: Props) {
  const may = useMay()
  if (!may('write')) return <p className="quiet mt-3 mb-0">{t('documents.your_role_changes_nothing_here')}</p>
  if (!may('write', owner))
    return <p className="quiet mt-3 mb-0">{t('documents.members_change_it', { owner: owner ?? '' })}</p>
  return (
    <div className="d-flex gap-2 flex-wrap align-items-end mt-3">
      <Form.Group controlId="reason" className="flex-grow-1">
        <Form.Label className="mb-0 small quiet">{t('shared.reason')}</Form.Label>
        <Form.Control
          value={reason}
          onChange={(event) => onReason(event.target.value)}
          placeholder={t('shared.what_changes_and_why')}
        />
      </Form.Group>
      <Button type="submit" disabled={disabled}>
        {saving ? t('queries.saving') : t('shared.save')}
      </Button>
    </div>
  )
}
