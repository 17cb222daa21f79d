import { Button } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import type { Band, Place } from './api'
import { ConditionField } from './ConditionField'

type Word = Extract<Band, string>

const words: Word[] = ['critical', 'warning', 'notice']

const severityOf = (band: Band): Word =>
  typeof band === 'string' ? band : (words.find((word) => word in band) ?? 'warning')
const conditionOf = (band: Band) => (typeof band === 'string' ? '' : (Object.values(band)[0] ?? ''))

/** The bands of severity: the first whose condition holds counts, and the last is for every other exception. */
export function Bands({
  query,
  place,
  bands,
  onChange,
}: {
  query: string
  place: Place
  bands: Band[]
  onChange: (bands: Band[]) => void
}) {
  const conditioned = bands.slice(0, -1)
  const last = severityOf(bands.at(-1) ?? 'warning')
  const replace = (index: number, band: Band) => onChange(bands.map((each, i) => (i === index ? band : each)))
  return (
    <fieldset className="mb-3">
      <legend>Severity</legend>
      {conditioned.map((band, index) => (
        <div key={index} className="band">
          <Severity
            id={`band-${index}`}
            label={`Severity level ${index + 1}`}
            value={severityOf(band)}
            onChange={(word) => replace(index, { [word]: conditionOf(band) })}
          />
          <ConditionField
            label={`${severityOf(band)} where`}
            query={query}
            place={place}
            value={conditionOf(band)}
            onChange={(text) => replace(index, { [severityOf(band)]: text })}
          />
          <Button
            size="sm"
            variant="plain"
            onClick={() => onChange(bands.filter((_, i) => i !== index))}
            aria-label={`Remove severity level ${index + 1}`}
          >
            Remove
          </Button>
        </div>
      ))}
      <div className="d-flex gap-2 align-items-end">
        <Severity id="band-last" label="Otherwise" value={last} onChange={(word) => onChange([...conditioned, word])} />
        <Button size="sm" variant="plain" onClick={() => onChange([...conditioned, { critical: '' }, last])}>
          Add severity level
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
