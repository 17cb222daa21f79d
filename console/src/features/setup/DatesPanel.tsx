import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { calendars, datesOf, giveFeed, stopFeed, type Asked, type Dates } from './api'
import { t } from '../../messages'

const holidays = [
  ['', t('shared.check_anyway')],
  ['next_working_day', t('shared.move_to_the_next_working')],
  ['previous_working_day', t('shared.move_to_the_previous_working')],
  ['skip', t('shared.holiday_skip')],
] as const

/** The next dates of a recurrence before any rule has it, and the feed of those that rules have. */
export function DatesPanel() {
  const all = useQuery(calendars)
  const [asked, setAsked] = useState<Asked>({
    recur: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR',
    start: '',
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    calendar: '',
    onHoliday: '',
  })
  const find = useMutation({ mutationFn: () => datesOf(asked) })
  const put = (part: Partial<Asked>) => setAsked({ ...asked, ...part })
  return (
    <section className="sheet">
      <h2>{t('setup.preview_a_recurrence')}</h2>
      <Form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          find.mutate()
        }}
      >
        <Form.Group controlId="recur" className="mb-2">
          <Form.Label className="mb-0 small quiet">{t('setup.recurrence_rfc_5545')}</Form.Label>
          <Form.Control
            size="sm"
            className="font-monospace"
            value={asked.recur}
            onChange={(event) => put({ recur: event.target.value })}
          />
        </Form.Group>
        <div className="d-flex gap-2 flex-wrap">
          <Form.Group controlId="start">
            <Form.Label className="mb-0 small quiet">{t('setup.starts')}</Form.Label>
            <Form.Control
              size="sm"
              type="datetime-local"
              value={asked.start}
              onChange={(event) => put({ start: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="zone">
            <Form.Label className="mb-0 small quiet">{t('shared.time_zone')}</Form.Label>
            <Form.Control size="sm" value={asked.zone} onChange={(event) => put({ zone: event.target.value })} />
          </Form.Group>
          <Form.Group controlId="calendar">
            <Form.Label className="mb-0 small quiet">{t('setup.calendar')}</Form.Label>
            <Form.Select size="sm" value={asked.calendar} onChange={(event) => put({ calendar: event.target.value })}>
              <option value="">{t('shared.monday_to_friday')}</option>
              {(all.data ?? []).map(({ name, title }) => (
                <option key={name} value={name}>
                  {title}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <Form.Group controlId="on-holiday">
            <Form.Label className="mb-0 small quiet">{t('shared.on_holidays')}</Form.Label>
            <Form.Select size="sm" value={asked.onHoliday} onChange={(event) => put({ onHoliday: event.target.value })}>
              {holidays.map(([code, words]) => (
                <option key={code} value={code}>
                  {words}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
        </div>
        <Button type="submit" variant="plain" className="mt-2" disabled={find.isPending || asked.recur.trim() === ''}>
          {t('setup.show_next_slots')}
        </Button>
      </Form>
      <div role="status">
        {find.isError && <p className="callout bad">{find.error.message}</p>}
        {find.data && <Found found={find.data} />}
      </div>
      <Feed />
    </section>
  )
}

function Found({ found }: { found: Dates }) {
  return (
    <>
      <p className="callout mt-2">
        {found.schedule.charAt(0).toUpperCase() + found.schedule.slice(1)} ({found.zone}).
      </p>
      {found.warnings.map((warning) => (
        <p key={warning} className="small mb-1">
          {t('shared.warning_sentence', { warning })}
        </p>
      ))}
      <ol className="small mb-0">
        {found.slots.map(({ slot, local }) => (
          <li key={slot}>
            {new Date(`${local.slice(0, 10)}T00:00:00Z`).toLocaleDateString(undefined, {
              timeZone: 'UTC',
              weekday: 'short',
              day: 'numeric',
              month: 'short',
              year: 'numeric',
            })}{' '}
            {local.slice(11)}
          </li>
        ))}
      </ol>
      {found.ends && <p className="small quiet mb-0">{t('shared.the_schedule_ends_here')}</p>}
    </>
  )
}

function Feed() {
  const give = useMutation({ mutationFn: giveFeed })
  const stop = useMutation({ mutationFn: stopFeed, onSuccess: () => give.reset() })
  return (
    <>
      <h2 className="mt-3">{t('setup.calendar_feed_of_all_schedules')}</h2>
      <p className="small quiet mb-2">{t('setup.calendar_programs_subscribe_to_an')}</p>
      <div className="d-flex gap-2">
        <Button variant="plain" size="sm" disabled={give.isPending} onClick={() => give.mutate()}>
          {t('setup.create_new_address')}
        </Button>
        <Button variant="plain" size="sm" disabled={stop.isPending} onClick={() => stop.mutate()}>
          {t('setup.revoke_address')}
        </Button>
      </div>
      <div role="status">
        {give.data && (
          <p className="callout mt-2 text-break">
            <code>{give.data.address}</code>
          </p>
        )}
        {stop.isSuccess && !give.data && <p className="callout mt-2">{t('setup.the_address_is_revoked')}</p>}
        {(give.error ?? stop.error) && <p className="callout bad">{(give.error ?? stop.error)?.message}</p>}
      </div>
    </>
  )
}
