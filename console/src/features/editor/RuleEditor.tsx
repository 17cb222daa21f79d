import { lazy, Suspense, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useKept } from '../../shared/kept'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { useSettled } from '../../shared/settled'
import { useTitle } from '../../shared/title'
import { TypedHere } from '../../shared/TypedHere'
import { timeWords } from '../../shared/words'
import { queryPage } from '../queries/api'
import { Overtaken } from '../revisions/Overtaken'
import { activate } from '../rules/api'
import {
  discardDraft,
  editing,
  keepDraft,
  livePreview,
  reviewOf,
  saveNew,
  applyToRule,
  type Editing,
  type MemoryPart,
  type RuleDocument,
} from './api'
import { valuesIn } from '../queries/newRule'
import { ConditionsStep } from './ConditionsStep'
import { withPart } from './builder'
import { covered } from './covered'
import { isPlain, ofKind } from './kind'
import { previewable, putInPlace, withoutEmpty } from './previewable'
import { MoreFields } from '../fields/MoreFields'
import { MemoryEffect, MemoryStep } from './MemoryStep'
import { PreviewPanel } from './PreviewPanel'
import { QueryEffect, QueryStep } from './QueryStep'
import { ReviewStep } from './ReviewStep'
import { StepList, StepRow } from './StepFrame'
import { NextDates } from '../fields/NextDates'
import { TimesFields } from '../fields/TimesFields'
import { remarksOf } from './steps'
import { t } from '../../messages'

// What is below the first step comes when it is needed.
const BackTestPanel = lazy(() => import('./BackTestPanel').then((module) => ({ default: module.BackTestPanel })))
const ChecksEffect = lazy(() => import('./ChecksEffect').then((module) => ({ default: module.ChecksEffect })))
const GoalPanel = lazy(() => import('./GoalPanel').then((module) => ({ default: module.GoalPanel })))
// Below the first view, and large.
const DeliveryStep = lazy(() => import('./DeliveryStep').then((module) => ({ default: module.DeliveryStep })))
const MailPanel = lazy(() => import('../documents/MailPanel').then((module) => ({ default: module.MailPanel })))

/** A rule as one page in the order of work, with the effect of each step beside it. Edits of an active rule are a draft until they are applied. */
export function RuleEditor() {
  const { name = '' } = useParams()
  const found = useQuery(editing(name))
  return (
    <Loaded query={found} what={t('loading.the_rule')}>
      {(data) => <Editor key={`${name}/${data.draft?.version ?? 'rule'}`} found={data} />}
    </Loaded>
  )
}

export function NewRulePage() {
  const [search] = useSearchParams()
  const query = search.get('query') ?? ''
  const fresh: RuleDocument = {
    kind: 'rule',
    name: '',
    title: '',
    owner: '',
    query,
    ...valuesIn(search),
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    severity: ['warning'],
    memory: { mode: 'incremental', report: ['new', 'returned', 'worsened'] },
    delivery: { attach: ['csv'] },
  }
  return <Editor key={`new/${search}`} found={{ document: fresh, state: null, revision: 0, draft: null }} />
}

/** Why what is shown is not of the rule as it stands. */
function oldPreview(onItsWay: boolean, readable: boolean): string {
  if (onItsWay) return t('editor.from_before_your_last_change')
  return readable ? t('editor.from_before_your_last_change_select') : t('editor.from_before_your_last_change_the')
}

const tooSlowToLive = 4_000

