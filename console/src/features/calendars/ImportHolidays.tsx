import { Form } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schemas } from '../../api/types'
import { Refusal } from '../../shared/Refusal'
import { t } from '../../messages'

const read = async (file: File) => {
  const holidays = await api.text<Schemas['HolidayView'][]>(
    '/api/calendars/holidays',
    await file.text(),
    'text/calendar',
  )
  return Object.fromEntries(holidays.map(({ date, name }) => [date, name]))
}

/** Puts the whole-day events of an iCalendar file into the form; nothing is saved yet. */
export function ImportHolidays({ onRead }: { onRead: (holidays: Record<string, string>) => void }) {
  const file = useMutation({ mutationFn: read, onSuccess: onRead })
  return (
    <div className="whole">
      <Form.Group controlId="holidays-file">
        <Form.Label className="mb-0 small quiet">{t('calendars.from_an_icalendar_file')}</Form.Label>
        <Form.Control
          size="sm"
          type="file"
          accept=".ics,text/calendar"
          onChange={(event) => {
            const chosen = (event.target as HTMLInputElement).files?.[0]
            if (chosen) file.mutate(chosen)
          }}
        />
      </Form.Group>
      <div role="status" className="small">
        <Refusal error={file.error} />
        {file.data && t('calendars.holidays_read', { count: Object.keys(file.data).length })}
      </div>
    </div>
  )
}
