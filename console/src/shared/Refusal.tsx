import { ApiError } from '../api/client'
import { t } from '../messages'

/** Why the service refused something, each reason with its field. */
export function Refusal({ error }: { error: Error | null }) {
  if (!error) return null
  const problems = error instanceof ApiError ? error.problems : []
  return (
    <ul className="callout bad list-unstyled mt-2">
      {problems.length === 0 && <li>{error.message}</li>}
      {problems.map((problem, index) => (
        <li key={index}>
          {problem.field && <code>{problem.field}</code>} {problem.message}
          {problem.suggestion && <> {t('shared.did_you_mean', { suggestion: problem.suggestion })}</>}
        </li>
      ))}
    </ul>
  )
}
