import { numberWords } from '../../shared/words'
import type { Effect } from './api'

/** What a change of values does to each rule that uses them. */
export function Effects({ effects }: { effects: Effect[] }) {
  if (effects.length === 0) return <p className="callout">No rule uses it.</p>
  return (
    <ul className="callout list-unstyled">
      {effects.map((each) => (
        <li key={each.rule}>
          {each.title}:{' '}
          {each.refused ??
            `${numberWords(each.before ?? 0)} exceptions now, ${numberWords(each.after ?? 0)} with this change${each.otherSeverity ? `, ${numberWords(each.otherSeverity)} of them with another severity` : ''}`}
        </li>
      ))}
    </ul>
  )
}
