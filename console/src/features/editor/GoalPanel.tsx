import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery } from '@tanstack/react-query'
import { t } from '../../messages'
import { Choice } from '../../shared/Choice'
import { Scroll } from '../../shared/Scroll'
import { numberWords } from '../../shared/words'
import { thresholds as allThresholds } from '../thresholds/api'
import { backTest, conditionSeen, work, type RuleDocument, type Work } from './api'
import { BackTestProgress } from './BackTestProgress'
import { partsOf, type Part } from './builder'
import { nearest, outcomesOf, valuesAround, variedOf, withValue, type Goal, type Outcome, type Varied } from './goal'

type Asked = { work: Work; varied: Varied; present: number; values: number[]; goal: Goal; parts: Part[] }
export type Advice = { exceptions: string; reason: string }

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
  const start = useMutation({
    mutationFn: async (): Promise<Asked> => {
      if (!varied) throw new Error(t('editor.goal_no_number'))
      const present = varied.value ?? 0
      const values = valuesAround(present)
      const trial =
        varied.is === 'threshold'
          ? { thresholds: { [varied.name]: values.map(String) }, conditions: [] }
          : { thresholds: {}, conditions: values.map((value) => withValue(parts, varied.index, value)) }
      const asked = await backTest(Number(days), trial, document, null)
      return { work: asked, varied, present, values, goal, parts }
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
          <Found key={start.data.work.id} asked={start.data} zone={document.zone || 'UTC'} onUse={onUse} />
        )}
      </div>
    </details>
  )
}

function Found({ asked, zone, onUse }: { asked: Asked; zone: string; onUse: (advice: Advice) => void }) {
  const now = useQuery({ ...work(asked.work.id), initialData: asked.work })
  const result = now.data.state === 'DONE' ? now.data.result : null
  if (!result) return <BackTestProgress now={now.data} onStopped={() => void now.refetch()} />
  // The first variant is the rule as it is.
  const outcomes = outcomesOf(result.variants, [asked.present, ...asked.values], asked.goal, zone)
  const best = nearest(outcomes, asked.present)
  const goalText = t('editor.goal_words', {
    most: asked.goal.most,
    of: t(asked.goal.of === 'messages' ? 'editor.goal_of_messages' : 'editor.goal_of_findings'),
    each: t(asked.goal.each === 'week' ? 'editor.goal_each_week' : 'editor.goal_each_month'),
  })
  return (
    <>
      <p className="mt-2 mb-1">
        {best === null
          ? t('editor.goal_none', { goal: goalText })
          : best.value === asked.present
            ? t('editor.goal_met_already', { value: numberWords(asked.present), goal: goalText })
            : t('editor.goal_best', { value: numberWords(best.value), goal: goalText })}{' '}
        {best !== null && best.value !== asked.present && (
          <Use asked={asked} best={best} goalText={goalText} onUse={onUse} />
        )}
      </p>
      <Curve outcomes={outcomes} goal={asked.goal} present={asked.present} />
      <Scroll label={t('editor.goal_results')}>
        <Table size="sm">
          <thead>
            <tr>
              <th className="num">{t('editor.goal_value')}</th>
              <th className="num">
                {t('editor.goal_highest', {
                  each: t(asked.goal.each === 'week' ? 'editor.goal_each_week' : 'editor.goal_each_month'),
                })}
              </th>
              <th className="num">{t('editor.goal_all_messages')}</th>
              <th className="num">{t('editor.goal_all_findings')}</th>
            </tr>
          </thead>
          <tbody>
            {outcomes.map((each) => (
              <tr key={each.value} className={each === best ? 'chosen' : ''}>
                <td className="num">
                  {each.meets && (
                    <span className="ok" title={t('editor.goal_meets')}>
                      ✓{' '}
                    </span>
                  )}
                  {numberWords(each.value)}
                  {each.value === asked.present && <span className="quiet"> {t('editor.goal_now')}</span>}
                </td>
                <td className="num">{numberWords(each.highest)}</td>
                <td className="num">{numberWords(each.messages)}</td>
                <td className="num">{numberWords(each.findings)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      <p className="small quiet mt-1 mb-0">{t('editor.goal_todays_data')}</p>
    </>
  )
}

type UseProps = { asked: Asked; best: Outcome; goalText: string; onUse: (advice: Advice) => void }

function Use({ asked, best, goalText, onUse }: UseProps) {
  const { varied, parts } = asked
  const reason = t('editor.goal_reason', {
    before: numberWords(asked.present),
    value: numberWords(best.value),
    goal: goalText,
  })
  if (varied.is === 'threshold')
    return (
      <Link
        className="btn btn-sm btn-plain"
        to={`/thresholds/${varied.name}?${new URLSearchParams({ value: String(best.value), reason })}`}
      >
        {t('editor.goal_use_threshold', { name: varied.name })}
      </Link>
    )
  return (
    <Button
      size="sm"
      variant="plain"
      onClick={() => onUse({ exceptions: withValue(parts, varied.index, best.value), reason })}
    >
      {t('editor.goal_use', { value: numberWords(best.value) })}
    </Button>
  )
}

const width = 440
const height = 110
const margin = 24

/** Value against the highest number in a week or month; the goal as a line. */
function Curve({ outcomes, goal, present }: { outcomes: Outcome[]; goal: Goal; present: number }) {
  const top = Math.max(1, goal.most, ...outcomes.map(({ highest }) => highest))
  const x = (index: number) => margin + (index * (width - 2 * margin)) / Math.max(1, outcomes.length - 1)
  const y = (count: number) => height - margin - (count * (height - 2 * margin)) / top
  const line = outcomes.map(({ highest }, index) => `${x(index)},${y(highest)}`).join(' ')
  return (
    <svg viewBox={`0 0 ${width} ${height}`} className="curve" role="img" aria-label={t('editor.goal_curve')}>
      <line x1={margin} x2={width - margin} y1={y(goal.most)} y2={y(goal.most)} className="goal" />
      <polyline points={line} />
      {outcomes.map((each, index) => (
        <g key={each.value}>
          <circle
            cx={x(index)}
            cy={y(each.highest)}
            r={each.value === present ? 5 : 3}
            className={each.meets ? 'ok' : ''}
          />
          <text x={x(index)} y={height - 6}>
            {numberWords(each.value)}
          </text>
        </g>
      ))}
    </svg>
  )
}
