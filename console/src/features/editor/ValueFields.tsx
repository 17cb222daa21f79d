import { useId, useState } from 'react'
import { Form } from 'react-bootstrap'
import { t } from '../../messages'
import { useTyped } from '../../shared/typed'
import { numberWords } from '../../shared/words'
import { isMoment, listed, listText, literal, unquoted } from './builder'
import { useOffers, type Offers } from './offers'

type ValueProps = {
  name: string
  text: string
  type: string
  /** Whose values are offered; null for none. */
  column?: string | null
  onChange: (text: string) => void
}

/** One value of a column's type, typed without quotes, or chosen from those that the column has now. */
export function Value({ name, text, type, column = null, onChange }: ValueProps) {
  if (type === 'truth') return <Truth name={name} text={text} onChange={onChange} />
  const kind = momentInput(type, text)
  const shown = kind === 'datetime-local' ? inputOf(unquoted(text)) : unquoted(text)
  const settled = (typed: string) => literal(kind === 'datetime-local' ? momentOf(typed) : typed, type)
  return (
    <Written
      name={name}
      className={kind === 'text' ? 'slot value' : 'slot'}
      kind={kind}
      value={shown}
      column={column}
      reads={(typed) => (kind === 'datetime-local' ? inputOf(momentOf(typed)) : unquoted(literal(typed, type)))}
      onSettled={(typed) => (typed.trim() !== '' || type === 'text') && onChange(settled(typed))}
    />
  )
}

type Kind = 'date' | 'datetime-local' | 'text'

/** A calendar for a date as it is written; what is calculated, or has seconds, is a text. */
function momentInput(type: string, text: string): Kind {
  if (!isMoment(type) || !/^\d{4}-\d{2}-\d{2}( \d{2}:\d{2})?$/.test(unquoted(text))) return 'text'
  return type === 'date' ? 'date' : 'datetime-local'
}

const inputOf = (moment: string) => (moment.includes(' ') ? moment.replace(' ', 'T') : `${moment}T00:00`)

/** Midnight is the date alone. */
const momentOf = (typed: string) => typed.replace(/T00:00$/, '').replace('T', ' ')

function Truth({ name, text, onChange }: Pick<ValueProps, 'name' | 'text' | 'onChange'>) {
  return (
    <Form.Select
      size="sm"
      className="slot"
      aria-label={name}
      value={text === 'false' ? 'false' : 'true'}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="true">{t('editor.true')}</option>
      <option value="false">{t('editor.false')}</option>
    </Form.Select>
  )
}

type ValuesProps = Omit<ValueProps, 'text' | 'onChange'> & { options: string[]; onChange: (options: string[]) => void }

/** Values of a column's type with commas between. */
export function Values({ name, options, type, column = null, onChange }: ValuesProps) {
  const settle = (typed: string) => {
    const next = listed(typed, type)
    if (next.length > 0) onChange(next)
  }
  return (
    <Written
      name={name}
      className="slot values"
      kind="text"
      several
      value={listText(options)}
      column={column}
      reads={(typed) => listText(listed(typed, type))}
      onSettled={settle}
    />
  )
}

type WrittenProps = {
  name: string
  className: string
  kind: Kind
  several?: boolean
  value: string
  column: string | null
  reads: (typed: string) => string
  onSettled: (typed: string) => void
}

/** Counts while it is typed, whenever typing pauses; at once where the field is left or Enter is pressed. */
function Written({ name, className, kind, several = false, value, column, reads, onSettled }: WrittenProps) {
  const { text, setText, settle } = useTyped({ value, onSettled, reads })
  const [asked, setAsked] = useState(false)
  const id = useId()
  const offers = useOffers(column, asked && kind === 'text').data
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (event.key !== 'Enter') return
    event.preventDefault()
    settle()
  }
  const before = several && text.includes(',') ? `${text.slice(0, text.lastIndexOf(','))}, ` : ''
  return (
    <>
      <Form.Control
        size="sm"
        type={kind}
        className={className}
        aria-label={name}
        list={offers ? `${id}-offers` : undefined}
        autoComplete="off"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onFocus={() => setAsked(true)}
        onBlur={settle}
        onKeyDown={onKeyDown}
      />
      {offers && <Offered id={`${id}-offers`} offers={offers} before={before} several={several} />}
    </>
  )
}

/** The column's values, most frequent first; in a list they follow what is there already. */
function Offered({ id, offers, before, several }: { id: string; offers: Offers; before: string; several: boolean }) {
  return (
    <datalist id={id}>
      {offers.values.map(({ text, label, rows }) => (
        <option key={text} value={before + (several && text.includes(',') ? literal(text, 'text') : text)}>
          {t('editor.offered_value', { label, rows: numberWords(rows) })}
        </option>
      ))}
    </datalist>
  )
}
