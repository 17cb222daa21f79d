import { Link } from 'react-router'
import type { MessageSummary } from '../../api/types'
import { t } from '../../messages'

/** What made a mail: its rule, or a round-up or trouble, which belong to no one rule. */
export function Cause({ message }: { message: MessageSummary }) {
  if (message.roundUp) return <>{t('outbox.round_up', { roundUp: message.roundUp })}</>
  return message.rule === null ? (
    <span className="quiet">{t('outbox.failure_notice')}</span>
  ) : (
    <Link to={`/rules/${message.rule}`}>{message.rule}</Link>
  )
}
