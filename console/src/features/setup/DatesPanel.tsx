import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { calendars, datesOf, giveFeed, stopFeed, type Asked, type Dates } from './api'

const holidays = [
  ['', 'check anyway'],
  ['next_working_day', 'move to the next working day'],
  ['previous_working_day', 'move to the previous working day'],
  ['skip', 'skip'],
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
      <h2>Preview a recurrence</h2>
      <Form
        className="mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          find.mutate()
        }}
      >
        <Form.Group controlId="recur" className="mb-2">
          <Form.Label className="mb-0 small quiet">Recurrence (RFC 5545)</Form.Label>
          <Form.Control
            size="sm"
            className="font-monospace"
            value={asked.recur}
            onChange={(event) => put({ recur: event.target.value })}
          />
        </Form.Group>
        <div className="d-flex gap-2 flex-wrap">
          <Form.Group controlId="start">
            <Form.Label className="mb-0 small quiet">Starts</Form.Label>
            <Form.Control
              size="sm"
              type="datetime-local"
              value={asked.start}
              onChange={(event) => put({ start: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="zone">
            <Form.Label className="mb-0 small quiet">Time zone</Form.Label>
            <Form.Control size="sm" value={asked.zone} onChange={(event) => put({ zone: event.target.value })} />
          </Form.Group>
          <Form.Group controlId="calendar">
            <Form.Label className="mb-0 small quiet">Calendar</Form.Label>
            <Form.Select size="sm" value={asked.calendar} onChange={(event) => put({ calendar: event.target.value })}>
              <option value="">Monday to Friday</option>
              {(all.data ?? []).map(({ name, title }) => (
                <option key={name} value={name}>
                  {title}
                </option>
              ))}
            </Form.Select>
          </Form.Group>
          <Form.Group controlId="on-holiday">
            <Form.Label className="mb-0 small quiet">On holidays</Form.Label>
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
          Show next slots
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
          Warning: {warning}.
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
      {found.ends && <p className="small quiet mb-0">The schedule ends here.</p>}
    </>
  )
}

function Feed() {
  const give = useMutation({ mutationFn: giveFeed })
  const stop = useMutation({ mutationFn: stopFeed, onSuccess: () => give.reset() })
  return (
    <>
      <h2 className="mt-3">Calendar feed of all schedules</h2>
      <p className="small quiet mb-2">
        Calendar programs subscribe to an address. Anyone with the address can read the schedules. A new address
        replaces the old one.
      </p>
      <div className="d-flex gap-2">
        <Button variant="plain" size="sm" disabled={give.isPending} onClick={() => give.mutate()}>
          Create new address
        </Button>
        <Button variant="plain" size="sm" disabled={stop.isPending} onClick={() => stop.mutate()}>
          Revoke address
        </Button>
      </div>
      <div role="status">
        {give.data && (
          <p className="callout mt-2 text-break">
            <code>{give.data.address}</code>
          </p>
        )}
        {stop.isSuccess && !give.data && <p className="callout mt-2">The address is revoked.</p>}
        {(give.error ?? stop.error) && <p className="callout bad">{(give.error ?? stop.error)?.message}</p>}
      </div>
    </>
  )
}
