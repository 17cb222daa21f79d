import { lazy, Suspense } from 'react'
import { Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import type { MemoryPart, RuleDocument, Seen } from './api'
import { edited, type Edits, type Column } from '../fields/parts'
import { rich, t } from '../../messages'

const SettingsEffect = lazy(() => import('./SettingsEffect').then(({ SettingsEffect: panel }) => ({ default: panel })))

const kinds = [
  ['new', t('editor.report_new')],
  ['returned', t('editor.report_returned')],
  ['worsened', t('editor.report_worsened')],
  ['improved', t('editor.report_improved')],
  ['changed', t('editor.changed_watched_columns')],
  ['cleared', t('editor.report_cleared')],
  ['moved', t('editor.moved_to_another_audience')],
] as const

type Props = {
  memory: MemoryPart
  columns: Column[]
  per: string[] | undefined
  onChange: (memory: MemoryPart) => void
}

/** What identifies a finding, and which updates are reported. */
export function MemoryStep({ memory, columns, per, onChange }: Props) {
  const put = (edits: Edits<MemoryPart>) => onChange(edited(memory, edits))
  const toggle = (list: string[] | undefined, value: string, is: boolean) =>
    is ? [...(list ?? []), value] : (list ?? []).filter((each) => each !== value)
  const incremental = memory.mode !== 'full'
  if (memory.mode === 'plain') return <p className="callout mt-2 mb-0">{t('editor.plain_remembers_nothing')}</p>
  return (
    <>
      {per ? (
        <p className="callout mt-3 mb-0">
          {per.length === 0
            ? t('editor.the_whole_result_is_one')
            : t('editor.one_finding_per_group', { per: per.join(', ') })}
        </p>
      ) : (
        <fieldset className="mt-3">
          <legend>{t('editor.key_columns_rows_with_the')}</legend>
          <div className="d-flex flex-wrap gap-3">
            {columns.map((column) => (
              <Form.Check
                key={column.name}
                id={`key-${column.name}`}
                type="checkbox"
                label={column.label}
                checked={memory.key?.includes(column.name) ?? false}
                onChange={(event) => put({ key: toggle(memory.key, column.name, event.target.checked) })}
              />
            ))}
          </div>
          {incremental && (memory.key ?? []).length === 0 && (
            <p className="small problem-text mt-1 mb-0">{t('editor.select_the_columns_that_identify')}</p>
          )}
        </fieldset>
      )}
      {incremental && (
        <fieldset className="mt-3">
          <legend>{t('editor.report_a_finding_when_it')}</legend>
          {kinds.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`report-${code}`}
              type="checkbox"
              label={words}
              checked={memory.report?.includes(code) ?? false}
              onChange={(event) =>
                put({
                  report: kinds
                    .map(([each]) => each)
                    .filter((each) => (each === code ? event.target.checked : memory.report?.includes(each))),
                })
              }
            />
          ))}
          {memory.report?.includes('changed') && (
            <Form.Group controlId="watch" className="mt-2">
              <Form.Label className="mb-0 small quiet">{t('editor.watched_columns_comma_separated')}</Form.Label>
              <Form.Control
                size="sm"
                key={memory.watch?.join()}
                defaultValue={memory.watch?.join(', ') ?? ''}
                onBlur={(event) =>
                  put({
                    watch: event.target.value
                      .split(',')
                      .map((each) => each.trim())
                      .filter(Boolean),
                  })
                }
              />
            </Form.Group>
          )}
        </fieldset>
      )}
      <div className="fields">
        <Choice
          id="first-check"
          label={t('editor.first_check')}
          value={memory.first_check ?? 'report'}
          options={[
            ['report', t('editor.reports_existing_exceptions')],
            ['treat_as_known', t('editor.treats_existing_exceptions_as_known')],
          ]}
          onChange={(first_check) => put({ first_check })}
        />
        <Choice
          id="absence"
          label={t('editor.when_a_finding_is_no')}
          value={memory.absence}
          options={[
            ['', t('editor.automatic')],
            ['clears', t('editor.it_clears')],
            ['ages_out', t('editor.it_ages_out_left_the')],
            ['stays_open', t('editor.it_stays_open')],
          ]}
          onChange={(absence) => put({ absence })}
        />
        <Form.Group controlId="open-after">
          <Form.Label className="mb-0 small quiet">{t('shared.open_after')}</Form.Label>
          <Form.Control
            size="sm"
            value={memory.open_after ?? ''}
            placeholder={t('editor.immediately_or_3_checks_2')}
            onChange={(event) => put({ open_after: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="clear-after">
          <Form.Label className="mb-0 small quiet">{t('shared.clear_after')}</Form.Label>
          <Form.Control
            size="sm"
            value={memory.clear_after ?? ''}
            placeholder={t('editor.immediately_or_3_checks_2')}
            onChange={(event) => put({ clear_after: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="remind">
          <Form.Label className="mb-0 small quiet">{t('editor.remind_every')}</Form.Label>
          <Form.Control
            size="sm"
            value={memory.remind_every ?? ''}
            placeholder={t('editor.never_or_3_days')}
            onChange={(event) => put({ remind_every: event.target.value })}
          />
        </Form.Group>
      </div>
    </>
  )
}

/** What the memory makes of the exceptions of now. */
export function MemoryEffect({
  document,
  seen,
  columns,
}: {
  document: RuleDocument
  seen: Seen | undefined
  columns: Column[]
}) {
  const memory = document.memory ?? {}
  if (memory.mode === 'plain') return <p className="quiet mb-0">{t('editor.plain_each_check')}</p>
  const labels = (memory.key ?? []).map((name) => columns.find((column) => column.name === name)?.label ?? name)
  return (
    <>
      {memory.mode === 'full' ? (
        <p className="sentence-of">{t('editor.each_check_reports_all_open')}</p>
      ) : (
        labels.length > 0 && (
          <p className="sentence-of">{t('editor.rows_with_the_same_are', { labels: labels.join(', ') })}</p>
        )
      )}
      {seen ? (
        <p className="mb-1">
          {rich('editor.exception_now_a_check_now', {
            strong: (inner) => <strong>{inner}</strong>,
            exceptions: seen.exceptions,
            strong2: (inner) => <strong>{inner}</strong>,
            wouldReport: seen.wouldReport,
            why:
              seen.exceptions > seen.wouldReport &&
              memory.mode !== 'full' &&
              t('editor.the_others_were_reported_earlier'),
          })}
        </p>
      ) : (
        <p className="quiet mb-1">{t('editor.see_the_preview_under_conditions')}</p>
      )}
      <p className="small quiet mb-0">{t('editor.previews_do_not_change_the')}</p>
      <Suspense fallback={null}>
        <SettingsEffect document={document} />
      </Suspense>
    </>
  )
}
