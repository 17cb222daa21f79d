import type { RuleDocument } from './api'
import { ConditionField } from './ConditionField'
import { t } from '../../messages'

/** What is measured of each group. A measure may name those before it. */
export function Measures({
  query,
  document,
  measures,
  onChange,
}: {
  query: string
  document: RuleDocument
  measures: Record<string, string>
  onChange: (part: Partial<RuleDocument>) => void
}) {
  const set = (name: string, text: string) => {
    const before = document.measures?.[name]
    const value = typeof before === 'object' ? { ...before, value: text } : text
    onChange({ measures: { ...document.measures, [name]: value } })
  }
  return (
    <div className="mt-2">
      {Object.entries(measures).map(([name, text], index) => {
        const earlier = Object.fromEntries(Object.entries(measures).slice(0, index))
        return (
          <ConditionField
            key={name}
            label={t('editor.measure_named', { name })}
            query={query}
            place={{ per: document.per, measures: earlier, place: 'measure' }}
            value={text}
            onChange={(value) => set(name, value)}
          />
        )
      })}
    </div>
  )
}
