import { Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import { cellWords } from '../../shared/words'
import type { Ran } from './api'
import { t } from '../../messages'

const isShort = (text: string | null, type: string | undefined) =>
  (text === null ? 0 : cellWords(text, type).length) <= 18

/** Rows of the result; missing values are marked as missing. */
export function RowsTable({ ran, most }: { ran: Ran; most: number }) {
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
                  {cell === null ? (
                    <span className="quiet">{t('shared.missing')}</span>
                  ) : (
                    cellWords(cell, ran.columns[index]?.type)
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
