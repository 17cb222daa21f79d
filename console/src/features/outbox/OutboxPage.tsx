import { Link, useSearchParams } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { MessageSummary } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { outbox } from './api'
import { Cause } from './Cause'
import { RecipientTag } from './RecipientTag'

export function OutboxPage() {
  useTitle('Outbox')
  const [search] = useSearchParams()
  const rule = search.get('rule')
  const messages = useQuery(outbox(rule))
  return (
    <>
      <h1>Outbox</h1>
      {rule && <p className="quiet mb-0">Only mail of {rule}. <Link to="/outbox">Show all</Link></p>}
      <Loaded query={messages} what="The outbox">
        {(list) => (list.length === 0 ? <p className="sheet quiet">No mail was queued yet. A check that finds something new queues one.</p> : <Messages messages={list} />)}
      </Loaded>
    </>
  )
}

function Messages({ messages }: { messages: MessageSummary[] }) {
  return (
    <section className="sheet">
      <Scroll label="Mails">
        <Table>
          <thead><tr><th>Queued</th><th>Subject</th><th>Because of</th><th>Recipients</th></tr></thead>
          <tbody>
            {messages.map((message) => (
              <tr key={message.id}>
                <td className="text-nowrap">{timeWords(message.createdAt)}</td>
                <td><Link to={`/outbox/${message.id}`}>{message.subject}</Link></td>
                <td><Cause message={message} /></td>
                <td>{message.recipients.map((recipient) => <div key={recipient.address}>{recipient.address} <RecipientTag recipient={recipient} /></div>)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
