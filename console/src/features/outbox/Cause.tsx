import { Link } from 'react-router'
import type { MessageSummary } from '../../api/types'
import { t } from '../../messages'

/** What made a mail: its rule, or a round-up, a recipient or a failure, which belong to no one rule. */
export function Cause({ message }: { message: MessageSummary }) {
  if (message.roundUp) return <>{t('outbox.round_up', { roundUp: message.roundUp })}</>
  if (message.collection) return <span className="quiet">{t('outbox.collection')}</span>
  if (message.question) return <span className="quiet">{t('outbox.question')}</span>
  return message.rule === null ? (
    <span className="quiet">{t('outbox.failure_notice')}</span>
  ) : (
    <Link to={`/rules/${message.rule}`}>{message.rule}</Link>
  )
}
