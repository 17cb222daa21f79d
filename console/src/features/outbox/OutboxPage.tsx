import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Button, Form, Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { MessageSummary } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { SearchField } from '../../shared/SearchField'
import { useTitle } from '../../shared/title'
import { stateWords, timeWords } from '../../shared/words'
import { outbox, type Sought } from './api'
import { BlockedAddresses } from './BlockedAddresses'
import { Cause } from './Cause'
import { Holds } from './Holds'
import { RecipientTag } from './RecipientTag'
import { rich, t } from '../../messages'

export function OutboxPage() {
  useTitle(t('shared.outbox'))
  const [search, setSearch] = useSearchParams()
  const rule = search.get('rule')
  const q = search.get('q') ?? ''
  const state = search.get('state') ?? ''
  const seek = (name: string, value: string) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before)
        if (value) after.set(name, value)
        else after.delete(name)
        return after
      },
      { replace: true },
    )
  return (
    <>
      <h1>{t('shared.outbox')}</h1>
      {rule && (
        <p className="quiet mb-0">
          {rich('outbox.messages_of_show_all', { rule, link: (inner) => <Link to="/outbox">{inner}</Link> })}
        </p>
      )}
      <Holds rule={rule} />
      <BlockedAddresses />
      <div className="d-flex gap-2 flex-wrap">
        <SearchField
          className="w-auto"
          aria-label={t('outbox.search_subjects_and_addresses')}
          placeholder={t('outbox.subject_or_address')}
          value={q}
          onSettled={(text) => seek('q', text)}
        />
        <Form.Select
          className="w-auto"
          aria-label={t('outbox.delivery_state')}
          value={state}
          onChange={(event) => seek('state', event.target.value)}
        >
          <option value="">{t('shared.all')}</option>
          {(
            [
              'QUEUED',
              'SENT',
              'UNSURE',
              'UNCONFIRMED',
              'REJECTED',
              'EXPIRED',
              'CANCELLED',
              'WAITING',
              'COLLECTED',
            ] as const
          ).map((each) => (
            <option key={each} value={each}>
              {stateWords(each)}
            </option>
          ))}
        </Form.Select>
      </div>
      <Page sought={{ rule, q, state }} />
    </>
  )
}

/** @param after where the page begins; left out for the newest */
function Page({ sought, after }: { sought: Sought; after?: string }) {
  const messages = useQuery(outbox(sought, after))
  return (
    <Loaded query={messages} what={t('loading.the_outbox')}>
      {({ messages: list, next }) =>
        list.length === 0 && !after ? (
          <p className="sheet quiet">
            {sought.q || sought.state ? t('outbox.no_messages_match') : t('shared.no_messages_yet_a_check')}
          </p>
        ) : (
          <>
            <Messages messages={list} />
            {next && <Older key={next} sought={sought} after={next} />}
          </>
        )
      }
    </Loaded>
  )
}

function Older({ sought, after }: { sought: Sought; after: string }) {
  const [open, setOpen] = useState(false)
  if (open) return <Page sought={sought} after={after} />
  return (
    <Button variant="plain" className="mt-2" onClick={() => setOpen(true)}>
      {t('outbox.show_older_messages')}
    </Button>
  )
}

function Messages({ messages }: { messages: MessageSummary[] }) {
  return (
    <section className="sheet">
      <Scroll label={t('shared.messages')}>
        <Table className="cards">
          <thead>
            <tr>
              <th>{t('outbox.queued')}</th>
              <th>{t('shared.subject')}</th>
              <th>{t('outbox.sent_by')}</th>
              <th>{t('shared.recipients')}</th>
            </tr>
          </thead>
          <tbody>
            {messages.map((message) => (
              <tr key={message.id}>
                <td className="text-nowrap" data-label={t('outbox.queued')}>
                  {timeWords(message.createdAt)}
                </td>
                <td className="main">
                  <Link to={`/outbox/${message.id}`}>{message.subject}</Link>
                </td>
                <td data-label={t('outbox.sent_by')}>
                  <Cause message={message} />
                  {message.preview && t('outbox.preview')}
                  {message.repeat && t('outbox.repeat')}
                  {message.held && <strong>{t('outbox.held')}</strong>}
                </td>
                <td data-label={t('shared.recipients')}>
                  {message.recipients.map((recipient) => (
                    <div key={recipient.address}>
                      {recipient.address} <RecipientTag recipient={recipient} />
                    </div>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
