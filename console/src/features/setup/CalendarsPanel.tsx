import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { RuleLinks } from '../../shared/RuleLinks'
import { calendars, type Calendar } from './api'
import { t } from '../../messages'

const short = (day: string) => day.charAt(0) + day.slice(1, 3).toLowerCase()

/** Which days are worked, and which rules go by it. */
export function CalendarsPanel() {
  const all = useQuery(calendars)
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('setup.calendars')}</h2>
        <Link className="btn btn-plain btn-sm" to="/calendars/new">
          {t('calendars.new_calendar')}
        </Link>
      </div>
      <Loaded query={all} what={t('loading.the_calendars')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('setup.no_calendars_yet')}</p>
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
      <Link to={`/calendars/${name}`}>
        <strong>{title}</strong>
      </Link>{' '}
      <code>{name}</code>
      <p className="small mb-1">
        {week.map(short).join(', ')}; {t('setup.holiday', { holidays: holidays.length })}
        {knownUntil ? t('setup.known_until', { knownUntil }) : ''}
        {periods.length > 0 && t('setup.period', { periods: periods.length })}
      </p>
      {ahead.length > 0 && (
        <p className="small quiet mb-1">
          {t('setup.next', {
            ahead: ahead
              .slice(0, 3)
              .map((each) => `${each.date} ${each.name}`)
              .join(' · '),
          })}
        </p>
      )}
      <p className="small mb-0">
        {t('shared.used_by')} <RuleLinks rules={rules} />
      </p>
    </div>
  )
}
