import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQueries } from '@tanstack/react-query'
import { t } from '../../messages'
import { Scroll } from '../../shared/Scroll'
import { numberWords } from '../../shared/words'
import { work, type RuleDocument, type Work } from './api'
import { BackTestProgress } from './BackTestProgress'
import type { Part } from './builder'
import { GoalCurve } from './GoalCurve'
import { GoalEdge } from './GoalEdge'
import { edgeOf, nearest, outcomesOf, valuesBetween, withValue, type Goal, type Outcome, type Varied } from './goal'

export type Advice = { exceptions: string; reason: string }

/** Which value of a number of this rule would have met a goal. */
export type GoalQuestion = {
  varied: Varied
  present: number
  goal: Goal
  parts: Part[]
  document: RuleDocument
  days: number
}

/** One back-test with several values. */
export type GoalRound = { work: Work; values: number[] }

type Props = {
  question: GoalQuestion
  first: GoalRound
  onNarrow: (question: GoalQuestion, values: number[]) => Promise<GoalRound>
  onUse: (advice: Advice) => void
}

/** What each value would have come to, and the one that is nearest to the present and meets the goal. */
export function GoalResults({ question, first, onNarrow, onUse }: Props) {
  const { goal, present } = question
  const [rounds, setRounds] = useState([first])
  const [picked, setPicked] = useState<number | null>(null)
  const answers = useQueries({ queries: rounds.map((round) => ({ ...work(round.work.id), initialData: round.work })) })
  const narrow = useMutation({
    mutationFn: (values: number[]) => onNarrow(question, values),
    onSuccess: (round) => {
      setRounds((before) => [...before, round])
      setPicked(null)
    },
  })
  const zone = question.document.zone || 'UTC'
  const outcomes = rounds
    .flatMap(({ values }, round) =>
      // The first variant of each round is the rule as it is.
      outcomesOf(answers[round]?.data.result?.variants ?? [], [present, ...values], goal, zone).filter(
        ({ value }) => round === 0 || value !== present,
      ),
    )
    .sort((a, b) => a.value - b.value)
  const best = nearest(outcomes, present)
  const between = best === null ? [] : valuesBetween(best, edgeOf(outcomes, best, present))
  const shown = outcomes.find(({ value }) => value === picked) ?? best
  const running = answers.findIndex(({ data }) => data.state !== 'DONE')
  const now = answers[running]
  return (
    <>
      {outcomes.length > 0 && (
        <>
          <p className="mt-2 mb-1">{verdict(best, question)}</p>
          {between.length > 0 && running < 0 && (
            <Button size="sm" variant="plain" disabled={narrow.isPending} onClick={() => narrow.mutate(between)}>
              {t('editor.goal_narrow', {
                from: numberWords(Math.min(...between)),
                to: numberWords(Math.max(...between)),
              })}
            </Button>
          )}
          <GoalCurve outcomes={outcomes} goal={goal} present={present} />
          <Values outcomes={outcomes} question={question} shown={shown} onPick={setPicked} />
          {shown !== null && shown.value !== present && (
            <GoalEdge outcome={shown} present={present}>
              <Use question={question} value={shown.value} onUse={onUse} />
            </GoalEdge>
          )}
          <p className="small quiet mt-1 mb-0">{t('editor.goal_todays_data')}</p>
        </>
      )}
      {now && <BackTestProgress now={now.data} onStopped={() => void now.refetch()} />}
      {narrow.error && <p className="callout bad">{narrow.error.message}</p>}
    </>
  )
}

const eachWords = (goal: Goal) => t(goal.each === 'week' ? 'editor.goal_each_week' : 'editor.goal_each_month')

const goalWords = (goal: Goal) =>
  t('editor.goal_words', {
    most: goal.most,
    of: t(goal.of === 'messages' ? 'editor.goal_of_messages' : 'editor.goal_of_findings'),
    each: eachWords(goal),
  })

function verdict(best: Outcome | null, { goal, present }: GoalQuestion) {
  if (best === null) return t('editor.goal_none', { goal: goalWords(goal) })
  const value = numberWords(best.value)
  return best.value === present
    ? t('editor.goal_met_already', { value, goal: goalWords(goal) })
    : t('editor.goal_best', { value, goal: goalWords(goal) })
}

type ValuesProps = {
  outcomes: Outcome[]
  question: GoalQuestion
  shown: Outcome | null
  onPick: (value: number) => void
}

function Values({ outcomes, question: { goal, present }, shown, onPick }: ValuesProps) {
  return (
    <Scroll label={t('editor.goal_results')}>
      <Table size="sm">
        <thead>
          <tr>
            <th className="num">{t('editor.goal_value')}</th>
            <th className="num">{t('editor.goal_highest', { each: eachWords(goal) })}</th>
            <th className="num">{t('editor.goal_all_messages')}</th>
            <th className="num">{t('editor.goal_all_findings')}</th>
          </tr>
        </thead>
        <tbody>
          {outcomes.map((each) => (
            <tr key={each.value} className={each.value === shown?.value ? 'chosen' : ''}>
              <td className="num">
                {each.meets && (
                  <span className="ok" title={t('editor.goal_meets')}>
                    ✓{' '}
                  </span>
                )}
                <button
                  type="button"
                  className="cell"
                  aria-pressed={each.value === shown?.value}
                  title={t('editor.goal_pick', { value: numberWords(each.value) })}
                  onClick={() => onPick(each.value)}
                >
                  {numberWords(each.value)}
                </button>
                {each.value === present && <span className="quiet"> {t('editor.goal_now')}</span>}
              </td>
              <td className="num">{numberWords(each.highest)}</td>
              <td className="num">{numberWords(each.messages)}</td>
              <td className="num">{numberWords(each.findings)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}

type UseProps = { question: GoalQuestion; value: number; onUse: (advice: Advice) => void }

function Use({ question: { varied, parts, present, goal }, value, onUse }: UseProps) {
  const reason = t('editor.goal_reason', {
    before: numberWords(present),
    value: numberWords(value),
    goal: goalWords(goal),
  })
  if (varied.is === 'threshold')
    return (
      <Link
        className="btn btn-sm btn-plain"
        to={`/thresholds/${varied.name}?${new URLSearchParams({ value: String(value), reason })}`}
      >
        {t('editor.goal_use_threshold', { name: varied.name })}
      </Link>
    )
  return (
    <Button
      size="sm"
      variant="plain"
      onClick={() => onUse({ exceptions: withValue(parts, varied.index, value), reason })}
    >
      {t('editor.goal_use', { value: numberWords(value) })}
    </Button>
  )
}
