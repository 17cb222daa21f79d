import { useState } from 'react'
import { Button, ButtonGroup, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { useSettled } from '../../shared/settled'
import { calendars, datesOfSchedule, type Dates } from '../setup/api'
import type { SchedulePart } from './api'
import { edited, type Edits } from './parts'
import { RhythmFields } from './RhythmFields'
import { choiceOf, scheduleOf, usual, withRhythm, type Choice as Rhythm } from './recurrence'
import { rich, t } from '../../messages'

const holidays = [
  ['', t('shared.check_anyway')],
  ['next_working_day', t('shared.move_to_the_next_working')],
  ['previous_working_day', t('shared.move_to_the_previous_working')],
  ['skip', t('shared.holiday_skip')],
] as const

type Props = { schedule: SchedulePart; zone: string; onChange: (schedule: SchedulePart) => void }

/** When it looks: chosen from the usual rhythms, or written as a recurrence; either shows the other. */
export function ScheduleStep({ schedule, zone, onChange }: Props) {
  const all = useQuery(calendars)
  const choice = choiceOf(schedule)
  const [written, setWritten] = useState(choice === null && (schedule.recur ?? []).length > 0)
  const put = (edits: Edits<SchedulePart>) => onChange(edited(schedule, edits))
  const choose = (next: Rhythm) => put(scheduleOf(next, schedule.start))
  return (
    <>
      <ButtonGroup size="sm" className="mt-2" aria-label={t('editor.schedule_form')}>
        <Button variant={written ? 'plain' : 'primary'} aria-pressed={!written} onClick={() => setWritten(false)}>
          {t('shared.choose')}
        </Button>
        <Button variant={written ? 'primary' : 'plain'} aria-pressed={written} onClick={() => setWritten(true)}>
          {t('editor.write_a_recurrence')}
        </Button>
      </ButtonGroup>
      {written ? (
        <div className="fields">
          <Form.Group controlId="recur" className="whole">
            <Form.Label className="mb-0 small quiet">{t('editor.recurrence_rfc_5545_one_a')}</Form.Label>
            <Form.Control
              as="textarea"
              rows={Math.max(2, schedule.recur?.length ?? 1)}
              className="font-monospace"
              spellCheck={false}
              value={(schedule.recur ?? []).join('\n')}
              onChange={(event) => put({ recur: event.target.value.split('\n').filter((line) => line.trim() !== '') })}
            />
          </Form.Group>
          <Form.Group controlId="start">
            <Form.Label className="mb-0 small quiet">{t('editor.first_check_local_time')}</Form.Label>
            <Form.Control
              size="sm"
              type="datetime-local"
              value={schedule.start ?? ''}
              onChange={(event) => put({ start: event.target.value })}
            />
          </Form.Group>
        </div>
      ) : choice === null && (schedule.recur ?? []).length > 0 ? (
        <p className="callout mt-2">
          {rich('editor.this_schedule_has_settings_the', {
            code: (inner) => <code>{inner}</code>,
            recur: schedule.recur?.join('; '),
          })}{' '}
          <Button size="sm" variant="plain" onClick={() => choose(withRhythm(usual(), 'week'))}>
            {t('editor.choose_another')}
          </Button>
        </p>
      ) : (
        <RhythmFields choice={choice ?? usual()} onChange={choose} />
      )}
      <div className="fields">
        <Form.Group controlId="calendar">
          <Form.Label className="mb-0 small quiet">{t('editor.working_days')}</Form.Label>
          <Form.Select
            size="sm"
            value={schedule.calendar ?? ''}
            onChange={(event) => put({ calendar: event.target.value })}
          >
            <option value="">{t('shared.monday_to_friday')}</option>
            {(all.data ?? []).map(({ name, title }) => (
              <option key={name} value={name}>
                {title}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Choice
          id="on-holiday"
          label={t('shared.on_holidays')}
          value={schedule.on_holidays}
          options={holidays}
          onChange={(on_holidays) => put({ on_holidays })}
        />
        <Form.Group controlId="until">
          <Form.Label className="mb-0 small quiet">{t('editor.ends')}</Form.Label>
          <Form.Control
            size="sm"
            type="datetime-local"
            value={schedule.until ?? ''}
            onChange={(event) => put({ until: event.target.value })}
          />
        </Form.Group>
      </div>
      <p className="small quiet mt-2 mb-0">{t('editor.in_the_zone', { zone })}</p>
    </>
  )
}

/** The next dates in words, as a list, and in small months. */
export function NextDates({ schedule, zone }: { schedule: SchedulePart; zone: string }) {
  const settled = useSettled(JSON.stringify({ schedule, zone }), 400)
  const asked = JSON.parse(settled) as { schedule: SchedulePart; zone: string }
  const has =
    (asked.schedule.recur ?? []).length > 0 ||
    (asked.schedule['working_days'] ?? []).length > 0 ||
    (asked.schedule.also ?? []).length > 0
  const found = useQuery({ ...datesOfSchedule(asked.schedule, asked.zone), enabled: has })
  if (!has) return <p className="quiet mb-0">{t('editor.it_is_checked_only_on')}</p>
  return (
    <Loaded query={found} what={t('loading.next_checks')}>
      {(dates) => <Shown dates={dates} />}
    </Loaded>
  )
}

const asDay = (local: string) => new Date(`${local.slice(0, 10)}T00:00:00Z`)
const dayWords = new Intl.DateTimeFormat(undefined, {
  timeZone: 'UTC',
  weekday: 'short',
  day: 'numeric',
  month: 'short',
})
const monthWords = new Intl.DateTimeFormat(undefined, { timeZone: 'UTC', month: 'long', year: 'numeric' })

function Shown({ dates }: { dates: Dates }) {
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
        <div className="d-flex flex-wrap gap-4">
          <ol className="small list-unstyled mb-0">
            {dates.slots.slice(0, 6).map(({ slot, local }) => (
              <li key={slot}>
                {dayWords.format(asDay(local))} {local.slice(11, 16)}
              </li>
            ))}
          </ol>
          {months.map((month) => (
            <Month
              key={month}
              month={month}
              days={
                new Set(
                  dates.slots
                    .filter(({ local }) => local.startsWith(month))
                    .map(({ local }) => Number(local.slice(8, 10))),
                )
              }
            />
          ))}
        </div>
      )}
      {dates.ends && <p className="small quiet mb-0">{t('shared.the_schedule_ends_here')}</p>}
    </>
  )
}

/** One month with its dates marked; weeks begin on Monday. */
function Month({ month, days }: { month: string; days: Set<number> }) {
  const first = new Date(`${month}-01T00:00:00Z`)
  const blank = (first.getUTCDay() + 6) % 7
  const length = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate()
  return (
    <table className="month">
      <caption>{monthWords.format(first)}</caption>
      <tbody>
        {Array.from({ length: Math.ceil((blank + length) / 7) }, (_, week) => (
          <tr key={week}>
            {Array.from({ length: 7 }, (_, weekday) => {
              const day = week * 7 + weekday - blank + 1
              const there = day >= 1 && day <= length
              return (
                <td key={weekday}>
                  {there &&
                    (days.has(day) ? (
                      <b>
                        {day}
                        <span className="visually-hidden"> {t('editor.a_check')}</span>
                      </b>
                    ) : (
                      day
                    ))}
                </td>
              )
            })}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
