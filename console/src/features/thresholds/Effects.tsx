import { numberWords } from '../../shared/words'
import type { Effect } from './api'
import { t } from '../../messages'

/** What a change of values does to each rule that uses them. */
export function Effects({ effects }: { effects: Effect[] }) {
  if (effects.length === 0) return <p className="callout">{t('shared.no_rule_uses_it')}</p>
  return (
    <ul className="callout list-unstyled">
      {effects.map((each) => (
        <li key={each.rule}>
          {each.title}:{' '}
          {each.refused ??
            t('thresholds.exceptions_now_with_this_change', {
              before: numberWords(each.before ?? 0),
              after: numberWords(each.after ?? 0),
              severity: each.otherSeverity
                ? t('shared.of_them_with_another_severity', { otherSeverity: numberWords(each.otherSeverity) })
                : '',
            })}
        </li>
      ))}
    </ul>
  )
}
