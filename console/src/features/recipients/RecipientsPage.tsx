import { useState } from 'react'
import { Form, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { numberWords, plural, timeWords } from '../../shared/words'
import { readers, type RecipientSummary } from './api'

/** Everyone who gets mail, by address. */
export function RecipientsPage() {
  useTitle('All recipients')
  const all = useQuery(readers)
  return (
    <>
      <h1>All recipients</h1>
      <p className="quiet mb-0">
        All addresses that rules and round-ups name, and those that queries or rows named in the last 30 days.
      </p>
      <Loaded query={all} what="The recipients">
        {(list) =>
          list.length === 0 ? (
            <p className="sheet quiet">No recipients yet. Rules name them under Delivery.</p>
          ) : (
            <Listed list={list} />
          )
        }
      </Loaded>
    </>
  )
}

function Listed({ list }: { list: RecipientSummary[] }) {
  const [sought, setSought] = useState('')
  const found = list.filter((reader) => reader.address.includes(sought.trim().toLowerCase()))
  return (
    <section className="sheet">
      <Form.Group controlId="reader-search">
        <Form.Label className="mb-0 small quiet">Search addresses</Form.Label>
        <Form.Control type="search" value={sought} onChange={(event) => setSought(event.target.value)} />
      </Form.Group>
      <p className="small quiet mt-2 mb-0" role="status">
        {plural(found.length, 'address', 'addresses')}
      </p>
      <Scroll label="Recipients">
        <Table>
          <thead>
            <tr>
              <th>Address</th>
              <th className="num">Rules and round-ups</th>
              <th className="num">Messages in 30 days</th>
              <th>Last</th>
            </tr>
          </thead>
          <tbody>
            {found.map((reader) => (
              <tr key={reader.address}>
                <td>
                  <Link to={`/recipients/${encodeURIComponent(reader.address)}`}>{reader.address}</Link>
                  {reader.blocked && (
                    <>
                      {' '}
                      <span className="tag bad">blocked</span>
                    </>
                  )}
                </td>
                <td className="num">{numberWords(reader.rules)}</td>
                <td className="num">{numberWords(reader.messages)}</td>
                <td className="text-nowrap">
                  {reader.lastAt ? timeWords(reader.lastAt) : <span className="quiet">never</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
