import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Button, ButtonGroup, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { MessagePage as Page } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { SeverityTag } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { bytesWords, numberWords, stateWords, timeWords } from '../../shared/words'
import { act, message, type MessageAct } from './api'
import { Cause } from './Cause'
import { RecipientTag } from './RecipientTag'
import { rich, t } from '../../messages'

export function MessagePage() {
  const { id = '' } = useParams()
  const page = useQuery(message(id))
  return (
    <Loaded query={page} what={t('loading.the_message')}>
      {(data) => <OneMessage page={data} />}
    </Loaded>
  )
}

function OneMessage({ page }: { page: Page }) {
  const { message: summary, text, files, reported, tries, messageId } = page
  const [view, setView] = useState<'html' | 'text'>('html')
  useTitle(summary.subject)
  return (
    <>
      <div className="head">
        <div>
          <h1>{summary.subject}</h1>
          <span className="quiet">
            {rich('outbox.queued_by', {
              createdAt: timeWords(summary.createdAt),
              cause: <Cause message={summary} />,
            })}
          </span>
        </div>
        <ButtonGroup aria-label={t('shared.view_as')}>
          <Button
            variant={view === 'html' ? 'primary' : 'plain'}
            aria-pressed={view === 'html'}
            onClick={() => setView('html')}
          >
            {t('outbox.html')}
          </Button>
          <Button
            variant={view === 'text' ? 'primary' : 'plain'}
            aria-pressed={view === 'text'}
            onClick={() => setView('text')}
          >
            {t('shared.plain_text')}
          </Button>
          <Button variant="plain" href={`/api/outbox/${summary.id}/source`}>
            {t('shared.source')}
          </Button>
        </ButtonGroup>
      </div>
      <Acts page={page} />
      <div className="mt-3">
        {view === 'html' ? (
          <iframe
            className="mail-view"
            title={t('outbox.the_message_as_recipients_see')}
            sandbox=""
            src={`/api/outbox/${summary.id}/html`}
          />
        ) : (
          <pre className="code">{text}</pre>
        )}
      </div>
      {files.length > 0 && (
        <section className="sheet">
          <h2>{t('outbox.files')}</h2>
          <ul className="list-unstyled mb-0">
            {files.map((file, place) => (
              <li key={place}>
                <a href={`/api/extracts/${summary.id}/files/${place}`} download>
                  {file.name}
                </a>{' '}
                <span className="small quiet">{bytesWords(file.bytes)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {reported.total > 0 && <Reported reported={reported} />}
      <section className="sheet">
        <h2>{t('shared.recipients')}</h2>
        <Scroll label={t('shared.recipients')}>
          <Table>
            <thead>
              <tr>
                <th>{t('shared.address')}</th>
                <th>{t('shared.state')}</th>
                <th className="num">{t('outbox.tries')}</th>
                <th>{t('outbox.mail_server_reply')}</th>
                <th>{t('shared.next_try')}</th>
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
                  <td>
                    {recipient.detail ?? ''}
                    {recipient.collectedIn && (
                      <Link to={`/outbox/${recipient.collectedIn}`}>{t('outbox.sent_with_a_collection')}</Link>
                    )}
                    {recipient.state === 'WAITING' && t('outbox.kept_for_a_collection')}
                  </td>
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
        <p className="small quiet mt-2 mb-0">{t('outbox.message_id', { messageId })}</p>
      </section>
    </>
  )
}

/** What the message reported, each leading to its story. */
function Reported({ reported: { total, findings } }: { reported: Page['reported'] }) {
  const severalRules = new Set(findings.map(({ rule }) => rule)).size > 1
  return (
    <section className="sheet">
      <h2>{t('outbox.reported_findings')}</h2>
      <Scroll label={t('outbox.reported_findings')}>
        <Table>
          <thead>
            <tr>
              <th>{t('shared.finding')}</th>
              {severalRules && <th>{t('shared.rule')}</th>}
              <th>{t('outbox.reported_as')}</th>
              <th>{t('outbox.severity_now')}</th>
              <th>{t('outbox.state_now')}</th>
            </tr>
          </thead>
          <tbody>
            {findings.map((finding) => (
              <tr key={finding.id}>
                <td>
                  <Link to={`/rules/${finding.rule}/findings/${finding.id}`}>{finding.identity}</Link>
                </td>
                {severalRules && (
                  <td>
                    <Link to={`/rules/${finding.rule}`}>{finding.rule}</Link>
                  </td>
                )}
                <td>{finding.updates.join(', ')}</td>
                <td>
                  <SeverityTag severity={finding.severity} look={finding.look} />
                </td>
                <td>{stateWords(finding.state)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      {total > findings.length && (
        <p className="small quiet mt-2 mb-0">
          {t('outbox.first_of_reported', { shown: findings.length, total: numberWords(total) })}
        </p>
      )}
    </section>
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
    ({ state, nextTry }) => state === 'WAITING' || (nextTry !== null && (state === 'QUEUED' || state === 'UNSURE')),
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
          {t('outbox.this_message_may_not_have', { unconfirmed: unconfirmed.join(', ') })}{' '}
          <Button variant="plain" size="sm" disabled={doing.isPending} onClick={() => doing.mutate('confirm')}>
            {t('outbox.it_has_arrived')}
          </Button>
        </p>
      )}
      {waits && (
        <Button
          variant="plain"
          size="sm"
          disabled={doing.isPending}
          onClick={() => window.confirm(t('outbox.cancel_delivery_to_the_recipients')) && doing.mutate('cancel')}
        >
          {t('shared.stop')}
        </Button>
      )}{' '}
      <Button
        variant="plain"
        size="sm"
        disabled={doing.isPending}
        onClick={() => window.confirm(t('outbox.resend_to_marked_as_resent', { everyone })) && doing.mutate('resend')}
      >
        {t('outbox.resend')}
      </Button>{' '}
      {reports && (
        <Button
          variant="plain"
          size="sm"
          disabled={doing.isPending}
          onClick={() => window.confirm(t('outbox.report_these_findings_again_at')) && doing.mutate('report-again')}
        >
          {t('outbox.report_again')}
        </Button>
      )}
      <div role="status" className="small">
        {doing.isSuccess && doing.variables === 'resend' && (
          <>
            {rich('outbox.queued_the_resent_message', {
              link: (inner) => <Link to={`/outbox/${doing.data.message}`}>{inner}</Link>,
            })}
          </>
        )}
        {doing.isSuccess &&
          doing.variables === 'report-again' &&
          t('outbox.the_next_check_reports_again', { count: doing.data.count })}
        {doing.isSuccess && doing.variables === 'confirm' && t('outbox.noted')}
        {doing.isError && <span className="callout bad">{doing.error.message}</span>}
      </div>
    </div>
  )
}
