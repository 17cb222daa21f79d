import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Button, ButtonGroup, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { MessagePage as Page } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { stateWords, timeWords } from '../../shared/words'
import { act, message, type MessageAct } from './api'
import { Cause } from './Cause'
import { RecipientTag } from './RecipientTag'

export function MessagePage() {
  const { id = '' } = useParams()
  const page = useQuery(message(id))
  return (
    <Loaded query={page} what="The message">
      {(data) => <OneMessage page={data} />}
    </Loaded>
  )
}

function OneMessage({ page }: { page: Page }) {
  const { message: summary, text, attachments, tries, messageId } = page
  const [view, setView] = useState<'html' | 'text'>('html')
  useTitle(summary.subject)
  return (
    <>
      <div className="head">
        <div>
          <h1>{summary.subject}</h1>
          <span className="quiet">
            Queued {timeWords(summary.createdAt)} by <Cause message={summary} />
            {attachments.length > 0 && `, with ${attachments.join(', ')}`}
          </span>
        </div>
        <ButtonGroup aria-label="View as">
          <Button
            variant={view === 'html' ? 'primary' : 'plain'}
            aria-pressed={view === 'html'}
            onClick={() => setView('html')}
          >
            HTML
          </Button>
          <Button
            variant={view === 'text' ? 'primary' : 'plain'}
            aria-pressed={view === 'text'}
            onClick={() => setView('text')}
          >
            Plain text
          </Button>
          <Button variant="plain" href={`/api/outbox/${summary.id}/source`}>
            Source
          </Button>
        </ButtonGroup>
      </div>
      <Acts page={page} />
      <div className="mt-3">
        {view === 'html' ? (
          <iframe
            className="mail-view"
            title="The message as recipients see it"
            sandbox=""
            src={`/api/outbox/${summary.id}/html`}
          />
        ) : (
          <pre className="code">{text}</pre>
        )}
      </div>
      <section className="sheet">
        <h2>Recipients</h2>
        <Scroll label="Recipients">
          <Table>
            <thead>
              <tr>
                <th>Address</th>
                <th>State</th>
                <th className="num">Tries</th>
                <th>Mail server reply</th>
                <th>Next try</th>
              </tr>
            </thead>
            <tbody>
              {summary.recipients.map((recipient) => (
                <tr key={recipient.address}>
                  <td>{recipient.address}</td>
                  <td>
                    <RecipientTag recipient={recipient} />
                  </td>
                  <td className="num">{recipient.tries}</td>
                  <td>{recipient.detail ?? ''}</td>
                  <td>{recipient.nextTry ? timeWords(recipient.nextTry) : ''}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
        {tries.length > summary.recipients.length && (
          <ul className="small quiet mt-2 mb-0">
            {tries.map((each, index) => (
              <li key={index}>
                {timeWords(each.at)}: {each.address} {stateWords(each.outcome)}, “{each.detail}”
              </li>
            ))}
          </ul>
        )}
        <p className="small quiet mt-2 mb-0">Message-ID {messageId}</p>
      </section>
    </>
  )
}

/** Actions for a message: each explains first what it does. */
function Acts({ page: { message: summary } }: { page: Page }) {
  const queries = useQueryClient()
  const doing = useMutation({
    mutationFn: (what: MessageAct) => act(summary.id, what),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['outbox'] }),
  })
  const waits = summary.recipients.some(
    ({ state, nextTry }) => nextTry !== null && (state === 'QUEUED' || state === 'UNSURE'),
  )
  const everyone = summary.recipients.map(({ address }) => address).join(', ')
  const reports = summary.rule !== null && !summary.preview && !summary.repeat
  const unconfirmed = summary.recipients
    .filter(({ state, settledAt }) => state === 'UNCONFIRMED' && !settledAt)
    .map(({ address }) => address)
  return (
    <div className="mt-2">
      {unconfirmed.length > 0 && (
        <p className="callout bad">
          This message may not have arrived at {unconfirmed.join(', ')}: the connection to the mail server broke while
          it was being sent, and no later try was accepted. Its findings count as reported.{' '}
          <Button variant="plain" size="sm" disabled={doing.isPending} onClick={() => doing.mutate('confirm')}>
            It has arrived
          </Button>
        </p>
      )}
      {waits && (
        <Button
          variant="plain"
          size="sm"
          disabled={doing.isPending}
          onClick={() =>
            window.confirm('Cancel delivery to the recipients still queued? The findings stay reported.') &&
            doing.mutate('cancel')
          }
        >
          Stop
        </Button>
      )}{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={doing.isPending}
        onClick={() => window.confirm(`Resend to ${everyone} (marked as resent)?`) && doing.mutate('resend')}
      >
        Resend
      </Button>{' '}
      {reports && (
        <Button
          variant="plain"
          size="sm"
          disabled={doing.isPending}
          onClick={() =>
            window.confirm('Report these findings again at the next check?') && doing.mutate('report-again')
          }
        >
          Report again
        </Button>
      )}
      <div role="status" className="small">
        {doing.isSuccess && doing.variables === 'resend' && (
          <>
            Queued: <Link to={`/outbox/${doing.data.message}`}>the resent message</Link>.
          </>
        )}
        {doing.isSuccess && doing.variables === 'report-again' && `The next check reports ${doing.data.count} again.`}
        {doing.isSuccess && doing.variables === 'confirm' && 'Noted.'}
        {doing.isError && <span className="callout bad">{doing.error.message}</span>}
      </div>
    </div>
  )
}
