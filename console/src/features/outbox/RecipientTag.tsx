import type { Recipient, RecipientState } from '../../api/types'
import { stateWords } from '../../shared/words'

const looks: Record<RecipientState, string> = {
  WAITING: 'warning', HANDING_OVER: '', SENT: 'good', UNSURE: 'warning', UNCONFIRMED: 'bad', REFUSED: 'bad', EXPIRED: 'bad', STOPPED: '',
}

export function RecipientTag({ recipient }: { recipient: Recipient }) {
  return <span className={`tag ${looks[recipient.state]}`}>{stateWords(recipient.state)}</span>
}
