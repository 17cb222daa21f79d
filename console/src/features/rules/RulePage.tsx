import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Check, RulePage as Page } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { OpenCounts } from '../../shared/SeverityTag'
import { useMay } from '../../shared/may'
import { useTitle } from '../../shared/title'
import { outcomeWords, stateWords, timeWords, zonedWords } from '../../shared/words'
import { StatementPanel } from '../statements/Statements'
import { Retire } from '../archive/Retire'
import { useRetired } from '../archive/retired'
import { RetiredNote } from '../archive/RetiredNote'
import { RevisionsPanel } from '../revisions/RevisionsPanel'
import { activate, checkNow, pause, previewToMe, rule, type ReportOnActivation } from './api'
import { ChecksPanel } from './ChecksPanel'
import { ExceptionsTrend } from './ExceptionsTrend'
import { MeasurementsPanel } from './MeasurementsPanel'
import { RecipientChoices } from '../recipients/RecipientChoices'
import { CopyRule } from './CopyRule'
import { RuleMail } from './RuleMail'
import { FindingsPanel } from './FindingsPanel'
import { RuleText } from './RuleText'
import { rich, t } from '../../messages'

export function RulePage() {
  const { name = '' } = useParams()
  const page = useQuery(rule(name))
  return (
    <Loaded query={page} what={t('loading.the_rule')}>
      {(data) => <OneRule page={data} />}
    </Loaded>
  )
}

