import { Table } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { numberWords, stateWords, timeWords } from '../../shared/words'
import { reader, type Reader } from './api'

export function RecipientPage() {
  const { address = '' } = useParams()
  const one = useQuery(reader(address))
  return (
    <Loaded query={one} what="The reader">
      {(data) => <One reader={data} />}
    </Loaded>
  )
}

/** What one address gets, why, and what keeps it from getting any. */
function One({ reader: who }: { reader: Reader }) {
  useTitle(who.address)
  return (
    <>
      <h1 className="text-break">{who.address}</h1>
      <p className="quiet mb-0">
        <Link to="/recipients">All recipients</Link> ·{' '}
        <Link to={`/outbox?q=${encodeURIComponent(who.address)}`}>Messages in the outbox</Link>
        {who.language && ` · language: ${who.language}`}
      </p>
      {who.blocked && (
        <p className="callout bad mt-2">
          Nothing is sent to this address. {who.blocked} <Link to="/outbox">Show in the outbox</Link>
        </p>
      )}
      <section className="sheet">
        <h2>What this recipient gets</h2>
        {who.gets.length === 0 ? (
          <p className="quiet mt-2 mb-0">
            Nothing: no rule or round-up names this address, and it got no messages in the last 30 days.
          </p>
        ) : (
          <Scroll label="What it gets">
            <Table>
              <thead>
                <tr>
                  <th>Rule or round-up</th>
                  <th>State</th>
                  <th>Recipient field</th>
                  <th className="num">Messages in 30 days</th>
                  <th>Last</th>
                </tr>
              </thead>
              <tbody>
                {who.gets.map((each) => (
                  <tr key={`${each.kind} ${each.name}`}>
                    <td>
                      {each.kind === 'rule' ? (
                        <Link to={`/rules/${each.name}`}>{each.title}</Link>
                      ) : (
                        <Link to="/setup">{each.title}, a round-up</Link>
                      )}
                      {each.unsubscribedAt && (
                        <div className="small problem-text">Unsubscribed {timeWords(each.unsubscribedAt)}.</div>
                      )}
                    </td>
                    <td>{each.state ? stateWords(each.state) : ''}</td>
                    <td>{each.how.join('; ')}</td>
                    <td className="num">{numberWords(each.messages)}</td>
                    <td className="text-nowrap">
                      {each.lastAt ? timeWords(each.lastAt) : <span className="quiet">never</span>}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
        )}
      </section>
    </>
  )
}
