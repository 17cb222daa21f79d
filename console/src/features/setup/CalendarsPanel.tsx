import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { plural } from '../../shared/words'
import { calendars, type Calendar } from './api'

const short = (day: string) => day.charAt(0) + day.slice(1, 3).toLowerCase()

/** Which days are worked, and which rules go by it. */
export function CalendarsPanel() {
  const all = useQuery(calendars)
  return (
    <section className="sheet">
      <h2>Calendars</h2>
      <Loaded query={all} what="The calendars">
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              No calendars yet. <code>odd import-calendar NAME FILE.ics</code> creates one; rules name it under
              schedule.
            </p>
          ) : (
            <>
              {list.map((calendar) => (
                <One key={calendar.name} calendar={calendar} />
              ))}
            </>
          )
        }
      </Loaded>
    </section>
  )
}

function One({ calendar }: { calendar: Calendar }) {
  const { title, name, week, knownUntil, holidays, periods, rules } = calendar
  const today = new Date().toISOString().slice(0, 10)
  const ahead = holidays.filter(({ date }) => date >= today)
  return (
    <div className="mt-2">
      <strong>{title}</strong> <code>{name}</code>
      <p className="small mb-1">
        {week.map(short).join(', ')}; {plural(holidays.length, 'holiday')}
        {knownUntil ? `, known until ${knownUntil}` : ''}
        {periods.length > 0 && `; ${plural(periods.length, 'period')}`}
      </p>
      {ahead.length > 0 && (
        <p className="small quiet mb-1">
          Next:{' '}
          {ahead
            .slice(0, 3)
            .map((each) => `${each.date} ${each.name}`)
            .join(' · ')}
        </p>
      )}
      <p className="small mb-0">
        Used by{' '}
        {rules.length === 0
          ? 'no rules'
          : rules.map((rule, index) => (
              <span key={rule}>
                {index > 0 && ', '}
                <Link to={`/rules/${rule}`}>{rule}</Link>
              </span>
            ))}
      </p>
    </div>
  )
}
