import { Link } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { plural, timeWords } from '../../shared/words'
import { outbox } from '../outbox/api'
import { SendOpen } from './SendOpen'

const shown = 6

/** The newest messages of a rule. */
export function RuleMail({ name, named }: { name: string; named: string[] }) {
  const messages = useQuery(outbox({ rule: name }))
  return (
    <section className="sheet">
      <div className="head">
        <h2>Messages</h2>
        <Link className="small quiet" to={`/outbox?rule=${name}`}>
          All in the outbox
        </Link>
      </div>
      <Loaded query={messages} what="The messages">
        {({ messages: list }) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">No messages yet. A check with updates creates one.</p>
          ) : (
            <Scroll label="Messages">
              <Table size="sm">
                <tbody>
                  {list.slice(0, shown).map((mail) => (
                    <tr key={mail.id}>
                      <td className="text-nowrap quiet">{timeWords(mail.createdAt)}</td>
                      <td>
                        <Link to={`/outbox/${mail.id}`}>{mail.subject}</Link>
                      </td>
                      <td className="text-nowrap">
                        {mail.recipients.every(({ state }) => state === 'SENT')
                          ? `sent to ${plural(mail.recipients.length, 'person', 'people')}`
                          : mail.recipients.map(({ state }) => state.toLowerCase()).join(', ')}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </Scroll>
          )
        }
      </Loaded>
      <SendOpen name={name} named={named} />
    </section>
  )
}
