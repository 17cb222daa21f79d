import { lazy, Suspense, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import type { UseMutationResult } from '@tanstack/react-query'
import type { RuleState } from '../../api/types'
import { Refusal } from '../../shared/Refusal'
import type { Review } from './api'
import { showField } from './places'
import { steps, type Remark } from './steps'
import { rich, t } from '../../messages'

const Differences = lazy(() =>
  import('../revisions/Differences').then(({ Differences: shown }) => ({ default: shown })),
)

const effects: Record<string, string> = {
  NO_EFFECT: t('editor.its_memory_is_not_affected'),
  OTHER_WATCHED_COLUMNS: t('editor.other_columns_are_watched_the'),
  OTHER_CONDITIONS: t('editor.the_conditions_changed_the_next'),
  OTHER_AUDIENCES: t('editor.the_audiences_changed_existing_findings'),
  OTHER_KEY_COLUMNS: t('editor.the_key_columns_changed_all'),
}

/** What is done with the edit. `activate` after a save makes the rule active too. */
export type Ways = {
  save: UseMutationResult<unknown, Error, { reason: string; activate: boolean }>
  keep: UseMutationResult<unknown, Error, void>
}

type Props = {
  state: RuleState | null
  remarks: Remark[]
  review: Review | undefined
  outdated: boolean
  ways: Ways
  reason: string
  onReason: (reason: string) => void
}

/** What is missing or risky, what would change, and the way into effect. */
export function ReviewStep({ state, remarks, review, outdated, ways, reason, onReason }: Props) {
  const [comparing, setComparing] = useState(false)
  const busy = ways.save.isPending || ways.keep.isPending
  const missing = remarks.filter((each) => each.missing).length
  const differs = review?.before !== null && review?.text !== null && review?.before !== review?.text
  return (
    <>
      {remarks.length === 0 ? (
        <p className="callout mt-2">{t('editor.no_issues')}</p>
      ) : (
        <ul className="list-unstyled remarks mt-2">
          {remarks.map((each, index) => (
            <li key={index}>
              <span className={`tag ${each.missing ? 'bad' : 'warning'}`}>
                {each.missing ? t('editor.missing') : t('editor.mind')}
              </span>{' '}
              <a
                href={`#${each.step}`}
                onClick={(event) => {
                  if (each.label && showField(each.step, each.label)) event.preventDefault()
                }}
              >
                {steps.find(([step]) => step === each.step)?.[1]}
                {each.label && `, ${each.label}`}
              </a>{' '}
              {each.words}
            </li>
          ))}
        </ul>
      )}
      {review?.effect && differs && <p className="mb-2">{effects[review.effect] ?? ''}</p>}
      {(review?.added ?? []).length > 0 && (
        <p className="mb-2">
          {rich('editor.has_not_been_sent_the', {
            added: review?.added.join(', '),
            added2: review?.added.length,
            em: (inner) => <em>{inner}</em>,
          })}
        </p>
      )}
      {differs && (
        <Button
          size="sm"
          variant="plain"
          className="mb-2"
          aria-expanded={comparing}
          onClick={() => setComparing(!comparing)}
        >
          {comparing ? t('editor.hide_changes') : t('editor.compare_with_the_saved_rule')}
        </Button>
      )}
      {comparing && review?.before && review.text && (
        <Suspense fallback={null}>
          <Differences
            before={review.before}
            after={review.text}
            beforeLabel={t('editor.saved_revision', { revision: review.revision })}
            afterLabel={t('editor.this_edit')}
          />
        </Suspense>
      )}
      <Form
        className="d-flex gap-2 align-items-end flex-wrap mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          ways.save.mutate({ reason, activate: false })
        }}
      >
        <Form.Group controlId="save-reason" className="flex-grow-1">
          <Form.Label className="mb-0">{t('editor.reason_for_this_change')}</Form.Label>
          <Form.Control size="sm" value={reason} onChange={(event) => onReason(event.target.value)} />
        </Form.Group>
        {state === 'ACTIVE' ? (
          <>
            <Button variant="plain" disabled={busy} onClick={() => ways.keep.mutate()}>
              {t('editor.save_draft')}
            </Button>
            <Button type="submit" disabled={busy || outdated}>
              {t('editor.apply_changes')}
            </Button>
          </>
        ) : (
          <>
            <Button type="submit" variant="plain" disabled={busy}>
              {state === null ? t('editor.save_draft') : t('shared.save')}
            </Button>
            <Button
              disabled={busy}
              onClick={() =>
                missing > 0
                  ? document.getElementById(remarks[0]?.step ?? 'query')?.scrollIntoView({ behavior: 'smooth' })
                  : ways.save.mutate({ reason, activate: true })
              }
            >
              {missing > 0 ? t('editor.show_what_is_required') : t('editor.save_and_activate')}
            </Button>
          </>
        )}
      </Form>
      {outdated && <p className="small problem-text mb-0">{t('editor.the_rule_has_a_newer')}</p>}
      <div role="status">
        <Refusal error={ways.save.error ?? ways.keep.error} />
      </div>
    </>
  )
}
