import type { Column } from '../fields/parts'
import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { useSettled } from '../../shared/settled'
import { thresholds } from '../thresholds/api'
import { conditionSeen, type DraftSeen, type RuleDocument } from './api'
import { SeverityLevels } from './SeverityLevels'
import { Builder } from './Builder'
import { partsOf, textOf, textOfPart, type Part } from './builder'
import { ConditionField } from './ConditionField'
import { isPlain } from './kind'
import { evaluating } from './measures'
import { Measures } from './Measures'
import { offeredOf } from './offered'
import { OfferContext } from './offers'
import { conditionLabel } from './places'
import { freshPart } from './verbs'
import { t } from '../../messages'

type Props = {
  document: RuleDocument
  columns: Column[]
  preview: DraftSeen | undefined
  onChange: (part: Partial<RuleDocument>) => void
}

export const measuresOf = (document: RuleDocument) =>
  Object.fromEntries(
    Object.entries(document.measures ?? {}).map(([name, value]) => [
      name,
      typeof value === 'string' ? value : value.value,
    ]),
  )

/** Which rows or groups are odd, as parts with fields and as text side by side, and how bad each is. */
export function ConditionsStep({ document, columns, preview, onChange }: Props) {
  const known = useQuery(thresholds)
  const measures = measuresOf(document)
  const place = { per: document.per, measures: document.per ? measures : undefined }
  const text = document.exceptions ?? ''
  const settled = useSettled(text, 300)
  const seen = useQuery({ ...conditionSeen(document.query, settled, place), enabled: settled.trim() !== '' })
  const offered = offeredOf(document, columns)
  // What the fields say is known at once; what is typed, once the service has read it.
  const [own, setOwn] = useState<{ text: string; parts: Part[] } | null>(null)
  const read = settled === text && !seen.isPlaceholderData && seen.data !== undefined
  const isKnown = own?.text === text || read
  // A value is written by the type of its column, so the fields wait until the columns are known.
  const parts =
    own?.text === text
      ? own.parts
      : seen.data?.tree && seen.data.parts.length > 0
        ? partsOf(
            seen.data.tree,
            seen.data.parts.map((part) => part.text),
          )
        : null
  const build = (next: Part[]) => {
    setOwn({ text: textOf(next), parts: next })
    onChange({ exceptions: textOf(next) })
  }
  const texts = seen.data?.parts.map((part) => part.text) ?? []
  // The preview may still be of the condition before this one.
  const counts =
    preview &&
    texts.length > 0 &&
    preview.draft.parts.length === texts.length &&
    preview.draft.parts.every((part, index) => part.text === texts[index])
      ? preview.draft.parts
      : null
  const first = offered[0]
  const offerInput = {
    query: document.per ? '' : document.query,
    values: document.parameters ?? {},
    zone: document.zone || 'UTC',
    calendar: document.schedule?.calendar ?? null,
  }
  const plain = isPlain(document)
  return (
    <>
      {columns.length > 0 && (
        <Form.Group controlId="judged" className="mb-2">
          <Form.Label className="mb-0 small quiet">{t('editor.evaluate')}</Form.Label>
          <Form.Select
            size="sm"
            className="w-auto"
            value={document.per === undefined ? 'rows' : document.per.length === 0 ? 'whole' : 'groups'}
            onChange={(event) => onChange(evaluating(event.target.value, columns, document))}
          >
            <option value="rows">{t('editor.each_row')}</option>
            <option value="groups">{t('editor.groups_of_rows')}</option>
            <option value="whole">{t('editor.the_whole_result')}</option>
          </Form.Select>
        </Form.Group>
      )}
      {document.per && document.per.length > 0 && (
        <fieldset className="mb-2">
          <legend className="small">{t('editor.group_by')}</legend>
          <div className="d-flex flex-wrap gap-3">
            {columns.map((column) => (
              <Form.Check
                key={column.name}
                id={`per-${column.name}`}
                type="checkbox"
                label={column.label}
                checked={document.per?.includes(column.name) ?? false}
                onChange={(event) => {
                  const per = columns
                    .map(({ name }) => name)
                    .filter((name) => (name === column.name ? event.target.checked : document.per?.includes(name)))
                  if (per.length > 0) onChange({ per })
                }}
              />
            ))}
          </div>
        </fieldset>
      )}
      {document.per && <Measures document={document} columns={columns} onChange={onChange} />}
      {text.trim() === '' && first && (
        <p className="mb-2">
          <Button size="sm" variant="plain" onClick={() => onChange({ exceptions: textOfPart(freshPart(first)) })}>
            {t('editor.add_a_comparison')}
          </Button>{' '}
          <span className="small quiet">{t('editor.or_type_a_condition')}</span>
        </p>
      )}
      {text.trim() !== '' && (
        <OfferContext.Provider value={offerInput}>
          <Builder
            parts={parts}
            settled={isKnown && (offered.length > 0 || parts === null)}
            counts={counts}
            total={preview?.draft.grouped ? null : (preview?.draft.rowsRead ?? null)}
            columns={offered}
            thresholds={known.data ?? []}
            onChange={build}
          />
        </OfferContext.Provider>
      )}
      <ConditionField
        label={conditionLabel(document)}
        query={document.query}
        place={place}
        value={text}
        onChange={(exceptions) => onChange({ exceptions })}
        hint={plain ? t('editor.condition_hint_plain') : t('editor.ctrl_space_suggestions_empty_all')}
      />
      {!plain && (
        <SeverityLevels
          query={document.query}
          place={place}
          levels={document.severity ?? ['warning']}
          onChange={(severity) => onChange({ severity })}
        />
      )}
      <details className="entry" open={Boolean(document['fire_when'])}>
        <summary>{t('editor.fire_only_if_optional')}</summary>
        <ConditionField
          label={t('editor.fire_only_if')}
          query={document.query}
          place={{ place: 'check' }}
          value={document['fire_when'] ?? ''}
          onChange={(fire) => onChange({ fire_when: fire })}
          hint={t('editor.empty_fire_whenever_there_are')}
        />
      </details>
    </>
  )
}
