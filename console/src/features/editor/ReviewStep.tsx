import { lazy, Suspense, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import type { UseMutationResult } from '@tanstack/react-query'
import type { RuleState } from '../../api/types'
import { Refusal } from '../../shared/Refusal'
import type { Review } from './api'
import { steps, type Remark } from './steps'

const Differences = lazy(() =>
  import('../revisions/Differences').then(({ Differences: shown }) => ({ default: shown })),
)

const effects: Record<string, string> = {
  NO_EFFECT: 'Its memory is not affected.',
  OTHER_WATCHED_COLUMNS: 'Other columns are watched: the next check records their values.',
  OTHER_CONDITIONS: 'The conditions changed: the next check reports what differs from the last report.',
  OTHER_AUDIENCES: 'The audiences changed: existing findings are treated as known.',
  OTHER_KEY_COLUMNS: 'The key columns changed: all findings start over and are reported again.',
}

/** What is done with the edit. `activate` after a save makes the rule active too. */
export type Ways = {
  save: UseMutationResult<unknown, Error, { reason: string; activate: boolean }>
  keep: UseMutationResult<unknown, Error, void>
}

type Props = { state: RuleState | null; remarks: Remark[]; review: Review | undefined; outdated: boolean; ways: Ways }

/** What is missing or risky, what would change, and the way into effect. */
export function ReviewStep({ state, remarks, review, outdated, ways }: Props) {
  const [reason, setReason] = useState('')
  const [comparing, setComparing] = useState(false)
  const busy = ways.save.isPending || ways.keep.isPending
  const missing = remarks.filter((each) => each.missing).length
  const differs = review?.before !== null && review?.text !== null && review?.before !== review?.text
  return (
    <>
      {remarks.length === 0 ? (
        <p className="callout mt-2">No issues.</p>
      ) : (
        <ul className="list-unstyled remarks mt-2">
          {remarks.map((each, index) => (
            <li key={index}>
              <span className={`tag ${each.missing ? 'bad' : 'warning'}`}>{each.missing ? '✕ missing' : '◆ mind'}</span>{' '}
              <a href={`#${each.step}`}>{steps.find(([step]) => step === each.step)?.[1]}</a> {each.words}
            </li>
          ))}
        </ul>
      )}
      {review?.effect && differs && <p className="mb-2">{effects[review.effect] ?? ''}</p>}
      {(review?.added ?? []).length > 0 && (
        <p className="mb-2">
          {review?.added.join(', ')} {review?.added.length === 1 ? 'has' : 'have'} not been sent the open findings.
          After you save, send them from the rule’s page: <em>Send open findings to one recipient</em>.
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
          {comparing ? 'Hide changes' : 'Compare with the saved rule'}
        </Button>
      )}
      {comparing && review?.before && review.text && (
        <Suspense fallback={null}>
          <Differences
            before={review.before}
            after={review.text}
            beforeLabel={`saved, revision ${review.revision}`}
            afterLabel="this edit"
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
          <Form.Label className="mb-0">Reason for this change</Form.Label>
          <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
        </Form.Group>
        {state === 'ACTIVE' ? (
          <>
            <Button variant="plain" disabled={busy} onClick={() => ways.keep.mutate()}>
              Save draft
            </Button>
            <Button type="submit" disabled={busy || outdated}>
              Apply changes
            </Button>
          </>
        ) : (
          <>
            <Button type="submit" variant="plain" disabled={busy}>
              {state === null ? 'Save draft' : 'Save'}
            </Button>
            <Button
              disabled={busy}
              onClick={() =>
                missing > 0
                  ? document.getElementById(remarks[0]?.step ?? 'query')?.scrollIntoView({ behavior: 'smooth' })
                  : ways.save.mutate({ reason, activate: true })
              }
            >
              {missing > 0 ? 'Show what is required' : 'Save and activate'}
            </Button>
          </>
        )}
      </Form>
      {outdated && (
        <p className="small problem-text mb-0">
          The rule has a newer revision. Compare, save the draft again, then apply.
        </p>
      )}
      <div role="status">
        <Refusal error={ways.save.error ?? ways.keep.error} />
      </div>
    </>
  )
}
