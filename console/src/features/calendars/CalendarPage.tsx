import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Year } from '../../shared/Month'
import { DefinitionForm, type FormProps } from '../documents/DefinitionForm'
import { ListField } from '../fields/ListField'
import { SharedBelongingFields } from '../fields/Belonging'
import { dayIn, inOrder, weekdays, weekOf, withDay, type CalendarDocument } from './days'
import { ImportHolidays } from './ImportHolidays'
import { t } from '../../messages'

const start: CalendarDocument = { kind: 'calendar', name: '' }

/** Which days are working days: the week, the holidays, and a year in which each day can be chosen. */
export function CalendarPage() {
  return (
    <DefinitionForm<CalendarDocument>
      start={start}
      fresh={t('calendars.new_calendar')}
      at={(name) => `/calendars/${name}`}
      saysEmpty={['week']}
      fields={(form) => <CalendarFields {...form} />}
    />
  )
}

function CalendarFields({ value, put }: FormProps<CalendarDocument>) {
  const week = weekOf(value)
  const [day, setDay] = useState<string | null>(null)
  return (
    <>
      <fieldset className="mt-3">
        <legend>{t('calendars.working_days_of_a_week')}</legend>
        <div className="d-flex flex-wrap gap-3">
          {weekdays.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`week-${code}`}
              type="checkbox"
              label={words}
              checked={week.includes(code)}
              onChange={(event) =>
                put({ week: inOrder(event.target.checked ? [...week, code] : week.filter((each) => each !== code)) })
              }
            />
          ))}
        </div>
      </fieldset>
      <fieldset className="mt-3">
        <legend>{t('calendars.year_at_a_glance')}</legend>
        {day === null ? (
          <p className="callout quiet">{t('calendars.select_a_day')}</p>
        ) : (
          <OneDay
            key={day}
            value={value}
            date={day}
            onChange={(what) => put(withDay(value, day, what))}
            onClose={() => setDay(null)}
          />
        )}
        <YearOfDays value={value} day={day} onDay={setDay} />
      </fieldset>
      <Holidays value={value} put={put} />
      <div className="fields mt-3">
        <ListField
          id="extra-working-days"
          label={t('calendars.extra_working_days')}
          help={t('calendars.extra_working_days_help')}
          value={value.extra_working_days}
          onChange={(extra_working_days) => put({ extra_working_days })}
        />
        <ListField
          id="periods"
          label={t('calendars.periods')}
          help={t('calendars.periods_help')}
          value={value.periods}
          onChange={(periods) => put({ periods })}
        />
        <SharedBelongingFields value={value} onChange={put} />
      </div>
    </>
  )
}

function YearOfDays({
  value,
  day,
  onDay,
}: {
  value: CalendarDocument
  day: string | null
  onDay: (date: string) => void
}) {
  const [year, setYear] = useState(() => new Date().getFullYear())
  return (
    <>
      <div className="d-flex gap-2 align-items-center mb-2">
        <Button size="sm" variant="plain" aria-label={t('calendars.year_before')} onClick={() => setYear(year - 1)}>
          ←
        </Button>
        <strong aria-live="polite">{year}</strong>
        <Button size="sm" variant="plain" aria-label={t('calendars.year_after')} onClick={() => setYear(year + 1)}>
          →
        </Button>
      </div>
      <Year from={`${year}-01`} day={(date) => ({ ...dayIn(value, date), chosen: date === day })} onChoose={onDay} />
      <ul className="legend">
        <li>
          <span className="day marked">1</span> {t('calendars.holiday')}
        </li>
        <li>
          <span className="day off">1</span> {t('calendars.day_off')}
        </li>
        <li>
          <span className="day extra">1</span> {t('calendars.extra_working_day')}
        </li>
      </ul>
    </>
  )
}

const dayWords = new Intl.DateTimeFormat(undefined, { timeZone: 'UTC', dateStyle: 'full' })

function OneDay({
  value,
  date,
  onChange,
  onClose,
}: {
  value: CalendarDocument
  date: string
  onChange: (what: { holiday: string } | 'worked' | 'by_week') => void
  onClose: () => void
}) {
  const now = dayIn(value, date)
  const [name, setName] = useState(String(value.holidays?.[date] ?? ''))
  return (
    <div className="callout mb-3" role="group" aria-label={t('calendars.the_day')}>
      <p className="mb-2">
        <strong>{dayWords.format(new Date(`${date}T00:00:00Z`))}</strong>: {now.words}
      </p>
      <div className="d-flex gap-2 flex-wrap align-items-end">
        <Form.Group controlId="holiday-name">
          <Form.Label className="mb-0 small quiet">{t('calendars.name_of_the_holiday')}</Form.Label>
          <Form.Control
            size="sm"
            autoFocus
            value={name}
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return
              event.preventDefault()
              if (name.trim()) onChange({ holiday: name.trim() })
            }}
          />
        </Form.Group>
        <Button size="sm" variant="plain" disabled={!name.trim()} onClick={() => onChange({ holiday: name.trim() })}>
          {t('calendars.make_it_a_holiday')}
        </Button>
        {now.look !== 'extra' && now.look !== 'usual' && (
          <Button size="sm" variant="plain" onClick={() => onChange('worked')}>
            {t('calendars.make_it_a_working_day')}
          </Button>
        )}
        {(now.look === 'extra' || now.look === 'marked') && (
          <Button size="sm" variant="plain" onClick={() => onChange('by_week')}>
            {t('calendars.leave_it_to_the_week')}
          </Button>
        )}
        <Button size="sm" variant="plain" onClick={onClose}>
          {t('shared.close')}
        </Button>
      </div>
    </div>
  )
}

function Holidays({ value, put }: FormProps<CalendarDocument>) {
  const [date, setDate] = useState('')
  const [name, setName] = useState('')
  const all = Object.entries(value.holidays ?? {}).sort()
  const add = () => {
    put(withDay(value, date, { holiday: name.trim() }))
    setDate('')
    setName('')
  }
  return (
    <fieldset className="mt-3">
      <legend>{t('calendars.holidays', { count: all.length })}</legend>
      {all.length > 0 && (
        <ul className="holidays">
          {all.map(([each, words]) => (
            <li key={each}>
              <span className="text-nowrap">{each}</span> {String(words)}
              <Button
                size="sm"
                variant="plain"
                className="x"
                aria-label={t('calendars.remove_holiday', { date: each, name: String(words) })}
                onClick={() => put(withDay(value, each, 'by_week'))}
              >
                ✕
              </Button>
            </li>
          ))}
        </ul>
      )}
      <div className="d-flex gap-2 flex-wrap align-items-end">
        <Form.Group controlId="new-holiday-date">
          <Form.Label className="mb-0 small quiet">{t('shared.date')}</Form.Label>
          <Form.Control size="sm" type="date" value={date} onChange={(event) => setDate(event.target.value)} />
        </Form.Group>
        <Form.Group controlId="new-holiday-name">
          <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
          <Form.Control size="sm" value={name} onChange={(event) => setName(event.target.value)} />
        </Form.Group>
        <Button size="sm" variant="plain" disabled={!date || !name.trim()} onClick={add}>
          {t('calendars.add_holiday')}
        </Button>
        <ImportHolidays onRead={(read) => put({ holidays: { ...value.holidays, ...read } })} />
      </div>
    </fieldset>
  )
}
