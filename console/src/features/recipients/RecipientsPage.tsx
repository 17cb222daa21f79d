import { useState } from 'react'
import { Form, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { numberWords, timeWords } from '../../shared/words'
import { RecipientLists } from './RecipientLists'
import { readers, type RecipientSummary } from './api'
import { t } from '../../messages'

/** Everyone who gets mail, by address. */
export function RecipientsPage() {
  useTitle(t('shared.all_recipients'))
  const all = useQuery(readers)
  return (
    <>
      <h1>{t('shared.all_recipients')}</h1>
      <p className="quiet mb-0">{t('recipients.all_addresses_that_rules_and')}</p>
      <Loaded query={all} what={t('loading.the_recipients')}>
        {(list) =>
          list.length === 0 ? (
            <p className="sheet quiet">{t('recipients.no_recipients_yet_rules_name')}</p>
          ) : (
            <Listed list={list} />
          )
        }
      </Loaded>
      <RecipientLists />
    </>
  )
}

function Listed({ list }: { list: RecipientSummary[] }) {
  const [sought, setSought] = useState('')
  const found = list.filter((reader) => reader.address.includes(sought.trim().toLowerCase()))
  return (
    <section className="sheet">
      <Form.Group controlId="reader-search">
        <Form.Label className="mb-0 small quiet">{t('recipients.search_addresses')}</Form.Label>
        <Form.Control type="search" value={sought} onChange={(event) => setSought(event.target.value)} />
      </Form.Group>
      <p className="small quiet mt-2 mb-0" role="status">
        {t('recipients.address', { found: found.length })}
      </p>
      <Scroll label={t('shared.recipients')}>
        <Table>
          <thead>
            <tr>
              <th>{t('shared.address')}</th>
              <th className="num">{t('recipients.rules_and_round_ups')}</th>
              <th className="num">{t('recipients.messages_in_30_days')}</th>
              <th>{t('shared.last')}</th>
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
                      <span className="tag bad">{t('recipients.blocked')}</span>
                    </>
                  )}
                </td>
                <td className="num">{numberWords(reader.rules)}</td>
                <td className="num">{numberWords(reader.messages)}</td>
                <td className="text-nowrap">
                  {reader.lastAt ? timeWords(reader.lastAt) : <span className="quiet">{t('shared.never')}</span>}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
