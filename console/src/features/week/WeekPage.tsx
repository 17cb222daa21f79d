import { Fragment, useState } from 'react'
import { Button, ButtonGroup, Table } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { numberWords } from '../../shared/words'
import { ownZone, weekOf, type Hour, type Week } from './api'
import { cellsOf, daysAfter, keyOf, levelOf, mondayOf, sumOf, type Cell } from './week'
import { t } from '../../messages'

const measures = [
  ['checks', t('week.checks')],
  ['seconds', t('week.time_of_checks')],
  ['messages', t('week.messages_usually')],
] as const
type Measure = (typeof measures)[number][0]

const valueOf: Record<Measure, (hour: Hour) => number> = {
  checks: ({ checks }) => checks,
  seconds: ({ seconds }) => seconds,
  messages: ({ messages }) => messages,
}

/** A time in the least unit that says something; less than half a second is nothing to speak of. */
const secondsWords = (seconds: number) =>
  seconds < 0.5
    ? t('week.under_a_second')
    : seconds < 90
      ? t('week.seconds', { count: Math.round(seconds) })
      : t('week.minutes', { count: Math.round(seconds / 60) })

const mostRules = 50
const hoursOfDay = Array.from({ length: 24 }, (_, hour) => hour)
const clock = (hour: number) => `${String(hour).padStart(2, '0')}:00`

const dayWords = (day: string) =>
  new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(
    new Date(`${day}T00:00:00Z`),
  )

/** When the checks of a week are, and how much there is to do in each hour. */
export function WeekPage() {
  useTitle(t('week.title'))
  const zone = ownZone()
  const [search, setSearch] = useSearchParams()
  const present = mondayOf(new Date(), zone)
  const asked = search.get('first') ?? ''
  const first = /^\d{4}-\d{2}-\d{2}$/.test(asked) ? asked : present
  const week = useQuery(weekOf(first, zone))
  const go = (to: string) => setSearch(to === present ? {} : { first: to })
  return (
    <>
      <div className="head">
        <h1>{t('week.title')}</h1>
        <ButtonGroup aria-label={t('week.which')}>
          <Button variant="plain" onClick={() => go(daysAfter(first, -7))}>
            {t('week.earlier')}
          </Button>
          <Button variant="plain" disabled={first === present} onClick={() => go(present)}>
            {t('week.this_week')}
          </Button>
          <Button variant="plain" onClick={() => go(daysAfter(first, 7))}>
            {t('week.later')}
          </Button>
        </ButtonGroup>
      </div>
      <p className="quiet">{t('week.what_it_is', { zone })}</p>
      <Loaded query={week} what={t('loading.the_week')}>
        {(data) => <Hours week={data} first={first} zone={zone} />}
      </Loaded>
    </>
  )
}

function Hours({ week, first, zone }: { week: Week; first: string; zone: string }) {
  const [measure, setMeasure] = useState<Measure>('checks')
  const [chosen, setChosen] = useState<string | null>(null)
  const cells = cellsOf(week.hours, zone)
  const of = valueOf[measure]
  const values = [...cells.values()].map(({ hours }) => sumOf(hours, of)).filter((value) => value > 0)
  const [lowest, highest] = [Math.min(...values), Math.max(...values)]
  const days = Array.from({ length: 7 }, (_, day) => daysAfter(first, day))
  const words = (value: number) =>
    measure === 'seconds' ? secondsWords(value) : numberWords(Math.round(value * 10) / 10)
  const cell = chosen === null ? undefined : cells.get(chosen)
  return (
    <>
      <section className="sheet">
        <div className="d-flex flex-wrap gap-3 align-items-end mb-2">
          <Choice
            id="week-measure"
            label={t('week.shown')}
            value={measure}
            options={measures}
            onChange={(next) => next !== '' && setMeasure(next)}
          />
          <p className="small quiet mb-1">
            {t('week.in_all', {
              checks: numberWords(sumOf(week.hours, valueOf.checks)),
              time: secondsWords(sumOf(week.hours, valueOf.seconds)),
              messages: numberWords(Math.round(sumOf(week.hours, valueOf.messages))),
            })}
          </p>
        </div>
        <div className="week-hours" role="group" aria-label={t('week.hours')}>
          <span />
          {days.map((day) => (
            <span key={day} className="day">
              {dayWords(day)}
            </span>
          ))}
          {hoursOfDay.map((hour) => (
            <Fragment key={hour}>
              <span className="hour">{clock(hour)}</span>
              {days.map((day) => {
                const key = keyOf(day, hour)
                const found = cells.get(key)
                const value = found ? sumOf(found.hours, of) : 0
                const label = t('week.cell', { day: dayWords(day), hour: clock(hour), value: words(value) })
                if (!found) return <span key={key} className="none" title={t('week.no_such_hour')} />
                return (
                  <button
                    key={key}
                    type="button"
                    className={`level-${levelOf(value, lowest, highest)}`}
                    aria-label={label}
                    aria-pressed={chosen === key}
                    onClick={() => setChosen(chosen === key ? null : key)}
                  >
                    {value > 0 ? (measure === 'seconds' ? secondsWords(value) : words(value)) : ''}
                  </button>
                )
              })}
            </Fragment>
          ))}
        </div>
      </section>
      {cell && <Rules cell={cell} zone={zone} />}
    </>
  )
}

/** The rules that are checked in an hour. */
function Rules({ cell, zone }: { cell: Cell; zone: string }) {
  const rules = cell.hours.flatMap((hour) => hour.rules)
  const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone })
  return (
    <section className="sheet" aria-live="polite">
      <h2>{t('week.rules_of_hour', { day: dayWords(cell.day), hour: clock(cell.hour) })}</h2>
      {rules.length === 0 ? (
        <p className="mb-0">{t('week.no_checks')}</p>
      ) : (
        <Table className="mb-0">
          <thead>
            <tr>
              <th>{t('shared.rule')}</th>
              <th>{t('week.first_at')}</th>
              <th className="num">{t('week.checks')}</th>
            </tr>
          </thead>
          <tbody>
            {rules.slice(0, mostRules).map((rule, index) => (
              <tr key={index}>
                <td>
                  <Link to={`/rules/${rule.rule}`}>{rule.title || rule.rule}</Link>
                </td>
                <td>{time.format(new Date(rule.at))}</td>
                <td className="num">{rule.checks}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {rules.length > mostRules && (
        <p className="small quiet mt-2 mb-0">{t('week.more_rules', { count: rules.length - mostRules })}</p>
      )}
    </section>
  )
}