function OneRule({ page }: { page: Page }) {
  const { name, title, state, revision, owner, to, nextSlot, zone, open, looks } = page.rule
  const plain = page.rule.mode === 'PLAIN'
  useTitle(title)
  const may = useMay()
  const retired = useRetired('rule', name)
  const write = may('write', owner) && !retired
  const moves = !retired && (state === 'ACTIVE' ? write : may('lead', owner))
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
  const nextWords = nextSlot
    ? zonedWords(nextSlot, zone)
    : page.rule.ended
      ? t('rules.none_the_schedule_has_ended')
      : t('shared.none')
  return (
    <>
      <div className="head">
        <div>
          <h1>{title}</h1>
          <span className="quiet">
            {t('rules.revision_owner_sent_to', {
              state: stateWords(state),
              revision,
              copiedFrom: page.rule.copiedFrom && t('rules.copied_from', { copiedFrom: page.rule.copiedFrom }),
              owner,
              copies: page.text.copies ? t('rules.to_the_address_of_each', { key: page.text.copies.key }) : '',
              split: page.text.split ? t('rules.by_the_others', { by: page.text.split.by }) : '',
              to: to.join(', ') || t('shared.nobody'),
            })}
          </span>
        </div>
        <div className="d-flex gap-2 flex-wrap">
          {write && (
            <>
              <Link className="btn btn-plain" to={`/rules/${name}/edit`}>
                {t('rules.edit')}
              </Link>
              <Link className="btn btn-plain" to={`/documents/rule/${name}`}>
                {t('rules.edit_as_yaml')}
              </Link>
              <Button variant="plain" aria-expanded={copying} onClick={() => setCopying(!copying)}>
                {t('rules.copy')}
              </Button>
            </>
          )}
          {!write && may('look') && (
            <Link className="btn btn-plain" to={`/documents/rule/${name}`}>
              {t('rules.show_as_yaml')}
            </Link>
          )}
          {may('try') && (
            <Button variant="plain" disabled={mailMe.isPending} onClick={() => mailMe.mutate()}>
              {t('rules.email_me_a_preview')}
            </Button>
          )}
          {state === 'PAUSED' && !plain && moves && (
            <Form.Select
              aria-label={t('rules.what_the_next_check_reports')}
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
          {moves && (
            <Button variant="plain" onClick={() => move.mutate()} disabled={move.isPending}>
              {state === 'ACTIVE' ? t('shared.pause') : t('rules.activate')}
            </Button>
          )}
          {state === 'ACTIVE' && write && (
            <Button onClick={() => ask(false)} disabled={check.isPending}>
              {check.isPending ? t('shared.checking') : t('shared.check_now')}
            </Button>
          )}
        </div>
      </div>
      <RetiredNote retired={retired} />
      {page.text.visibleTo.length > 0 && (
        <p className="small quiet mt-1 mb-0">
          {t('rules.only_these_see_it', { teams: [...new Set([owner, ...page.text.visibleTo])].join(', ') })}
        </p>
      )}
      {!may('write', owner) && may('write') && (
        <p className="small quiet mt-1 mb-0">{t('rules.members_change_it', { owner })}</p>
      )}
      {write && !moves && <p className="small quiet mt-1 mb-0">{t('rules.leads_activate_it', { owner })}</p>}
      {page.draft && (
        <p className="callout mt-2 mb-0">
          {rich('rules.draft_changes_by_saved_show', {
            author: page.draft.author,
            at: timeWords(page.draft.at),
            outdated: page.draft.outdated && t('rules.the_rule_has_a_newer'),
            link: (inner) => <Link to={`/rules/${name}/edit`}>{inner}</Link>,
          })}
        </p>
      )}
      {copying && <CopyRule name={name} title={title} onLeave={() => setCopying(false)} />}
      <div role="status">
        {mailMe.data && (
          <p className="callout">{t('rules.preview_sent_to_you_nothing', { messages: mailMe.data.messages })}</p>
        )}
        {mailMe.isError && <p className="callout bad">{mailMe.error.message}</p>}
        {check.data && <Outcome check={check.data} rule={name} />}
        {check.data && (check.data.id === shown || wasBefore(check.data, check.submittedAt)) && (
          <p className="small quiet">
            {t('rules.this_check_ended_less_than')}{' '}
            <Button variant="plain" size="sm" onClick={() => ask(true)}>
              {t('rules.check_again')}
            </Button>
          </p>
        )}
        {check.isError && (
          <p className="callout bad">{t('rules.the_check_could_not_be', { message: check.error.message })}</p>
        )}
        {move.isError && <p className="callout bad">{move.error.message}</p>}
      </div>
      <p className="sentence-of mt-3 mb-0">
        {page.text.sentence.charAt(0).toUpperCase() + page.text.sentence.slice(1)}.
      </p>
      <p className="mt-2 mb-0">
        {plain
          ? t('rules.next_check_only', { next: nextWords })
          : rich('rules.open_now_next_check', {
              openCounts: <OpenCounts open={open} looks={looks} />,
              span: (inner) => <span className="quiet ms-3">{inner}</span>,
              next: nextWords,
            })}
      </p>
      {!plain && <FindingsPanel name={name} />}
      {may('look') && <RecipientChoices of={{ kind: 'rules', name }} />}
      {!page.text.grouped && !plain && <ExceptionsTrend name={name} />}
      {page.text.grouped && <MeasurementsPanel name={name} thresholds={page.text.thresholds} />}
      <div className="two">
        <RuleText page={page} />
        <div>
          <ChecksPanel name={name} grouped={page.text.grouped} copies={page.text.copies !== null} retired={!!retired} />
          {state !== 'DRAFT' && <StatementPanel name={name} />}
          {may('look') && (
            <>
              <RuleMail name={name} named={page.rule.named} plain={plain} maySend={write} />
              <RevisionsPanel kind="rule" name={name} onRestored={() => void renew()} />
              <Retire kind="rule" name={name} owner={owner} />
            </>
          )}
        </div>
      </div>
    </>
  )
}

const tells: [ReportOnActivation, string][] = [
  ['NEW', t('rules.report_updates_since_the_pause')],
  ['OPEN', t('rules.report_all_open_findings')],
  ['NOTHING', t('rules.treat_all_as_known')],
]

/** By this machine's clock, so only what is clearly earlier. */
const wasBefore = (check: Check, asked: number) =>
  check.finishedAt !== null && Date.parse(check.finishedAt) < asked - 2_000

function Outcome({ check, rule: name }: { check: Check; rule: string }) {
  const bad =
    check.state !== 'QUIET' && check.state !== 'INCOMPLETE' && check.state !== 'FIRED' && check.state !== 'RUNNING'
  return (
    <p className={bad ? 'callout bad' : 'callout'}>
      {outcomeWords(check)}{' '}
      {check.state === 'FIRED' && <Link to={`/outbox?rule=${name}`}>{t('rules.show_message')}</Link>}
    </p>
  )
}
