import { Button, Form, Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import { t } from '../../messages'
import { movedForward, type ShownColumn } from './layout'
import { edited, type Column, type Edits } from './parts'

const totals = [
  ['', t('editor.total_none')],
  ['sum', t('editor.total_sum')],
  ['average', t('editor.total_average')],
  ['count', t('editor.total_count')],
  ['min', t('editor.total_min')],
  ['max', t('editor.total_max')],
] as const

/** The columns that are shown, in their order, each with what differs from the query's. */
export function ShownColumns({
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
