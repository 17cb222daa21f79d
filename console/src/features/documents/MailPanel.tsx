import { useState } from 'react'
import { Button, ButtonGroup, Form } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { mailsOf, mailToMe, type MailSeen } from './api'
import { rich, t } from '../../messages'

type View = 'desktop' | 'phone' | 'text'
const views: [View, string][] = [
  ['desktop', t('documents.desktop')],
  ['phone', t('documents.phone')],
  ['text', t('shared.plain_text')],
]

const samples = {
  PENDING: t('documents.no_exception_has_lasted_long'),
  ROWS: t('documents.there_are_no_exceptions_now'),
}

/** The mail of a rule's document as it would arrive now, and the fields that its texts may name. */
export function MailPanel({ document, plain = false }: { document: string; plain?: boolean }) {
  const [view, setView] = useState<View>('desktop')
  const [which, setWhich] = useState(0)
  const look = useMutation({ mutationFn: () => mailsOf(document), onSuccess: () => setWhich(0) })
  const send = useMutation({ mutationFn: () => mailToMe(document) })
  const mail = look.data?.messages[which]
  return (
    <section className={plain ? '' : 'sheet'} aria-label={t('documents.message_preview')}>
      <div className="d-flex justify-content-between flex-wrap gap-2">
        {plain ? <h3>{t('documents.message_preview')}</h3> : <h2>{t('documents.message_preview')}</h2>}
        <span className="d-flex gap-2 flex-wrap">
          <Button variant="plain" size="sm" disabled={look.isPending} onClick={() => look.mutate()}>
            {look.isPending ? t('shared.reading_the_source') : t('documents.preview_message')}
          </Button>
          <Button variant="plain" size="sm" disabled={send.isPending} onClick={() => send.mutate()}>
            {send.isPending ? t('shared.reading_the_source') : t('documents.email_it_to_me')}
          </Button>
        </span>
      </div>
      <div role="status">
        {send.data && (
          <p className="callout">{t('rules.preview_sent_to_you_nothing', { messages: send.data.messages })}</p>
        )}
        <Refusal error={send.error} />
      </div>
      <Refusal error={look.error} />
      {!look.data && !look.error && <p className="quiet mb-0">{t('documents.shows_the_message_that_this')}</p>}
      {look.data && !mail && <p className="callout">{t('documents.the_result_has_no_rows')}</p>}
      {mail && look.data?.sample && <p className="callout">{samples[look.data.sample]}</p>}
      {look.data && look.data.messages.length > 1 && (
        <Form.Select
          className="mb-2"
          aria-label={t('documents.message')}
          value={which}
          onChange={(event) => setWhich(Number(event.target.value))}
        >
          {look.data.messages.map((each, index) => (
            <option key={index} value={index}>
              {each.to.join(', ') || t('shared.nobody')}: {each.subject}
            </option>
          ))}
        </Form.Select>
      )}
      {mail && (
        <>
          <p className="mb-2">
            <b>{mail.subject}</b>
            <br />
            <span className="quiet">
              {t('documents.to', {
                to: mail.to.join(', ') || t('shared.nobody'),
                files: mail.files.length > 0 && t('documents.with', { files: mail.files.join(', ') }),
              })}
            </span>
          </p>
          <ButtonGroup aria-label={t('shared.view_as')} size="sm" className="mb-2">
            {views.map(([each, words]) => (
              <Button
                key={each}
                variant={view === each ? 'primary' : 'plain'}
                aria-pressed={view === each}
                onClick={() => setView(each)}
              >
                {words}
              </Button>
            ))}
          </ButtonGroup>
          <Shown mail={mail} view={view} />
        </>
      )}
      {look.data && (
        <details className="mt-2">
          <summary>{t('documents.fields_for_subject_and_introduction')}</summary>
          <p className="small mb-1">
            {look.data.fields.map(({ name, value }) => (
              <span key={name} className="me-3 d-inline-block">
                <code>{`{{${name}}}`}</code> <span className="quiet">{value}</span>
              </span>
            ))}
          </p>
          <p className="small mb-0">
            {rich('documents.for_the_first_rows_between', {
              code: (inner) => <code>{inner}</code>,
              code2: (inner) => <code>{inner}</code>,
            })}{' '}
            {look.data.columns.map((column) => (
              <code key={column} className="me-2">{`{{${column}}}`}</code>
            ))}
          </p>
        </details>
      )}
    </section>
  )
}

function Shown({ mail, view }: { mail: MailSeen; view: View }) {
  if (view === 'text') return <pre className="code">{mail.text}</pre>
  return (
    <iframe
      className="mail-view"
      style={view === 'phone' ? { maxWidth: 360 } : {}}
      title={t('documents.the_message_on_a', { view })}
      sandbox=""
      srcDoc={mail.html}
    />
  )
}
