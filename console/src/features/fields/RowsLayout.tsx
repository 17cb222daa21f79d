import { Button, Form } from 'react-bootstrap'
import { Choice } from '../../shared/Choice'
import { t } from '../../messages'
import { columnText, movedForward, shownColumns, sortOf, sortText, type Layout } from './layout'
import type { Column, Edits } from './parts'
import { SeverityLooks } from './SeverityLooks'
import { ShownColumns } from './ShownColumns'

const rowsAs = [
  ['', t('editor.rows_as_fits')],
  ['table', t('editor.rows_as_table')],
  ['list', t('editor.rows_as_list')],
  ['figures', t('editor.rows_as_figures')],
] as const
const extras = [
  ['severity', t('shared.severity')],
  ['update', t('editor.extra_update')],
] as const

type Props = { layout: Layout; plain: boolean; columns: Column[]; put: (edits: Edits<Layout>) => void }

/** The columns, their order, groups and totals of the rows of a message or a file. */
export function RowsLayout({ layout, plain, columns, put }: Props) {
  const labelOf = (name: string) => columns.find((column) => column.name === name)?.label ?? name
  const sort = sortOf(layout)
  const groupBy = layout.group_by ?? []
  const extra = layout.extra_columns ?? (layout.fixed ? [] : ['severity', 'update'])
  return (
    <>
      <ShownColumns
        shown={shownColumns(layout)}
        columns={columns}
        labelOf={labelOf}
        onChange={(shown) => put({ columns: shown.map(columnText) })}
      />
      <div className="fields mt-2">
        <Choice
          id="rows-as"
          label={t('editor.rows_in_the_message')}
          value={layout.rows_as}
          options={rowsAs}
          onChange={(as) => put({ rows_as: as })}
        />
        <Chosen
          id="sort"
          label={t('editor.sort_by')}
          nothing={t('editor.sort_usual')}
          chosen={sort.map(({ column }) => column)}
          columns={columns}
          labelOf={labelOf}
          onChange={(chosen) =>
            put({
              sort: chosen.map((column) =>
                sortText(sort.find((each) => each.column === column) ?? { column, descending: false }),
              ),
            })
          }
          aside={(column) => {
            const descending = sort.find((each) => each.column === column)?.descending ?? false
            return (
              <Button
                size="sm"
                variant="plain"
                aria-label={t('editor.sort_turn', { name: labelOf(column) })}
                onClick={() =>
                  put({
                    sort: sort.map((each) =>
                      sortText(each.column === column ? { column, descending: !descending } : each),
                    ),
                  })
                }
              >
                {descending ? t('editor.sort_descending') : t('editor.sort_ascending')}
              </Button>
            )
          }}
        />
        <Chosen
          id="group-by"
          label={t('editor.group_rows_by')}
          nothing={t('shared.none')}
          chosen={groupBy}
          columns={columns}
          labelOf={labelOf}
          onChange={(chosen) => put({ group_by: chosen })}
        />
        <Form.Group controlId="rows-in-mail">
          <Form.Label className="mb-0 small quiet">{t('editor.rows_in_mail')}</Form.Label>
          <Form.Control
            size="sm"
            type="number"
            min={1}
            max={500}
            placeholder={t('editor.rows_in_mail_usual')}
            value={layout.rows_in_mail ?? ''}
            onChange={(event) => put({ rows_in_mail: event.target.value ? Number(event.target.value) : undefined })}
          />
        </Form.Group>
        <Form.Group controlId="sheet">
          <Form.Label className="mb-0 small quiet">{t('editor.sheet')}</Form.Label>
          <Form.Control
            size="sm"
            maxLength={31}
            placeholder={t('editor.sheet_usual')}
            value={layout.sheet ?? ''}
            onChange={(event) => put({ sheet: event.target.value })}
          />
        </Form.Group>
      </div>
      <div className="d-flex flex-wrap gap-3 mt-2">
        {!plain &&
          extras.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`extra-${code}`}
              type="checkbox"
              label={t('editor.extra_column', { name: words })}
              checked={extra.includes(code)}
              onChange={(event) =>
                put({
                  extra_columns: extras
                    .map(([each]) => each)
                    .filter((each) => (each === code ? event.target.checked : extra.includes(each))),
                })
              }
            />
          ))}
        {!plain && (
          <>
            <Form.Check
              id="still-open"
              type="checkbox"
              label={t('editor.still_open')}
              checked={layout.still_open ?? false}
              onChange={(event) => put({ still_open: event.target.checked })}
            />
            <Form.Check
              id="whole-report"
              type="checkbox"
              label={t('editor.whole_report')}
              checked={layout.whole_report ?? false}
              onChange={(event) => put({ whole_report: event.target.checked })}
            />
          </>
        )}
        <Form.Check
          id="fixed"
          type="checkbox"
          label={t('editor.fixed')}
          checked={layout.fixed ?? false}
          onChange={(event) => put({ fixed: event.target.checked, extra_columns: undefined })}
        />
      </div>
      {!plain && <SeverityLooks layout={layout} put={put} />}
    </>
  )
}

/** Some of the columns in an order of their own. */
function Chosen({
  id,
  label,
  nothing,
  chosen,
  columns,
  labelOf,
  onChange,
  aside,
}: {
  id: string
  label: string
  nothing: string
  chosen: string[]
  columns: Column[]
  labelOf: (name: string) => string
  onChange: (chosen: string[]) => void
  aside?: (column: string) => React.ReactNode
}) {
  return (
    <div className="whole">
      <Form.Label htmlFor={id} className="mb-0 small quiet">
        {label}
      </Form.Label>
      <div className="d-flex flex-wrap gap-2">
        {chosen.map((name, index) => (
          <span key={name} className="chosen-column">
            {labelOf(name)}
            {aside?.(name)}
            {index > 0 && (
              <Button
                size="sm"
                variant="plain"
                className="x"
                aria-label={t('editor.move_forward', { name: labelOf(name) })}
                onClick={() => onChange(movedForward(chosen, index))}
              >
                ←
              </Button>
            )}
            <Button
              size="sm"
              variant="plain"
              className="x"
              aria-label={t('editor.remove', { name: labelOf(name) })}
              onClick={() => onChange(chosen.filter((each) => each !== name))}
            >
              ✕
            </Button>
          </span>
        ))}
        <Form.Select
          id={id}
          size="sm"
          className="w-auto"
          value=""
          onChange={(event) => event.target.value && onChange([...chosen, event.target.value])}
        >
          <option value="">{chosen.length === 0 ? nothing : t('editor.add')}</option>
          {columns
            .filter((column) => !chosen.includes(column.name))
            .map((column) => (
              <option key={column.name} value={column.name}>
                {column.label}
              </option>
            ))}
        </Form.Select>
      </div>
    </div>
  )
}
