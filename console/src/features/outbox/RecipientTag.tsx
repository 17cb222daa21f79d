import type { Recipient, RecipientState } from '../../api/types'
import { stateWords } from '../../shared/words'

const looks: Record<RecipientState, string> = {
  QUEUED: 'warning',
  SENDING: '',
  SENT: 'good',
  UNSURE: 'warning',
  UNCONFIRMED: 'bad',
  REJECTED: 'bad',
  EXPIRED: 'bad',
  CANCELLED: '',
  WAITING: '',
  COLLECTED: 'good',
}

export function RecipientTag({ recipient }: { recipient: Recipient }) {
  return <span className={`tag ${looks[recipient.state]}`}>{stateWords(recipient.state)}</span>
}
