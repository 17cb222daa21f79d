import { Button } from 'react-bootstrap'
import type { PartCount } from '../../api/types'
import { numberWords } from '../../shared/words'
import type { Part } from './builder'
import { PartFields, type Known } from './PartFields'
import { freshPart } from './verbs'
import { rich, t } from '../../messages'

type Props = Known & {
  /** Null where the text cannot be read just now. */
  parts: Part[] | null
  /** False while the text that they are of is still being read. */
  settled: boolean
  /** How many rows are left after each part, from the preview; null where it looked at another condition. */
  counts: PartCount[] | null
  total: number | null
  onChange: (parts: Part[]) => void
}

/** A condition as parts with fields. It never locks: a part that has no fields is edited as it is written. */
export function Builder({ parts, settled, counts, total, onChange, columns, thresholds }: Props) {
  if (parts === null) return settled ? <p className="small quiet mb-2">{t('editor.fix_the_text_to_see')}</p> : null
  const first = columns[0]
  const replace = (index: number, part: Part) => onChange(parts.map((each, i) => (i === index ? part : each)))
  const fresh = freshPart(first ?? { name: '', type: 'text' })
  return (
    <fieldset className="builder" aria-label={t('shared.parts_of_the_condition')} disabled={!settled}>
      {parts.map((part, index) => (
        <div className="part" key={index}>
          <span className="quiet">{index > 0 && t('editor.and')}</span>
          <PartFields
            part={part}
            index={index}
            columns={columns}
            thresholds={thresholds}
            onChange={(next) => replace(index, next)}
          />
          <Left count={counts?.[index]} total={total} />
          <Button
            size="sm"
            variant="plain"
            className="x"
            aria-label={t('editor.remove_part', { index: index + 1 })}
            onClick={() => onChange(parts.filter((_, i) => i !== index))}
          >
            ✕
          </Button>
        </div>
      ))}
      {first && (
        <div className="d-flex gap-2 more">
          <Button size="sm" variant="plain" onClick={() => onChange([...parts, fresh])}>
            {t('editor.add_and')}
          </Button>
          <Button
            size="sm"
            variant="plain"
            onClick={() => onChange([...parts, { is: 'either', parts: [fresh, fresh] }])}
          >
            {t('editor.any_of')}
          </Button>
        </div>
      )}
    </fieldset>
  )
}

function Left({ count, total }: { count: PartCount | undefined; total: number | null }) {
  if (!count) return <span className="left" />
  const unknown = count.unknownRows ?? 0
  const share = total ? Math.max(2, Math.round((count.rowsLeft / total) * 84)) : 0
  return (
    <span className="left">
      {rich('editor.match', { b: (inner) => <b>{inner}</b>, rowsLeft: numberWords(count.rowsLeft) })}
      {share > 0 && <span className="bar" style={{ width: share }} />}
      {unknown > 0 && <span className="d-block problem-text">{t('editor.unknown', { unknown })}</span>}
    </span>
  )
}
