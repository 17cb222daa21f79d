import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Scroll } from '../../shared/Scroll'
import { effectOf, give, type ThresholdPage } from './api'
import { changes, hindrance, linesOf, withSuggested, type Line, type Suggested } from './edits'
import { Effects } from './Effects'
import { t } from '../../messages'

/** The date of this browser, as the table has it. */
const dayOf = (date: Date) => new Intl.DateTimeFormat('en-CA').format(date)

/** The values as a table to type in; what the changes would do to each rule can be counted before they are saved. */
export function ValuesEditor({
  page,
  suggested,
  onLeave,
}: {
  page: ThresholdPage
  suggested: Suggested | null
  onLeave: () => void
}) {
  const { threshold, values } = page
  const [lines, setLines] = useState(() => {
    const now = linesOf(values, threshold.key.length)
    return suggested ? withSuggested(now, suggested.number, dayOf(new Date()), threshold.key.length) : now
  })
  const [reason, setReason] = useState(suggested?.reason ?? '')
  const [treatAsKnown, setTreatAsKnown] = useState(false)
  const client = useQueryClient()
  const changed = changes(values, lines)
  const hindered = hindrance(lines, threshold.key)
  const effect = useMutation({ mutationFn: () => effectOf(threshold.name, changed) })
  const save = useMutation({
    mutationFn: () => give(threshold.name, changed, reason, treatAsKnown),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['thresholds'] })
      onLeave()
    },
  })
  const edit = (all: Line[]) => {
    effect.reset()
    setLines(all)
  }
  const add = () =>
    edit([
      ...lines,
      { id: Math.max(0, ...lines.map(({ id }) => id)) + 1, key: threshold.key.map(() => ''), from: '', number: '' },
    ])
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <Lines page={page} lines={lines} onEdit={edit} />
      <Button size="sm" variant="plain" className="my-2" onClick={add}>
        {t('thresholds.add_line')}
      </Button>
      <Form.Group controlId="reason" className="mb-2">
        <Form.Label className="mb-0">{t('shared.reason')}</Form.Label>
        <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
      </Form.Group>
      <Form.Check
        id="as-known"
        className="mb-2"
        label={t('thresholds.treat_what_the_new_values')}
        checked={treatAsKnown}
        onChange={(event) => setTreatAsKnown(event.target.checked)}
      />
      <p className="small quiet mb-2">
        {hindered ??
          (changed.length === 0
            ? t('thresholds.no_changes_yet')
            : t('thresholds.value_changed', {
                changed: changed.length,
                reason: reason.trim() === '' ? t('thresholds.give_a_reason_too') : '',
              }))}
      </p>
      <div className="d-flex gap-2 flex-wrap">
        <Button
          type="submit"
          disabled={save.isPending || changed.length === 0 || hindered !== null || reason.trim() === ''}
        >
          {t('shared.save')}
        </Button>
        <Button
          variant="plain"
          onClick={() => effect.mutate()}
          disabled={effect.isPending || changed.length === 0 || hindered !== null}
        >
          {t('thresholds.show_effect')}
        </Button>
        <Button variant="plain" onClick={onLeave}>
          {t('shared.cancel')}
        </Button>
      </div>
      <div role="status">
        {effect.data && <Effects effects={effect.data} />}
        {(effect.error ?? save.error) && <p className="callout bad">{(effect.error ?? save.error)?.message}</p>}
      </div>
    </Form>
  )
}

function Lines({ page, lines, onEdit }: { page: ThresholdPage; lines: Line[]; onEdit: (lines: Line[]) => void }) {
  const { key, unit } = page.threshold
  const put = (line: Line) => onEdit(lines.map((each) => (each.id === line.id ? line : each)))
  return (
    <Scroll label={t('thresholds.values_to_edit')}>
      <Table className="typed">
        <thead>
          <tr>
            {key.map((part) => (
              <th key={part}>{part}</th>
            ))}
            <th>{t('thresholds.from_heading')}</th>
            <th className="num">{t('thresholds.value_heading', { unit: unit && `, ${unit}` })}</th>
            <th>
              <span className="visually-hidden">{t('shared.remove')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map((line, index) => (
            <tr key={line.id}>
              {key.map((part, at) => (
                <td key={part}>
                  <Form.Control
                    size="sm"
                    aria-label={t('thresholds.of_line', { column: part, index: index + 1 })}
                    placeholder={t('thresholds.default')}
                    value={line.key[at] ?? ''}
                    onChange={(event) =>
                      put({ ...line, key: line.key.map((each, i) => (i === at ? event.target.value : each)) })
                    }
                  />
                </td>
              ))}
              <td>
                <Form.Control
                  size="sm"
                  type="date"
                  aria-label={t('thresholds.from_of_line_empty_for', { index: index + 1 })}
                  value={line.from}
                  onChange={(event) => put({ ...line, from: event.target.value })}
                />
              </td>
              <td>
                <Form.Control
                  size="sm"
                  inputMode="decimal"
                  className="num"
                  aria-label={t('thresholds.value_of_line', { index: index + 1 })}
                  value={line.number}
                  onChange={(event) => put({ ...line, number: event.target.value })}
                />
              </td>
              <td>
                <Button
                  size="sm"
                  variant="plain"
                  aria-label={t('thresholds.remove_line', { index: index + 1 })}
                  onClick={() => onEdit(lines.filter((each) => each.id !== line.id))}
                >
                  {t('shared.remove')}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
