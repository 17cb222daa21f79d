import { t } from '../messages'

/** How a day is drawn: a word for its style, the same for those who do not see it, and what happens when it is chosen. */
export type DayLook = { look: 'marked' | 'off' | 'extra' | 'usual'; words: string; chosen?: boolean }

type Props = {
  /** As `2026-11`. */
  month: string
  /** @returns null for a day of which nothing is said */
  day: (date: string) => DayLook | null
  onChoose?: (date: string) => void
}

const monthWords = new Intl.DateTimeFormat(undefined, { timeZone: 'UTC', month: 'long', year: 'numeric' })
const dayWords = new Intl.DateTimeFormat(undefined, { timeZone: 'UTC', weekday: 'long', day: 'numeric', month: 'long' })
const letter = new Intl.DateTimeFormat(undefined, { timeZone: 'UTC', weekday: 'narrow' })
/** 5 January 1970 was a Monday. */
const letters = Array.from({ length: 7 }, (_, weekday) => letter.format(new Date(Date.UTC(1970, 0, 5 + weekday))))

/** One month with what is said of its days; weeks begin on Monday. */
export function Month({ month, day, onChoose }: Props) {
  const first = new Date(`${month}-01T00:00:00Z`)
  const before = (first.getUTCDay() + 6) % 7
  const length = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate()
  return (
    <table className="month">
      <caption>{monthWords.format(first)}</caption>
      <thead aria-hidden="true">
        <tr>
          {letters.map((each, weekday) => (
            <th key={weekday}>{each}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: Math.ceil((before + length) / 7) }, (_, week) => (
          <tr key={week}>
            {Array.from({ length: 7 }, (_, weekday) => {
              const number = week * 7 + weekday - before + 1
              if (number < 1 || number > length) return <td key={weekday} />
              const date = `${month}-${String(number).padStart(2, '0')}`
              return (
                <td key={weekday}>
                  <Day date={date} number={number} seen={day(date)} {...(onChoose && { onChoose })} />
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Day({
  date,
  number,
  seen,
  onChoose,
}: {
  date: string
  number: number
  seen: DayLook | null
  onChoose?: (date: string) => void
}) {
  const look = seen?.look ?? 'usual'
  if (onChoose)
    return (
      <button
        type="button"
        className={`day ${look}`}
        aria-pressed={seen?.chosen ?? false}
        aria-label={t('shared.day_is', {
          day: dayWords.format(new Date(`${date}T00:00:00Z`)),
          what: seen?.words ?? '',
        })}
        title={seen?.words}
        onClick={() => onChoose(date)}
      >
        {number}
      </button>
    )
  if (!seen) return <>{number}</>
  return (
    <span className={`day ${look}`} title={seen.words}>
      {number}
      <span className="visually-hidden"> {seen.words}</span>
    </span>
  )
}

const monthsFrom = (month: string, count: number) => {
  const [year = 0, first = 1] = month.split('-').map(Number)
  return Array.from({ length: count }, (_, i) => new Date(Date.UTC(year, first - 1 + i, 1)).toISOString().slice(0, 7))
}

/** Twelve months from the one given. */
export function Year({ from, ...month }: { from: string } & Omit<Props, 'month'>) {
  return (
    <div className="year">
      {monthsFrom(from, 12).map((each) => (
        <Month key={each} month={each} {...month} />
      ))}
    </div>
  )
}
