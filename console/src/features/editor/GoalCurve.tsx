import { t } from '../../messages'
import { numberWords } from '../../shared/words'
import type { Goal, Outcome } from './goal'

const width = 440
const height = 110
const margin = 24

/** Value against the highest number in a week or month; the goal as a line. */
export function GoalCurve({ outcomes, goal, present }: { outcomes: Outcome[]; goal: Goal; present: number }) {
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
