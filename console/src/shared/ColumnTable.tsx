import type { ReactNode } from 'react'
import { Table } from 'react-bootstrap'
import { useColumns, type Column } from './columns'
import { ColumnChoice, ColumnHeading, widthStyle } from './ColumnTools'
import { Scroll } from './Scroll'

export type CellColumn<T> = Column & {
  className?: string
  /** More of the column for those who point at its heading. */
  title?: string
  /** Whether cells on a narrow screen are without the heading of their column. */
  plain?: boolean
  cell: (row: T, index: number) => ReactNode
  /** Besides that of the column. */
  cellClass?: (row: T) => string
}

type Props<T> = {
  /** What the person's choice of columns is kept by. */
  table: string
  label: string
  columns: CellColumn<T>[]
  rows: T[]
  keyOf: (row: T, index: number) => string | number
  /** The cell before all others, such as a box to select the row, with its heading. */
  lead?: { heading: ReactNode; cell: (row: T) => ReactNode }
  /** On a narrow screen each row is a card. */
  cards?: boolean
  small?: boolean
  /** Beside the choice of columns. */
  above?: ReactNode
}

/** A table whose columns each person chooses, and whose headings stay in view. */
export function ColumnTable<T>({ table, label, columns, rows, keyOf, lead, cards, small, above }: Props<T>) {
  const chosen = useColumns(table, columns)
  const shown = columns.filter(({ key }) => chosen.isShown(key))
  return (
    <>
      <div className="d-flex flex-wrap gap-2 justify-content-between align-items-start mb-1">
        <div>{above}</div>
        <ColumnChoice columns={chosen} />
      </div>
      <Scroll label={label} height="tall">
        <Table className={cards ? 'cards' : ''} {...(small ? { size: 'sm' } : {})}>
          <thead>
            <tr>
              {lead?.heading}
              {shown.map(({ key, label: heading, className, title }) => (
                <ColumnHeading
                  key={key}
                  columns={chosen}
                  of={key}
                  label={heading}
                  {...(className ? { className } : {})}
                  {...(title ? { title } : {})}
                />
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, index) => (
              <tr key={keyOf(row, index)}>
                {lead?.cell(row)}
                {shown.map(({ key, label: heading, className, plain, cell, cellClass }) => (
                  <td
                    key={key}
                    className={`${className ?? ''} ${cellClass?.(row) ?? ''}`.trim()}
                    style={widthStyle(chosen, key)}
                    data-label={plain ? undefined : heading}
                  >
                    {cell(row, index)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
    </>
  )
}
