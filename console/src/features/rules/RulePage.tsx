import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Check, RulePage as Page } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { OpenCounts } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { outcomeWords, plural, stateWords, timeWords, zonedWords } from '../../shared/words'
import { RevisionsPanel } from '../revisions/RevisionsPanel'
import { activate, checkNow, pause, previewToMe, rule, type ReportOnActivation } from './api'
import { ChecksPanel } from './ChecksPanel'
import { ExceptionsTrend } from './ExceptionsTrend'
import { MeasurementsPanel } from './MeasurementsPanel'
import { UnsubscribedRecipients } from './UnsubscribedRecipients'
import { CopyRule } from './CopyRule'
import { RuleMail } from './RuleMail'
import { FindingsPanel } from './FindingsPanel'
import { RuleText } from './RuleText'

export function RulePage() {
  const { name = '' } = useParams()
  const page = useQuery(rule(name))
  return (
    <Loaded query={page} what="The rule">
      {(data) => <OneRule page={data} />}
    </Loaded>
  )
}

function OneRule({ page }: { page: Page }) {
  const { name, title, state, revision, owner, to, nextSlot, zone, open } = page.rule
  useTitle(title)
  const [requestKey, setRequestKey] = useState(() => crypto.randomUUID())
  const [tell, setTell] = useState<ReportOnActivation>('NEW')
  const [copying, setCopying] = useState(false)
  const client = useQueryClient()
  const mailMe = useMutation({ mutationFn: () => previewToMe(name) })
  const renew = async () => {
    await client.invalidateQueries({ queryKey: ['rules'] })
    await client.invalidateQueries({ queryKey: ['outbox'] })
  }
  const check = useMutation({
    mutationFn: (again: boolean) => checkNow(name, requestKey, again),
    onSuccess: async () => {
      setRequestKey(crypto.randomUUID())
      await renew()
    },
  })
  const [shown, setShown] = useState<string | null>(null)
  const ask = (again: boolean) => {
    setShown(check.data?.id ?? null)
    check.mutate(again)
  }
  const move = useMutation({
    mutationFn: () => (state === 'ACTIVE' ? pause(name) : activate(name, tell)),
    onSuccess: renew,
  })
  return (
    <>
      <div className="head">
        <div>
          <h1>{title}</h1>
          <span className="quiet">
            {stateWords(state)}, revision {revision}
            {page.rule.copiedFrom && `, copied from ${page.rule.copiedFrom}`} · owner {owner} · sent{' '}
            {page.text.copies ? `to the address of each ${page.text.copies.key}, without one ` : ''}
            {page.text.split ? `by ${page.text.split.by}, the others ` : ''}to {to.join(', ') || 'nobody'}
          </span>
        </div>
        <div className="d-flex gap-2 flex-wrap">
          <Link className="btn btn-plain" to={`/rules/${name}/edit`}>
            Edit
          </Link>
          <Link className="btn btn-plain" to={`/documents/rule/${name}`}>
            Edit as YAML
          </Link>
          <Button variant="plain" aria-expanded={copying} onClick={() => setCopying(!copying)}>
            Copy
          </Button>
          <Button variant="plain" disabled={mailMe.isPending} onClick={() => mailMe.mutate()}>
            Email me a preview
          </Button>
          {state === 'PAUSED' && (
            <Form.Select
              aria-label="What the next check reports"
              className="w-auto"
              value={tell}
              onChange={(event) => setTell(tells.find(([code]) => code === event.target.value)?.[0] ?? 'NEW')}
            >
              {tells.map(([code, words]) => (
                <option key={code} value={code}>
                  {words}
                </option>
              ))}
            </Form.Select>
          )}
          <Button variant="plain" onClick={() => move.mutate()} disabled={move.isPending}>
            {state === 'ACTIVE' ? 'Pause' : 'Activate'}
          </Button>
          {state === 'ACTIVE' && (
            <Button onClick={() => ask(false)} disabled={check.isPending}>
              {check.isPending ? 'Checking …' : 'Check now'}
            </Button>
          )}
        </div>
      </div>
      {page.draft && (
        <p className="callout mt-2 mb-0">
          Draft changes by {page.draft.author}, saved {timeWords(page.draft.at)}
          {page.draft.outdated && '; the rule has a newer revision'}. <Link to={`/rules/${name}/edit`}>Show</Link>
        </p>
      )}
      {copying && <CopyRule name={name} title={title} onLeave={() => setCopying(false)} />}
      <div role="status">
        {mailMe.data && (
          <p className="callout">{plural(mailMe.data.messages, 'preview')} sent to you. Nothing was reported.</p>
        )}
        {mailMe.isError && <p className="callout bad">{mailMe.error.message}</p>}
        {check.data && <Outcome check={check.data} rule={name} />}
        {check.data && (check.data.id === shown || wasBefore(check.data, check.submittedAt)) && (
          <p className="small quiet">
            This check ended less than a minute before your request.{' '}
            <Button variant="plain" size="sm" onClick={() => ask(true)}>
              Check again
            </Button>
          </p>
        )}
        {check.isError && <p className="callout bad">The check could not be started. {check.error.message}</p>}
        {move.isError && <p className="callout bad">{move.error.message}</p>}
      </div>
      <p className="sentence-of mt-3 mb-0">
        {page.text.sentence.charAt(0).toUpperCase() + page.text.sentence.slice(1)}.
      </p>
      <p className="mt-2 mb-0">
        Open now: <OpenCounts open={open} />{' '}
        <span className="quiet ms-3">
          Next check:{' '}
          {nextSlot ? zonedWords(nextSlot, zone) : page.rule.ended ? 'none, the schedule has ended' : 'none'}
        </span>
      </p>
      <FindingsPanel name={name} />
      <UnsubscribedRecipients name={name} />
      {!page.text.grouped && <ExceptionsTrend name={name} />}
      {page.text.grouped && <MeasurementsPanel name={name} thresholds={page.text.thresholds} />}
      <div className="two">
        <RuleText page={page} />
        <div>
          <ChecksPanel name={name} grouped={page.text.grouped} copies={page.text.copies !== null} />
          <RuleMail name={name} named={page.rule.named} />
          <RevisionsPanel kind="rule" name={name} onRestored={() => void renew()} />
        </div>
      </div>
    </>
  )
}

const tells: [ReportOnActivation, string][] = [
  ['NEW', 'Report updates since the pause'],
  ['OPEN', 'Report all open findings'],
  ['NOTHING', 'Treat all as known'],
]

/** By this machine's clock, so only what is clearly earlier. */
const wasBefore = (check: Check, asked: number) =>
  check.finishedAt !== null && Date.parse(check.finishedAt) < asked - 2_000

function Outcome({ check, rule: name }: { check: Check; rule: string }) {
  const bad =
    check.state !== 'QUIET' && check.state !== 'INCOMPLETE' && check.state !== 'FIRED' && check.state !== 'RUNNING'
  return (
    <p className={bad ? 'callout bad' : 'callout'}>
      {outcomeWords(check)} {check.state === 'FIRED' && <Link to={`/outbox?rule=${name}`}>Show message</Link>}
    </p>
  )
}
