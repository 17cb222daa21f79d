import { useRef, useState, type CSSProperties, type KeyboardEvent, type PointerEvent } from 'react'
import { Button, Form } from 'react-bootstrap'
import type { Columns } from './columns'
import { narrowest, widest } from './columns'
import { t } from '../messages'

/** Which columns are shown: a list to tick, with a field to find one among hundreds. */
export function ColumnChoice({ columns }: { columns: Columns }) {
  const [open, setOpen] = useState(false)
  const [sought, setSought] = useState('')
  const shown = columns.shown.map(({ key }) => key)
  const words = sought.trim().toLowerCase()
  const found = columns.all.filter(({ key, label }) => `${label} ${key}`.toLowerCase().includes(words))
  return (
    <div className="column-choice">
      <Button size="sm" variant="plain" aria-expanded={open} onClick={() => setOpen(!open)}>
        {shown.length === columns.all.length
          ? t('columns.columns')
          : t('columns.columns_shown', { shown: shown.length, all: columns.all.length })}
      </Button>
      {open && (
        <div
          className="sheet column-list"
          role="group"
          aria-label={t('columns.columns')}
          onKeyDown={(event) => event.key === 'Escape' && setOpen(false)}
        >
          {columns.all.length > 12 && (
            <Form.Control
              size="sm"
              aria-label={t('columns.find')}
              placeholder={t('columns.find')}
              value={sought}
              onChange={(event) => setSought(event.target.value)}
            />
          )}
          <div className="d-flex gap-2 my-2">
            <Button
              size="sm"
              variant="plain"
              onClick={() => columns.show([...new Set([...shown, ...found.map(({ key }) => key)])])}
            >
              {t('columns.show_all')}
            </Button>
            <Button
              size="sm"
              variant="plain"
              onClick={() => columns.show(shown.filter((key) => !found.some((each) => each.key === key)))}
            >
              {t('columns.hide_all')}
            </Button>
            {columns.isChanged && (
              <Button size="sm" variant="plain" onClick={columns.reset}>
                {t('columns.reset')}
              </Button>
            )}
          </div>
          <ul>
            {found.map(({ key, label }) => (
              <li key={key}>
                <Form.Check
                  id={`column-${key}`}
                  label={label}
                  checked={shown.includes(key)}
                  disabled={shown.length === 1 && shown[0] === key}
                  onChange={(event) =>
                    columns.show(event.target.checked ? [...shown, key] : shown.filter((each) => each !== key))
                  }
                />
              </li>
            ))}
          </ul>
          {columns.error && <p className="problem-text small mb-0">{columns.error.message}</p>}
        </div>
      )}
    </div>
  )
}

/** The width of the cells of a column; nothing for one that is as wide as its text. */
export function widthStyle(columns: Columns, key: string): CSSProperties | undefined {
  const width = columns.widthOf(key)
  return width === undefined
    ? undefined
    : { width, minWidth: width, maxWidth: width, overflow: 'hidden', textOverflow: 'ellipsis' }
}

const step = 16

/** A heading whose right edge is pulled by mouse, finger or arrow keys. */
export function ColumnHeading({
  columns,
  of,
  label,
  className,
  title,
}: {
  columns: Columns
  of: string
  label: string
  className?: string
  title?: string
}) {
  const heading = useRef<HTMLTableCellElement>(null)
  const from = useRef<{ x: number; width: number } | null>(null)
  const present = () => heading.current?.getBoundingClientRect().width ?? narrowest
  const asked = (event: PointerEvent) => (from.current ? from.current.width + event.clientX - from.current.x : 0)
  const byKey = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -step, ArrowRight: step }[event.key]
    if (by === undefined) return
    event.preventDefault()
    columns.resize(of, present() + by)
  }
  return (
    <th ref={heading} className={`resizable ${className ?? ''}`} style={widthStyle(columns, of)} title={title}>
      {label}
      <span
        role="separator"
        aria-orientation="vertical"
        aria-label={t('columns.width_of', { label })}
        aria-valuemin={narrowest}
        aria-valuemax={widest}
        aria-valuenow={columns.widthOf(of) ?? narrowest}
        tabIndex={0}
        onKeyDown={byKey}
        onPointerDown={(event) => {
          event.preventDefault()
          event.currentTarget.setPointerCapture(event.pointerId)
          from.current = { x: event.clientX, width: present() }
        }}
        onPointerMove={(event) => from.current && columns.pull(of, asked(event))}
        onPointerUp={(event) => {
          if (from.current && event.clientX !== from.current.x) columns.resize(of, asked(event))
          from.current = null
        }}
      />
    </th>
  )
}
