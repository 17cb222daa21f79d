import { Link } from 'react-router'
import type { MessageSummary } from '../../api/types'

/** What made a mail: its rule, or trouble that a team was told of, which belongs to no one rule. */
export function Cause({ message }: { message: MessageSummary }) {
  return message.rule === null ? <span className="quiet">trouble</span> : <Link to={`/rules/${message.rule}`}>{message.rule}</Link>
}
