import { type ReactNode } from 'react'
import { t } from '../../messages'
import type { DraftSeen, RuleDocument } from './api'
import { isPlain } from './kind'
import { steps, type Remark, type Step } from './steps'

/** A step with its effect beside it. */
export function StepRow({ step, effect, children }: { step: Step; effect: ReactNode; children: ReactNode }) {
  const index = steps.findIndex(([code]) => code === step)
  return (
    <div className="step" id={step}>
      <section className="sheet" aria-labelledby={`${step}-heading`}>
        <h2 id={`${step}-heading`}>
          {index + 1} {steps[index]?.[1]}
        </h2>
        {children}
      </section>
      <section className="sheet effect" aria-label={t('editor.effect_of', { steps: steps[index]?.[1] })}>
        {effect}
      </section>
    </div>
  )
}

/** The six steps with a summary of each, or what is missing. */
export function StepList({
  document,
  remarks,
  preview,
}: {
  document: RuleDocument
  remarks: Remark[]
  preview: DraftSeen | undefined
}) {
  const people = document.delivery?.to?.length ?? 0
  const now: Record<Step, string> = {
    query: document.query || t('editor.not_selected'),
    conditions: preview
      ? nowWords(document, preview.draft.exceptions)
      : document.exceptions
        ? ''
        : t('shared.all_rows'),
    memory:
      document.memory?.mode === 'plain'
        ? t('editor.kind_plain')
        : document.memory?.mode === 'full'
          ? t('shared.all_open_findings_every_time')
          : t('editor.by', { per: (document.per ?? document.memory?.key ?? []).join(', ') || '…' }),
    schedule:
      (document.schedule?.recur ?? []).length === 0
        ? t('editor.only_on_demand')
        : (document.schedule?.start?.slice(11) ?? ''),
    delivery: people === 0 ? t('editor.no_recipients_yet') : t('editor.address', { people }),
    review: remarks.length === 0 ? t('editor.no_issues_short') : t('editor.issue', { remarks: remarks.length }),
  }
  return (
    <nav aria-label={t('editor.steps')} className="steps">
      <ol>
        {steps.map(([step, words], index) => {
          const missing =
            step === 'review'
              ? remarks.some((each) => each.missing)
              : remarks.some((each) => each.step === step && each.missing)
          return (
            <li key={step}>
              <a href={`#${step}`}>
                <span className={missing ? 'problem-text' : 'ok'} aria-hidden="true">
                  {missing ? index + 1 : '✓'}
                </span>{' '}
                {words}
                <span className="visually-hidden">
                  {missing ? t('editor.something_is_required') : t('editor.complete')}
                </span>
                <small>{now[step]}</small>
              </a>
            </li>
          )
        })}
      </ol>
    </nav>
  )
}

function nowWords(document: RuleDocument, exceptions: number) {
  return isPlain(document) ? t('editor.rows_now', { rows: exceptions }) : t('editor.exceptions_now', { exceptions })
}
