import { Form } from 'react-bootstrap'
import { t } from '../../messages'
import { useTyped } from '../../shared/typed'
import { calendarUnits, lengthUnits, type CalendarUnit, type LengthUnit, type Relative, type Window } from './builder'

const units: Record<LengthUnit, string> = {
  minutes: t('editor.unit_minutes'),
  hours: t('editor.unit_hours'),
  days: t('editor.unit_days'),
  weeks: t('editor.unit_weeks'),
  months: t('editor.unit_months'),
}

const calendar: [string, { which: 'this' | 'previous' | 'next'; unit: CalendarUnit }][] = (
  ['this', 'previous', 'next'] as const
)
  .flatMap((which) => calendarUnits.map((unit) => [t(`editor.period_${which}_${unit}`), { which, unit }] as const))
  .map(([words, period]) => [words, period])

/** A date has no hours. */
const unitsOf = (type: string) => lengthUnits.filter((unit) => type !== 'date' || !['minutes', 'hours'].includes(unit))

type CountProps = { name: string; amount: number; least: number; onChange: (amount: number) => void }

/** A whole number; while the field is empty the earlier one stays. */
function Count({ name, amount, least, onChange }: CountProps) {
  const counted = (typed: string) => (/^\d{1,6}$/.test(typed) ? Number(typed) : null)
  const { text, setText, settle } = useTyped({
    value: String(amount),
    reads: (typed) => String(counted(typed) ?? typed),
    onSettled: (typed) => {
      const next = counted(typed)
      if (next !== null && next >= least) onChange(next)
    },
  })
  return (
    <Form.Control
      size="sm"
      type="number"
      min={least}
      className="slot count"
      aria-label={t('editor.how_many', { name })}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={settle}
    />
  )
}

export function LengthFields({
  name,
  type,
  amount,
  unit,
  least,
  onChange,
}: {
  name: string
  type: string
  amount: number
  unit: LengthUnit
  least: number
  onChange: (length: { amount: number; unit: LengthUnit }) => void
}) {
  return (
    <>
      <Count name={name} amount={amount} least={least} onChange={(next) => onChange({ amount: next, unit })} />
      <Form.Select
        size="sm"
        className="slot"
        aria-label={t('editor.unit_of_time', { name })}
        value={unit}
        onChange={(event) =>
          onChange({ amount, unit: lengthUnits.find((each) => each === event.target.value) ?? unit })
        }
      >
        {[...new Set([...unitsOf(type), unit])].map((each) => (
          <option key={each} value={each}>
            {units[each]}
          </option>
        ))}
      </Form.Select>
    </>
  )
}

/** A stretch of time counted from the slot. */
export function WindowFields({
  name,
  window,
  type,
  onChange,
}: {
  name: string
  window: Window
  type: string
  onChange: (window: Window) => void
}) {
  if (window.kind !== 'calendar')
    return (
      <LengthFields
        name={name}
        type={type}
        amount={window.amount}
        unit={window.unit}
        least={1}
        onChange={(length) => onChange({ ...window, ...length })}
      />
    )
  const now = calendar.findIndex(([, each]) => each.which === window.which && each.unit === window.unit)
  return (
    <Form.Select
      size="sm"
      className="slot"
      aria-label={t('editor.period', { name })}
      value={now}
      onChange={(event) => {
        const chosen = calendar[Number(event.target.value)]
        if (chosen) onChange({ kind: 'calendar', ...chosen[1] })
      }}
    >
      {calendar.map(([words], index) => (
        <option key={words} value={index}>
          {words}
        </option>
      ))}
    </Form.Select>
  )
}

/** A time before or after the slot. */
export function RelativeFields({
  name,
  relative,
  type,
  onChange,
}: {
  name: string
  relative: Relative
  type: string
  onChange: (relative: Relative) => void
}) {
  return (
    <>
      <LengthFields
        name={name}
        type={type}
        amount={relative.amount}
        unit={relative.unit}
        least={0}
        onChange={(length) => onChange({ ...relative, ...length })}
      />
      <Form.Select
        size="sm"
        className="slot"
        aria-label={t('editor.before_or_after', { name })}
        value={relative.sign}
        onChange={(event) => onChange({ ...relative, sign: event.target.value === '+' ? '+' : '-' })}
      >
        <option value="-">{t(relative.base === 'today' ? 'editor.before_today' : 'editor.before_the_check')}</option>
        <option value="+">{t(relative.base === 'today' ? 'editor.after_today' : 'editor.after_the_check')}</option>
      </Form.Select>
    </>
  )
}
