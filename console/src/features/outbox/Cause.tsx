import { Link } from 'react-router'
import type { MessageSummary } from '../../api/types'

/** What made a mail: its rule, or a round-up or trouble, which belong to no one rule. */
export function Cause({ message }: { message: MessageSummary }) {
  if (message.roundUp) return <>round-up {message.roundUp}</>
  return message.rule === null ? (
    <span className="quiet">failure notice</span>
  ) : (
    <Link to={`/rules/${message.rule}`}>{message.rule}</Link>
  )
}
