import { Fragment, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { HandlingKind, Explanation, Verdict } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { SeverityTag } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { markWords, stateWords, timeWords } from '../../shared/words'
import { addNote, mark, explanationOf } from './api'
import { rich, t } from '../../messages'

export function ExplanationPage() {
  const { name = '', finding = '' } = useParams()
  const [search] = useSearchParams()
  const explanation = useQuery(explanationOf(name, finding, search.get('copy')))
  return (
    <Loaded query={explanation} what={t('loading.explanation')}>
      {(data) => <OneExplanation name={name} explanation={data} />}
    </Loaded>
  )
}

function OneExplanation({ name, explanation }: { name: string; explanation: Explanation }) {
  useTitle(explanation.identity)
  return (
    <>
      <div className="head">
        <div>
          <h1>{explanation.identity}</h1>
          <span className="quiet">
            {rich('rules.finding_of', {
              link: (inner) => <Link to={`/rules/${name}`}>{inner}</Link>,
              rule: explanation.rule,
            })}
          </span>
        </div>
      </div>
      <section className="sheet">
        <h2>{t('shared.why')}</h2>
        <p className="mb-1">{explanation.reason}</p>
        {explanation.now && (
          <p className="quiet mb-0">
            <SeverityTag severity={explanation.now.severity} look={explanation.now.look} />{' '}
            {t('rules.since', {
              state: stateWords(explanation.now.state),
              openedAt: timeWords(explanation.now.openedAt),
              lastConfirmed:
                explanation.now.lastConfirmed &&
                t('rules.last_successful_check', { lastConfirmed: timeWords(explanation.now.lastConfirmed) }),
            })}
          </p>
        )}
      </section>
      {explanation.now && explanation.now.state !== 'CLEARED' && <Marks name={name} now={explanation.now} />}
      <Present explanation={explanation} />
      <section className="sheet">
        <h2>{t('rules.timeline')}</h2>
        <Scroll label={t('rules.timeline')}>
          <Table>
            <tbody>
              {explanation.events.map((event, index) => (
                <tr key={index}>
                  <td className="text-nowrap quiet">{timeWords(event.at)}</td>
                  <td>
                    {event.text}
                    {event.message && (
                      <>
                        {' '}
                        · <Link to={`/outbox/${event.message}`}>{t('rules.the_message')}</Link>
                      </>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
        {explanation.now && <NoteForm name={explanation.rule} finding={explanation.now.finding} />}
      </section>
    </>
  )
}

const verdictWords: Record<Verdict, string> = {
  TRUE: 'true',
  FALSE: 'false',
  UNKNOWN: t('rules.unknown_value_missing'),
}

function Present({ explanation }: { explanation: Explanation }) {
  const { failure, verdict, severity, look, parts, cells } = explanation.present
  const said =
    verdict === 'TRUE'
      ? t('rules.an_exception')
      : verdict === 'FALSE'
        ? t('rules.no_exception')
        : t('rules.not_evaluated')
  return (
    <section className="sheet">
      <h2>{t('rules.current_result')}</h2>
      {failure !== null ? (
        <p className="callout bad">{t('rules.the_source_cannot_be_read', { failure })}</p>
      ) : verdict === null ? (
        <p className="quiet mb-0">{t('rules.the_row_is_not_in')}</p>
      ) : (
        <>
          <p className="mb-2">
            {said}
            {severity && (
              <>
                : <SeverityTag severity={severity} look={look} />
              </>
            )}
          </p>
          <Scroll label={t('shared.parts_of_the_condition')}>
            <Table>
              <tbody>
                {parts.map((part) => (
                  <tr key={part.text}>
                    <td>
                      {part.sentence}
                      <div className="small quiet">
                        <code>{part.text}</code>
                      </div>
                    </td>
                    <td>{verdictWords[part.verdict]}</td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
          <dl className="facts">
            {cells.map(({ column, label, text }) => (
              <Fragment key={column}>
                <dt title={column}>{label}</dt>
                <dd>{text ?? <span className="quiet">{t('shared.missing')}</span>}</dd>
              </Fragment>
            ))}
          </dl>
        </>
      )}
    </section>
  )
}

const verbs: { kind: HandlingKind; verb: string; help: string }[] = [
  { kind: 'TAKE', verb: t('shared.take'), help: t('rules.you_are_dealing_with_it') },
  { kind: 'SNOOZE', verb: t('shared.snooze'), help: t('shared.no_reports_until_that_date') },
  {
    kind: 'ACCEPT',
    verb: t('shared.accept'),
    help: t('rules.the_finding_is_correct_it'),
  },
]

/** What a person knows of the finding or did about it; it joins the timeline. */
function NoteForm({ name, finding }: { name: string; finding: number }) {
  const [note, setNote] = useState('')
  const client = useQueryClient()
  const add = useMutation({
    mutationFn: () => addNote(name, finding, note),
    onSuccess: () => {
      setNote('')
      return client.invalidateQueries({ queryKey: ['rules', name] })
    },
  })
  return (
    <Form
      className="d-flex flex-wrap gap-2 align-items-end mt-2"
      onSubmit={(event) => {
        event.preventDefault()
        add.mutate()
      }}
    >
      <Form.Group controlId="finding-note" className="flex-grow-1">
        <Form.Label>{t('rules.add_note_what')}</Form.Label>
        <Form.Control
          as="textarea"
          rows={2}
          maxLength={2000}
          required
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </Form.Group>
      <Button type="submit" variant="plain" disabled={add.isPending || note.trim() === ''}>
        {t('rules.add_note')}
      </Button>
      <div role="status" className="w-100">
        {add.isError && <p className="callout bad mb-0">{add.error.message}</p>}
      </div>
    </Form>
  )
}

function Marks({ name, now }: { name: string; now: NonNullable<Explanation['now']> }) {
  const [kind, setKind] = useState<HandlingKind>('TAKE')
  const [note, setNote] = useState('')
  const [until, setUntil] = useState('')
  const client = useQueryClient()
  const set = useMutation({
    mutationFn: (ask: { kind: HandlingKind; withdraw: boolean }) =>
      mark(name, { finding: now.finding, note, until: until || null, ...ask }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['rules', name] }),
  })
  const chosen = verbs.find((each) => each.kind === kind)
  return (
    <section className="sheet">
      <h2>{t('shared.handling')}</h2>
      {now.handling.length === 0 && <p className="quiet">{t('rules.not_taken_snoozed_or_accepted')}</p>}
      {now.handling.map((each) => (
        <p key={each.kind} className="d-flex gap-2 align-items-center">
          <span>
            {markWords(each)}
            {each.note && `: ${each.note}`}
          </span>
          <Button variant="plain" size="sm" onClick={() => set.mutate({ kind: each.kind, withdraw: true })}>
            {t('shared.undo')}
          </Button>
        </p>
      ))}
      <Form
        className="d-flex flex-wrap gap-2 align-items-end"
        onSubmit={(event) => {
          event.preventDefault()
          set.mutate({ kind, withdraw: false })
        }}
      >
        <Form.Group controlId="mark-kind">
          <Form.Label>{t('rules.what')}</Form.Label>
          <Form.Select
            value={kind}
            onChange={(event) => setKind(verbs.find((each) => each.kind === event.target.value)?.kind ?? 'TAKE')}
          >
            {verbs.map((each) => (
              <option key={each.kind} value={each.kind}>
                {each.verb}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group controlId="mark-until">
          <Form.Label>{t('shared.until')}</Form.Label>
          <Form.Control
            type="date"
            value={until}
            required={kind === 'SNOOZE'}
            onChange={(event) => setUntil(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="mark-note" className="flex-grow-1">
          <Form.Label>{t('shared.note')}</Form.Label>
          <Form.Control value={note} required={kind === 'ACCEPT'} onChange={(event) => setNote(event.target.value)} />
        </Form.Group>
        <Button type="submit" disabled={set.isPending}>
          {chosen?.verb}
        </Button>
      </Form>
      <p className="quiet small mt-2 mb-0">{chosen?.help}</p>
      <div role="status">{set.isError && <p className="callout bad">{set.error.message}</p>}</div>
    </section>
  )
}
