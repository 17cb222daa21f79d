import { ColumnTable, type CellColumn } from '../../shared/ColumnTable'
import { cellWords } from '../../shared/words'
import type { Ran } from './api'
import { t } from '../../messages'

const isShort = (text: string | null, type: string | undefined) =>
  (text === null ? 0 : cellWords(text, type).length) <= 18

/** Rows of the result; missing values are marked as missing. */
export function RowsTable({
  query,
  ran,
  most,
  onCell,
}: {
  /** The name of the query, by which the choice of columns is kept. */
  query: string
  ran: Ran
  most: number
  /** If a cell can be pointed at: the place of its column, and its text. */
  onCell?: (column: number, cell: string | null) => void
}) {
  const columns = ran.columns.map(({ name, label, type }, index): CellColumn<Ran['rows'][number]> => ({
    key: name,
    label,
    title: `${name}, ${type}`,
    className: type === 'number' ? 'num' : '',
    cellClass: (row) => (isShort(row[index] ?? null, type) ? 'text-nowrap' : ''),
    cell: (row) => (
      <Cell
        text={row[index] ?? null}
        type={type}
        {...(onCell && {
          action: { name: t('queries.add_condition_on', { label }), onPick: () => onCell(index, row[index] ?? null) },
        })}
      />
    ),
  }))
  return (
    <ColumnTable
      small
      table={`query:${query}`}
      label={t('shared.rows')}
      columns={columns}
      rows={ran.rows.slice(0, most)}
      keyOf={(_, index) => index}
    />
  )
}

type CellAction = { name: string; onPick: () => void }

function Cell({ text, type, action }: { text: string | null; type: string | undefined; action?: CellAction }) {
  const words = text === null ? <span className="quiet">{t('shared.missing')}</span> : cellWords(text, type)
  if (!action) return words
  return (
    <button type="button" className="cell" title={action.name} onClick={action.onPick}>
      {words}
    </button>
  )
}
