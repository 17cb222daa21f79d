import { Link } from 'react-router'
import { t } from '../messages'

/** The rules that use something, each leading to its page. */
export function RuleLinks({ rules }: { rules: string[] }) {
  if (rules.length === 0) return <>{t('shared.no_rules')}</>
  return rules.map((rule, index) => (
    <span key={rule}>
      {index > 0 && ', '}
      <Link to={`/rules/${rule}`}>{rule}</Link>
    </span>
  ))
}
