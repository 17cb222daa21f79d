import { useState } from 'react'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Month, Year, type DayLook } from '../../shared/Month'
import { useSettled } from '../../shared/settled'
import { numberWords } from '../../shared/words'
import { datesOfSchedule, type Dates } from '../setup/api'
import type { Times } from './parts'
import { t } from '../../messages'

/** The most that the service lists at once. */
const MOST_DATES = 1000

/** The next dates in words, as a list, in small months, and for a year. */
export function NextDates({
  schedule,
  zone,
  otherwise = t('editor.it_is_checked_only_on'),
}: {
  schedule: Times
  zone: string
  /** What is said of a schedule without times. */
  otherwise?: string
}) {
  const settled = useSettled(JSON.stringify({ schedule, zone }), 400)
  const asked = JSON.parse(settled) as { schedule: Times; zone: string }
  const has =
    (asked.schedule.recur ?? []).length > 0 ||
    (asked.schedule['working_days'] ?? []).length > 0 ||
    (asked.schedule.also ?? []).length > 0
  const found = useQuery({ ...datesOfSchedule(asked.schedule, asked.zone), enabled: has })
  if (!has) return <p className="quiet mb-0">{otherwise}</p>
  return (
    <Loaded query={found} what={t('loading.next_checks')}>
      {(dates) => (
        <>
          <Shown dates={dates} />
          <WholeYear schedule={asked.schedule} zone={asked.zone} />
        </>
      )}
    </Loaded>
  )
}

/** The dates of the next twelve months, asked for when they are opened. */
function WholeYear({ schedule, zone }: { schedule: Times; zone: string }) {
  const [open, setOpen] = useState(false)
  const found = useQuery({ ...datesOfSchedule(schedule, zone, MOST_DATES), enabled: open })
  return (
    <details className="mt-2" open={open} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{t('fields.the_next_twelve_months')}</summary>
      {open && (
        <Loaded query={found} what={t('loading.next_checks')}>
          {(dates) => {
            const days = daysOf(dates)
            const last = dates.slots.at(-1)?.local.slice(0, 10)
            return (
              <>
                <Year
                  from={dates.slots[0]?.local.slice(0, 7) ?? new Date().toISOString().slice(0, 7)}
                  day={(date) => (days.has(date) ? marked : null)}
                />
                {!dates.ends && dates.slots.length === MOST_DATES && last && (
                  <p className="small quiet mb-0">
                    {t('fields.dates_up_to', { count: numberWords(MOST_DATES), last: dayWords.format(asDay(last)) })}
                  </p>
                )}
              </>
            )
          }}
        </Loaded>
      )}
    </details>
  )
}

const asDay = (local: string) => new Date(`${local.slice(0, 10)}T00:00:00Z`)
const dayWords = new Intl.DateTimeFormat(undefined, {
  timeZone: 'UTC',
  weekday: 'short',
  day: 'numeric',
  month: 'short',
})

const marked: DayLook = { look: 'marked', words: t('editor.a_check') }

const daysOf = (dates: Dates) => new Set(dates.slots.map(({ local }) => local.slice(0, 10)))

function Shown({ dates }: { dates: Dates }) {
  const days = daysOf(dates)
  const months = [...new Set(dates.slots.map(({ local }) => local.slice(0, 7)))].slice(0, 2)
  return (
    <>
      <p className="sentence-of mb-2">
        {dates.schedule.charAt(0).toUpperCase() + dates.schedule.slice(1)} ({dates.zone}).
      </p>
      {dates.warnings.map((warning) => (
        <p key={warning} className="small mb-1">
          {t('shared.warning_sentence', { warning })}
        </p>
      ))}
      {dates.slots.length === 0 ? (
        <p className="problem-text">{t('editor.no_further_checks_the_schedule')}</p>
      ) : (
        <div className="d-flex flex-wrap gap-3 align-items-start">
          <ol className="small list-unstyled mb-0">
            {dates.slots.slice(0, 6).map(({ slot, local }) => (
              <li key={slot}>
                {dayWords.format(asDay(local))} {local.slice(11, 16)}
              </li>
            ))}
          </ol>
          {months.map((month) => (
            <Month key={month} month={month} day={(date) => (days.has(date) ? marked : null)} />
          ))}
        </div>
      )}
      {dates.ends && <p className="small quiet mb-0">{t('shared.the_schedule_ends_here')}</p>}
    </>
  )
}
