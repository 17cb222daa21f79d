import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { t } from '../../messages'
import { Choice } from '../../shared/Choice'
import { numberWords } from '../../shared/words'
import { thresholds as allThresholds } from '../thresholds/api'
import { backTest, conditionSeen, type RuleDocument } from './api'
import { partsOf } from './builder'
import { GoalResults, type Advice, type GoalQuestion } from './GoalResults'
import { valuesAround, variedOf, withValue, type Goal, type Varied } from './goal'

const nameOf = (varied: Varied, labels: Record<string, string>) =>
  varied.is === 'threshold'
    ? t('editor.threshold', { name: varied.name })
    : t('editor.number_of_part', {
        label: labels[varied.column] ?? varied.column,
        operator: varied.operator,
        value: numberWords(varied.value),
      })

/** The back-test asked the other way round: which value of a number would have kept messages or findings within a goal. */
export function GoalPanel({
  document,
  labels,
  onUse,
}: {
  document: RuleDocument
  labels: Record<string, string>
  onUse: (advice: Advice) => void
}) {
  const known = useQuery(allThresholds)
  const text = document.exceptions ?? ''
  const seen = useQuery({ ...conditionSeen(document.query, text, {}), enabled: text.trim() !== '' && !document.per })
  const parts =
    seen.data?.tree && !seen.isPlaceholderData
      ? partsOf(
          seen.data.tree,
          seen.data.parts.map((part) => part.text),
        )
      : []
  const choices = variedOf(parts, known.data ?? [])
  const [chosen, setChosen] = useState(0)
  const [goal, setGoal] = useState<Goal>({ most: 3, of: 'messages', each: 'week' })
  const [days, setDays] = useState('60')
  const varied = choices[chosen] ?? choices[0]
  /** Past slots with each of these values. */
  const round = async (question: GoalQuestion, values: number[]) => {
    const { varied, parts } = question
    const trial =
      varied.is === 'threshold'
        ? { thresholds: { [varied.name]: values.map(String) }, conditions: [] }
        : { thresholds: {}, conditions: values.map((value) => withValue(parts, varied.index, value)) }
    return { work: await backTest(question.days, trial, question.document, null), values }
  }
  const start = useMutation({
    mutationFn: async () => {
      if (!varied) throw new Error(t('editor.goal_no_number'))
      const question = { varied, present: varied.value ?? 0, goal, parts, document, days: Number(days) }
      return { question, first: await round(question, valuesAround(question.present)) }
    },
  })
  if (document.per || document.copies) return null
  return (
    <details className="entry mt-3">
      <summary>{t('editor.goal')}</summary>
      <p className="small quiet mt-1 mb-1">{t('editor.goal_help')}</p>
      {choices.length === 0 ? (
        <p className="small mb-0">{t('editor.goal_no_number')}</p>
      ) : (
        <Form
          className="d-flex gap-2 align-items-end flex-wrap"
          onSubmit={(event) => {
            event.preventDefault()
            start.mutate()
          }}
        >
          <Choice
            id="goal-number"
            label={t('editor.goal_vary')}
            value={String(chosen)}
            options={choices.map((each, index) => [String(index), nameOf(each, labels)] as const)}
            onChange={(index) => setChosen(Number(index))}
          />
          <Form.Group controlId="goal-most">
            <Form.Label className="mb-0 small quiet">{t('editor.goal_most')}</Form.Label>
            <Form.Control
              size="sm"
              type="number"
              min={0}
              value={goal.most}
              onChange={(event) => setGoal({ ...goal, most: Number(event.target.value) })}
            />
          </Form.Group>
          <Choice
            id="goal-of"
            label={t('editor.goal_of')}
            value={`${goal.of} ${goal.each}`}
            options={[
              ['messages week', t('editor.goal_messages_week')],
              ['messages month', t('editor.goal_messages_month')],
              ['findings week', t('editor.goal_findings_week')],
              ['findings month', t('editor.goal_findings_month')],
            ]}
            onChange={(both) =>
              setGoal({
                ...goal,
                of: both.startsWith('findings') ? 'findings' : 'messages',
                each: both.endsWith('month') ? 'month' : 'week',
              })
            }
          />
          <Form.Group controlId="goal-days">
            <Form.Label className="mb-0 small quiet">{t('editor.days_back')}</Form.Label>
            <Form.Control
              size="sm"
              type="number"
              min={1}
              max={3660}
              value={days}
              onChange={(event) => setDays(event.target.value)}
            />
          </Form.Group>
          <Button type="submit" variant="plain" disabled={start.isPending}>
            {t('editor.goal_find')}
          </Button>
        </Form>
      )}
      <div role="status">
        {start.error && <p className="callout bad">{start.error.message}</p>}
        {start.data && (
          <GoalResults
            key={start.data.first.work.id}
            question={start.data.question}
            first={start.data.first}
            onNarrow={round}
            onUse={onUse}
          />
        )}
      </div>
    </details>
  )
}
