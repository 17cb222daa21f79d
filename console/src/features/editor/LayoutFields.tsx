import { Button, Form, Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Scroll } from '../../shared/Scroll'
import { t } from '../../messages'
import { layouts, type DeliveryPart } from './api'
import type { Column } from './builder'
import {
  columnText,
  movedForward,
  ownLayout,
  sharedLayout,
  shownColumns,
  sortOf,
  sortText,
  withLayout,
  type Layout,
  type ShownColumn,
} from './layout'
import { edited, type Edits } from './parts'

const rowsAs = [
  ['', t('editor.rows_as_fits')],
  ['table', t('editor.rows_as_table')],
  ['list', t('editor.rows_as_list')],
  ['figures', t('editor.rows_as_figures')],
] as const
const totals = [
  ['', t('editor.total_none')],
  ['sum', t('editor.total_sum')],
  ['average', t('editor.total_average')],
  ['count', t('editor.total_count')],
  ['min', t('editor.total_min')],
  ['max', t('editor.total_max')],
] as const
const extras = [
  ['severity', t('shared.severity')],
  ['update', t('editor.extra_update')],
] as const

type Props = { delivery: DeliveryPart; plain: boolean; columns: Column[]; onChange: (delivery: DeliveryPart) => void }

/** How the rows of the message and its files look: a shared layout, or columns, order and groups of the rule's own. */
export function LayoutFields({ delivery, plain, columns, onChange }: Props) {
  const known = useQuery(layouts)
  const shared = sharedLayout(delivery)
  const layout = ownLayout(delivery)
  const put = (edits: Edits<Layout>) => onChange(withLayout(delivery, edited(layout, edits, ['extra_columns'])))
  const names = [...new Set([...(known.data ?? []), ...(shared ? [shared] : [])])]
  return (
    <fieldset className="mt-3">
      <legend>{t('editor.layout')}</legend>
      <div className="fields">
        <Choice
          id="shared-layout"
          label={t('editor.columns_order_and_groups')}
          value={shared}
          options={[['', t('editor.layout_own')], ...names.map((name): [string, string] => [name, name])]}
          onChange={(name) => onChange(name ? { ...withLayout(delivery, {}), layout: name } : withLayout(delivery, {}))}
        />
        {!shared && (
          <Choice
            id="rows-as"
            label={t('editor.rows_in_the_message')}
            value={layout.rows_as}
            options={rowsAs}
            onChange={(as) => put({ rows_as: as })}
          />
        )}
      </div>
      {!shared && <Own layout={layout} plain={plain} columns={columns} put={put} />}
    </fieldset>
  )
}

type OwnProps = { layout: Layout; plain: boolean; columns: Column[]; put: (edits: Edits<Layout>) => void }

function Own({ layout, plain, columns, put }: OwnProps) {
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
    </>
  )
}

/** The columns that are shown, in their order, each with what differs from the query's. */
function ShownColumns({
  shown,
  columns,
  labelOf,
  onChange,
}: {
  shown: ShownColumn[]
  columns: Column[]
  labelOf: (name: string) => string
  onChange: (shown: ShownColumn[]) => void
}) {
  const set = (index: number, edits: Edits<ShownColumn>) =>
    onChange(shown.map((each, i) => (i === index ? edited(each, edits) : each)))
  return (
    <>
      {shown.length > 0 && (
        <Scroll label={t('editor.layout')}>
          <Table size="sm" className="layout-columns mt-2 mb-1">
            <thead>
              <tr>
                <th>{t('queries.column')}</th>
                <th>{t('editor.heading')}</th>
                <th>{t('queries.format')}</th>
                <th>{t('editor.total')}</th>
                <th>{t('editor.width')}</th>
                <th>
                  <span className="visually-hidden">{t('editor.order')}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.map((each, index) => {
                const name = labelOf(each.column)
                return (
                  <tr key={each.column}>
                    <td>{name}</td>
                    <td>
                      <Form.Control
                        size="sm"
                        aria-label={t('editor.heading_of', { name })}
                        placeholder={name}
                        value={each.label ?? ''}
                        onChange={(event) => set(index, { label: event.target.value })}
                      />
                    </td>
                    <td>
                      <Form.Control
                        size="sm"
                        aria-label={t('queries.format_of', { name })}
                        placeholder={t('editor.format_usual')}
                        value={each.format ?? ''}
                        onChange={(event) => set(index, { format: event.target.value })}
                      />
                    </td>
                    <td>
                      <Form.Select
                        size="sm"
                        aria-label={t('editor.total_of', { name })}
                        value={each.total ?? ''}
                        onChange={(event) =>
                          set(index, { total: totals.find(([code]) => code === event.target.value)?.[0] ?? '' })
                        }
                      >
                        {totals.map(([code, words]) => (
                          <option key={code} value={code}>
                            {words}
                          </option>
                        ))}
                      </Form.Select>
                    </td>
                    <td>
                      <Form.Control
                        size="sm"
                        type="number"
                        min={1}
                        max={200}
                        aria-label={t('editor.width_of', { name })}
                        placeholder={t('editor.width_usual')}
                        value={each.width ?? ''}
                        onChange={(event) =>
                          set(index, { width: event.target.value ? Number(event.target.value) : undefined })
                        }
                      />
                    </td>
                    <td className="text-nowrap">
                      {index > 0 && (
                        <Button
                          size="sm"
                          variant="plain"
                          aria-label={t('editor.move_forward', { name })}
                          onClick={() => onChange(movedForward(shown, index))}
                        >
                          ↑
                        </Button>
                      )}
                      <Button
                        size="sm"
                        variant="plain"
                        aria-label={t('editor.remove', { name })}
                        onClick={() => onChange(shown.filter((_, i) => i !== index))}
                      >
                        ✕
                      </Button>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </Table>
        </Scroll>
      )}
      <Form.Select
        size="sm"
        className="w-auto mt-2"
        aria-label={t('editor.add_a_column')}
        value=""
        onChange={(event) => event.target.value && onChange([...shown, { column: event.target.value }])}
      >
        <option value="">{shown.length === 0 ? t('editor.default_all_columns') : t('editor.add')}</option>
        {columns
          .filter((column) => !shown.some((each) => each.column === column.name))
          .map((column) => (
            <option key={column.name} value={column.name}>
              {column.label}
            </option>
          ))}
      </Form.Select>
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
