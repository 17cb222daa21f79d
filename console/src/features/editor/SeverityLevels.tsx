import { Button } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import type { SeverityLevel, Place } from './api'
import { ConditionField } from './ConditionField'
import { t } from '../../messages'

type Word = Extract<SeverityLevel, string>

const words: Word[] = ['critical', 'warning', 'notice']

const severityOf = (level: SeverityLevel): Word =>
  typeof level === 'string' ? level : (words.find((word) => word in level) ?? 'warning')
const conditionOf = (level: SeverityLevel) => (typeof level === 'string' ? '' : (Object.values(level)[0] ?? ''))

/** Severity levels: the first whose condition is true counts, and the last is for every other exception. */
export function SeverityLevels({
  query,
  place,
  levels,
  onChange,
}: {
  query: string
  place: Place
  levels: SeverityLevel[]
  onChange: (levels: SeverityLevel[]) => void
}) {
  const conditioned = levels.slice(0, -1)
  const last = severityOf(levels.at(-1) ?? 'warning')
  const replace = (index: number, level: SeverityLevel) =>
    onChange(levels.map((each, i) => (i === index ? level : each)))
  return (
    <fieldset className="mb-3">
      <legend>{t('shared.severity')}</legend>
      {conditioned.map((level, index) => (
        <div key={index} className="severity-level">
          <Severity
            id={`level-${index}`}
            label={t('editor.severity_level', { index: index + 1 })}
            value={severityOf(level)}
            onChange={(word) => replace(index, { [word]: conditionOf(level) })}
          />
          <ConditionField
            label={t('editor.where', { level: severityOf(level) })}
            query={query}
            place={place}
            value={conditionOf(level)}
            onChange={(text) => replace(index, { [severityOf(level)]: text })}
          />
          <Button
            size="sm"
            variant="plain"
            onClick={() => onChange(levels.filter((_, i) => i !== index))}
            aria-label={t('editor.remove_severity_level', { index: index + 1 })}
          >
            {t('shared.remove')}
          </Button>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end">
        <Severity
          id="level-last"
          label={t('editor.otherwise')}
          value={last}
          onChange={(word) => onChange([...conditioned, word])}
        />
        <Button size="sm" variant="plain" onClick={() => onChange([...conditioned, { critical: '' }, last])}>
          {t('editor.add_severity_level')}
        </Button>
      </div>
    </fieldset>
  )
}

function Severity({
  id,
  label,
  value,
  onChange,
}: {
  id: string
  label: string
  value: Word
  onChange: (word: Word) => void
}) {
  return (
    <Choice
      id={id}
      label={label}
      value={value}
      options={words.map((word) => [word, word])}
      onChange={(word) => onChange(word || 'warning')}
    />
  )
}