function Editor({ found }: { found: Editing }) {
  const isNew = found.state === null
  const saved = found.document
  useTitle(isNew ? t('shared.new_rule') : t('editor.edit', { title: saved.title }))
  const typed = useKept<RuleDocument>(
    isNew
      ? `rule/new/${saved.query}${saved.parameters ? JSON.stringify(saved.parameters) : ''}`
      : `rule/${saved.name}/${found.draft?.version ?? 'rule'}`,
    saved,
    found.revision,
  )
  const document = withoutEmpty(typed.value)
  const client = useQueryClient()
  const go = useNavigate()
  const page = useQuery({ ...queryPage(document.query), enabled: document.query !== '' })
  const plain = isPlain(document)
  const columns = (page.data?.columns ?? []).map(({ name, label, type }) => ({ name, label, type }))
  const settled = useSettled(JSON.stringify(document), 700)
  const still = JSON.parse(settled) as RuleDocument
  const [live, setLive] = useState(true)
  const [wanted, setWanted] = useState('')
  const [reason, setReason] = useState('')
  // If pressed while typing has not paused, it waits for that: the earlier text is outdated.
  const previewNow = () => {
    const now = JSON.stringify(document)
    if (now === settled) void preview.refetch()
    else setWanted(now)
  }
  const review = useQuery(reviewOf(still))
  // The query runs only for a valid document; problems of others are shown at their place.
  const readable =
    review.data !== undefined &&
    !review.isPlaceholderData &&
    review.data.problems.every((problem) => problem.weight === 'WARNING' || putInPlace.includes(problem.field ?? ''))
  const preview = useQuery({
    ...livePreview(previewable(still)),
    enabled: (live || wanted === settled) && still.query !== '' && readable,
  })
  const slow = (preview.data?.draft.tookMillis ?? 0) > tooSlowToLive
  const remarks = remarksOf(document, review.data, preview.data, preview.error?.message ?? null)
  const leave = async (name: string) => {
    typed.forget()
    await client.invalidateQueries({ queryKey: ['rules'] })
    client.removeQueries({ queryKey: ['document', name] })
    await go(`/rules/${name}`)
  }
  const edited = { ...found, revision: typed.base }
  const save = useMutation({
    mutationFn: async ({ reason, activate: then }: { reason: string; activate: boolean }) => {
      if (isNew) await saveNew(document, reason)
      else await applyToRule(document, edited, reason)
      if (then) await activate(document.name, 'NEW')
    },
    onSuccess: () => leave(document.name),
  })
  const keep = useMutation({ mutationFn: () => keepDraft(document, edited), onSuccess: () => leave(saved.name) })
  const discard = useMutation({ mutationFn: () => discardDraft(saved.name), onSuccess: () => leave(saved.name) })
  const change = (part: Partial<RuleDocument>) => typed.change((before) => ({ ...before, ...part }))
  return (
    <>
      <div className="head">
        <div>
          <h1>{isNew ? document.title || t('shared.new_rule') : saved.title}</h1>
          <span className="quiet">
            {where(found)} {!isNew && <Link to={`/rules/${saved.name}`}>{t('editor.back_to_the_rule_changes')}</Link>}
          </span>
        </div>
        <a className="btn btn-plain" href="#review">
          {t('editor.review')}
        </a>
      </div>
      {found.draft && (
        <p className="callout mt-2">
          {t('editor.draft_changes_by_saved_the', {
            author: found.draft.author,
            at: timeWords(found.draft.at),
            outdated: found.draft.outdated && t('editor.the_rule_has_a_newer_revision'),
          })}{' '}
          <Button size="sm" variant="plain" disabled={discard.isPending} onClick={() => discard.mutate()}>
            {t('shared.discard_draft')}
          </Button>
        </p>
      )}
      <TypedHere typed={typed} onDiscard={() => typed.reset(saved, found.revision)} />
      {!isNew && <Overtaken kind="rule" name={saved.name} base={typed.base} onSeen={typed.setBase} />}
      <div className="desk">
        <StepList document={document} remarks={remarks} preview={preview.data} />
        <div>
          <StepRow
            step="query"
            effect={
              <QueryEffect
                key={document.query}
                document={document}
                onStart={(part) => change({ exceptions: withPart(document.exceptions ?? '', part) })}
              />
            }
          >
            <QueryStep
              document={document}
              isNew={isNew}
              onChange={change}
              onKind={(kind) => typed.change((before) => ofKind(before, kind))}
            />
          </StepRow>
          <StepRow
            step="conditions"
            effect={
              <>
                <div className="head">
                  <h3>{t('editor.preview_a_check_now')}</h3>
                  <span className="d-flex gap-2 align-items-center">
                    <Form.Check
                      id="live"
                      type="switch"
                      label={t('editor.live_preview')}
                      checked={live}
                      onChange={(event) => setLive(event.target.checked)}
                    />
                    <Button
                      size="sm"
                      variant="plain"
                      disabled={preview.isFetching || document.query === ''}
                      onClick={previewNow}
                    >
                      {preview.isFetching ? t('shared.running') : t('shared.preview')}
                    </Button>
                  </span>
                </div>
                <div role="status">
                  {!preview.data && !preview.error && (
                    <p className="quiet mt-2 mb-0">{t('editor.runs_the_query_nothing_is')}</p>
                  )}
                  {preview.data && !preview.error && preview.isPlaceholderData && (
                    <p className="callout mt-2" role="status">
                      {oldPreview(preview.isFetching, readable)}
                    </p>
                  )}
                  {preview.error ? (
                    <Refusal error={preview.error} />
                  ) : (
                    preview.data && (
                      <PreviewPanel seen={preview.data} onAccept={(exceptions) => change({ exceptions })} />
                    )
                  )}
                  {slow && live && <p className="small quiet mb-0">{t('editor.this_query_is_slow_turn')}</p>}
                </div>
                <Suspense fallback={null}>
                  <BackTestPanel document={document} />
                  <GoalPanel
                    document={document}
                    labels={Object.fromEntries(columns.map(({ name, label }) => [name, label]))}
                    onUse={({ exceptions, reason }) => {
                      change({ exceptions })
                      setReason(reason)
                    }}
                  />
                </Suspense>
              </>
            }
          >
            <ConditionsStep document={document} columns={columns} preview={preview.data} onChange={change} />
          </StepRow>
          <StepRow
            step="memory"
            effect={
              <MemoryEffect
                document={previewable(withoutEmpty(document))}
                seen={preview.data?.draft}
                columns={columns}
              />
            }
          >
            <MemoryStep
              memory={document.memory ?? {}}
              columns={columns}
              per={document.per}
              onChange={(memory: MemoryPart) => change({ memory })}
            />
            {!plain && (
              <MoreFields
                part="memory"
                value={document.memory ?? {}}
                covered={covered.memory}
                onChange={(memory) => change({ memory })}
              />
            )}
          </StepRow>
          <StepRow
            step="schedule"
            effect={
              <>
                <NextDates schedule={document.schedule ?? {}} zone={document.zone ?? 'UTC'} />
                {!isNew && (
                  <Suspense fallback={null}>
                    <ChecksEffect name={saved.name} timeLimit={document.limits?.time_limit ?? ''} />
                  </Suspense>
                )}
              </>
            }
          >
            <TimesFields
              times={document.schedule ?? {}}
              zone={document.zone ?? 'UTC'}
              onChange={(schedule) => change({ schedule })}
            />
            <MoreFields
              part="schedule"
              value={document.schedule ?? {}}
              covered={covered.schedule}
              onChange={(schedule) => change({ schedule })}
            />
            <MoreFields
              title={t('editor.limits')}
              part="limits"
              value={document.limits ?? {}}
              covered={[]}
              onChange={(limits) => change({ limits })}
            />
          </StepRow>
          <StepRow
            step="delivery"
            effect={
              <>
                <Suspense fallback={null}>
                  <MailPanel document={JSON.stringify(previewable(document), null, 1)} plain />
                </Suspense>
                {!isNew && <Files name={saved.name} />}
              </>
            }
          >
            <Suspense fallback={null}>
              <DeliveryStep
                delivery={document.delivery ?? {}}
                plain={plain}
                copies={document.copies !== undefined}
                document={JSON.stringify(previewable(document), null, 1)}
                columns={columns}
                onChange={(delivery) => change({ delivery })}
              />
            </Suspense>
            <MoreFields
              part="delivery"
              value={document.delivery ?? {}}
              covered={plain ? [...covered.delivery, 'escalate'] : covered.delivery}
              onChange={(delivery) => change({ delivery })}
            />
            <MoreFields
              part="rule"
              value={document}
              covered={covered.rule}
              onChange={(next) => typed.change(() => next)}
            />
          </StepRow>
          <section className="sheet" id="review" aria-labelledby="review-heading">
            <h2 id="review-heading">{t('editor.6_review')}</h2>
            <ReviewStep
              state={found.state}
              remarks={remarks}
              review={review.data}
              outdated={found.draft?.outdated ?? false}
              ways={{ save, keep }}
              reason={reason}
              onReason={setReason}
            />
          </section>
        </div>
      </div>
    </>
  )
}

/** To open, as they would go with a mail. */
function Files({ name }: { name: string }) {
  return (
    <p className="small mt-3 mb-0">
      {t('editor.download_what_the_saved_rule')}{' '}
      {['xlsx', 'csv', 'pdf', 'html', 'json'].map((format, index) => (
        <span key={format}>
          {index > 0 && ', '}
          <a href={`/api/rules/${encodeURIComponent(name)}/extract.${format}`}>{format.toUpperCase()}</a>
        </span>
      ))}
    </p>
  )
}

function where({ state, revision, draft }: Editing) {
  if (state === null) return t('editor.six_steps_the_effect_of')
  if (state === 'ACTIVE')
    return t('editor.the_active_rule_revision_which', {
      edit: draft ? t('editor.draft_changes_of') : t('editor.changes_to'),
      revision,
    })
  return t('editor.revision_nothing_is_checked_until', {
    revision,
    state: state === 'DRAFT' ? t('editor.a_draft') : t('state.paused'),
  })
}
