import { useState } from 'react'
import { Button, ButtonGroup, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { calendars } from '../setup/api'
import { edited, type Edits, type Times } from './parts'
import { RhythmFields } from './RhythmFields'
import { choiceOf, scheduleOf, usual, withRhythm, type Choice as Rhythm } from './recurrence'
import { rich, t } from '../../messages'

const holidays = (what: 'check' | 'message') =>
  [
    ['', what === 'check' ? t('shared.check_anyway') : t('fields.send_anyway')],
    ['next_working_day', t('shared.move_to_the_next_working')],
    ['previous_working_day', t('shared.move_to_the_previous_working')],
    ['skip', t('shared.holiday_skip')],
  ] as const

type Props<T extends Times> = {
  times: T
  zone: string
  /** What happens at these times. */
  purpose?: 'check' | 'message'
  onChange: (times: T) => void
}

/** When a rule is checked or a round-up sent: chosen from the usual rhythms, or written as a recurrence; either shows the other. */
export function TimesFields<T extends Times>({ times: schedule, zone, purpose = 'check', onChange }: Props<T>) {
  const all = useQuery(calendars)
  const choice = choiceOf(schedule)
  const [written, setWritten] = useState(choice === null && (schedule.recur ?? []).length > 0)
  const put = (edits: Edits<Times>) => onChange(edited<Times>(schedule, edits) as T)
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
            <Form.Label className="mb-0 small quiet">
              {purpose === 'check' ? t('editor.first_check_local_time') : t('fields.first_time_local')}
            </Form.Label>
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
          <Form.Text>
            {schedule.calendar && (
              <>
                <Link to={`/calendars/${schedule.calendar}`} target="_blank">
                  {t('editor.edit_calendar')}
                </Link>{' '}
              </>
            )}
            <Link to="/calendars/new" target="_blank">
              {t('calendars.new_calendar')}
            </Link>
          </Form.Text>
        </Form.Group>
        <Choice
          id="on-holiday"
          label={t('shared.on_holidays')}
          value={schedule.on_holidays}
          options={holidays(purpose)}
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
