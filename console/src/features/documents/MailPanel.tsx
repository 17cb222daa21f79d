import { useState } from 'react'
import { Button, ButtonGroup, Form } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { mailsOf, type MailSeen } from './api'

type View = 'desktop' | 'phone' | 'text'
const views: [View, string][] = [
  ['desktop', 'Desktop'],
  ['phone', 'Phone'],
  ['text', 'Plain text'],
]

const samples = {
  PENDING: 'No exception has lasted long enough to be reported. This preview shows the message once they have.',
  ROWS: 'There are no exceptions now. This preview shows sample rows of the result.',
}

/** The mail of a rule's document as it would arrive now, and the fields that its texts may name. */
export function MailPanel({ document, plain = false }: { document: string; plain?: boolean }) {
  const [view, setView] = useState<View>('desktop')
  const [which, setWhich] = useState(0)
  const look = useMutation({ mutationFn: () => mailsOf(document), onSuccess: () => setWhich(0) })
  const mail = look.data?.messages[which]
  return (
    <section className={plain ? '' : 'sheet'} aria-label="Message preview">
      <div className="d-flex justify-content-between flex-wrap gap-2">
        {plain ? <h3>Message preview</h3> : <h2>Message preview</h2>}
        <Button variant="plain" size="sm" disabled={look.isPending} onClick={() => look.mutate()}>
          {look.isPending ? 'Reading the source …' : 'Preview message'}
        </Button>
      </div>
      <Refusal error={look.error} />
      {!look.data && !look.error && (
        <p className="quiet mb-0">
          Shows the message that this definition would send. Nothing is saved, reported or sent.
        </p>
      )}
      {look.data && !mail && <p className="callout">The result has no rows, so there is no message to preview.</p>}
      {mail && look.data?.sample && <p className="callout">{samples[look.data.sample]}</p>}
      {look.data && look.data.messages.length > 1 && (
        <Form.Select
          className="mb-2"
          aria-label="Message"
          value={which}
          onChange={(event) => setWhich(Number(event.target.value))}
        >
          {look.data.messages.map((each, index) => (
            <option key={index} value={index}>
              {each.to.join(', ') || 'nobody'}: {each.subject}
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
              to {mail.to.join(', ') || 'nobody'}
              {mail.files.length > 0 && `, with ${mail.files.join(', ')}`}
            </span>
          </p>
          <ButtonGroup aria-label="View as" size="sm" className="mb-2">
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
          <summary>Fields for subject and introduction</summary>
          <p className="small mb-1">
            {look.data.fields
              .filter((field) => field !== 'rows')
              .map((field) => (
                <code key={field} className="me-2">{`{{${field}}}`}</code>
              ))}
          </p>
          <p className="small mb-0">
            For the first rows, between <code>{'{{#rows}}'}</code> and <code>{'{{/rows}}'}</code>:{' '}
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
      title={`The message on a ${view}`}
      sandbox=""
      srcDoc={mail.html}
    />
  )
}
