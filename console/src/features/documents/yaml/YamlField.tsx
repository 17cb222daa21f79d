import { useId, useMemo, useState } from 'react'
import { Button } from 'react-bootstrap'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Schemas } from '../../../api/types'
import { CodeField } from '../../../shared/CodeField'
import { useSettled } from '../../../shared/settled'
import { t } from '../../../messages'
import { definitionSchema, problemsOf, savedNames } from '../api'
import { yamlCompletion } from './completion'

type ApiProblem = Schemas['Problem']

const none: ApiProblem[] = []

/** A definition file as text: fields and values are offered from the schema, problems are marked while it is typed. */
export function YamlField({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  const help = useId()
  const schema = useQuery(definitionSchema)
  const names = useQuery(savedNames)
  const settled = useSettled(value, 400)
  const review = useQuery({ ...problemsOf(settled), placeholderData: keepPreviousData })
  const [caret, setCaret] = useState<{ offset: number }>()
  // Problems of an earlier text would be marked at the wrong places.
  const problems = (settled === value && !review.isPlaceholderData && review.data) || none
  const completion = useMemo(
    () => (schema.data ? yamlCompletion(schema.data, names.data ?? {}) : undefined),
    [schema.data, names.data],
  )
  const marks = useMemo(() => problems.flatMap((each) => (each.place ? [markOf(each, each.place)] : [])), [problems])
  return (
    <>
      <div className="form-label mb-1">{t('documents.definition_yaml')}</div>
      <div id={help} className="form-text mt-0 mb-1">
        {t('documents.ctrl_space_suggestions')}
      </div>
      <CodeField
        label={t('documents.definition_yaml')}
        describedBy={help}
        language="yaml"
        value={value}
        onChange={onChange}
        marks={marks}
        {...(completion ? { completion } : {})}
        caret={caret}
      />
      <Problems shown={review.data ?? none} fresh={settled === value && !review.isPlaceholderData} onGo={setCaret} />
      {review.error && <div className="problem-text small mt-1">{review.error.message}</div>}
    </>
  )
}

type ProblemPlace = NonNullable<ApiProblem['place']>

const markOf = (problem: ApiProblem, place: ProblemPlace) => ({
  from: place.offset,
  to: place.offset + place.length,
  message: problem.message,
  warning: problem.weight === 'WARNING',
})

/** The problems below the text, each with the line that it is in. */
function Problems(props: { shown: ApiProblem[]; fresh: boolean; onGo: (caret: { offset: number }) => void }) {
  const { shown, fresh, onGo } = props
  return (
    <div role="status" className={fresh ? '' : 'quiet'}>
      {shown.length > 0 && (
        <ul className="list-unstyled small mt-2 mb-0">
          {shown.map((problem, index) => (
            <li key={index}>
              {problem.place && (
                <Button
                  size="sm"
                  variant="link"
                  className="p-0 me-2 align-baseline"
                  onClick={() => onGo({ offset: problem.place?.offset ?? 0 })}
                >
                  {t('documents.line', { line: problem.place.line })}
                </Button>
              )}
              <span className={problem.weight === 'ERROR' ? 'problem-text' : ''}>
                {problem.weight === 'WARNING' ? t('shared.warning', { message: problem.message }) : problem.message}
                {problem.suggestion && <> {t('shared.did_you_mean', { suggestion: problem.suggestion })}</>}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}
