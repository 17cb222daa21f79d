import { Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import { cellWords } from '../../shared/words'
import type { Ran } from './api'
import { t } from '../../messages'

const isShort = (text: string | null, type: string | undefined) =>
  (text === null ? 0 : cellWords(text, type).length) <= 18

/** Rows of the result; missing values are marked as missing. */
export function RowsTable({
  ran,
  most,
  onCell,
}: {
  ran: Ran
  most: number
  /** If a cell can be pointed at: the place of its column, and its text. */
  onCell?: (column: number, cell: string | null) => void
}) {
  const align = (index: number) => (ran.columns[index]?.type === 'number' ? 'num' : '')
  return (
    <Scroll label={t('shared.rows')}>
      <Table size="sm">
        <thead>
          <tr>
            {ran.columns.map((column, index) => (
              <th key={column.name} className={align(index)} title={`${column.name}, ${column.type}`}>
                {column.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ran.rows.slice(0, most).map((row, number) => (
            <tr key={number}>
              {row.map((cell, index) => (
                <td
                  key={index}
                  className={isShort(cell, ran.columns[index]?.type) ? `${align(index)} text-nowrap` : align(index)}
                >
                  <Cell
                    text={cell}
                    type={ran.columns[index]?.type}
                    {...(onCell && {
                      action: {
                        name: t('queries.add_condition_on', { label: ran.columns[index]?.label ?? '' }),
                        onPick: () => onCell(index, cell),
                      },
                    })}
                  />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
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
