import { Form } from 'react-bootstrap'
import { t } from '../../messages'
import { Choice } from '../../shared/Choice'
import { NumberField } from '../../shared/NumberField'
import { weekdays, withRhythm, type Choice as Rhythm } from './recurrence'

const rhythms: [Rhythm['rhythm'], string][] = [
  ['none', t('editor.only_on_demand')],
  ['once', t('editor.once_on_a_date')],
  ['minutes', t('editor.every_few_minutes')],
  ['hours', t('editor.every_few_hours')],
  ['day', t('editor.every_day')],
  ['week', t('editor.on_days_of_the_week')],
  ['month', t('editor.once_a_month')],
  ['weekday', t('editor.on_a_weekday_of_the_month')],
  ['workingDay', t('editor.on_a_working_day_of_the_month')],
  ['year', t('editor.once_a_year')],
]
const ordinals: [string, string][] = [
  ['1', t('editor.first')],
  ['2', t('editor.second')],
  ['3', t('editor.third')],
  ['4', t('editor.fourth')],
  ['-1', t('editor.last')],
]

/** A rhythm from fields: how often, on which days, at what time. */
export function RhythmFields({ choice, onChange }: { choice: Rhythm; onChange: (choice: Rhythm) => void }) {
  const { rhythm } = choice
  const put = (edits: Partial<Rhythm>) => onChange({ ...choice, ...edits })
  const often = rhythm === 'minutes' || rhythm === 'hours'
  return (
    <div className="fields">
      <Choice
        id="rhythm"
        label={t('editor.repeat')}
        value={rhythm}
        options={rhythms}
        onChange={(next) => onChange(withRhythm(choice, next || 'none'))}
      />
      {often && (
        <Form.Group controlId="every">
          <Form.Label className="mb-0 small quiet">{t('editor.every_n', { rhythm })}</Form.Label>
          <NumberField
            size="sm"
            least={1}
            most={rhythm === 'minutes' ? 720 : 24}
            value={choice.every}
            onChange={(every) => put({ every })}
          />
        </Form.Group>
      )}
      {often && <Hours hours={choice.hours} onChange={(hours) => put({ hours })} />}
      {rhythm === 'month' && (
        <Form.Group controlId="month-day">
          <Form.Label className="mb-0 small quiet">{t('editor.on_day_1_for_the')}</Form.Label>
          <NumberField
            size="sm"
            least={-1}
            most={31}
            value={choice.monthDay}
            onChange={(monthDay) => put({ monthDay: monthDay || 1 })}
          />
        </Form.Group>
      )}
      {rhythm === 'workingDay' && (
        <Form.Group controlId="working-day">
          <Form.Label className="mb-0 small quiet">{t('editor.working_day_1_for_the')}</Form.Label>
          <NumberField
            size="sm"
            least={-20}
            most={20}
            value={choice.monthDay}
            onChange={(monthDay) => put({ monthDay: monthDay || 1 })}
          />
        </Form.Group>
      )}
      {rhythm === 'weekday' && (
        <>
          <Choice
            id="ordinal"
            label={t('editor.which_of_the_month')}
            value={String(choice.monthDay)}
            options={ordinals}
            onChange={(ordinal) => put({ monthDay: Number(ordinal) || 1 })}
          />
          <Choice
            id="weekday"
            label={t('editor.weekday')}
            value={choice.days[0] ?? 'MO'}
            options={weekdays}
            onChange={(day) => put({ days: [day || 'MO'] })}
          />
        </>
      )}
      {(rhythm === 'once' || rhythm === 'year') && (
        <Form.Group controlId="rhythm-date">
          <Form.Label className="mb-0 small quiet">
            {rhythm === 'once' ? t('editor.date') : t('editor.date_each_year')}
          </Form.Label>
          <Form.Control
            size="sm"
            type="date"
            value={choice.date}
            onChange={(event) => event.target.value && put({ date: event.target.value })}
          />
        </Form.Group>
      )}
      {!often && rhythm !== 'none' && (
        <Form.Group controlId="time">
          <Form.Label className="mb-0 small quiet">{t('shared.at')}</Form.Label>
          <Form.Control
            size="sm"
            type="time"
            value={choice.time}
            onChange={(event) => event.target.value && put({ time: event.target.value })}
          />
        </Form.Group>
      )}
      {rhythm === 'week' && <Week choice={choice} onChange={onChange} />}
    </div>
  )
}

function Hours({ hours, onChange }: { hours: Rhythm['hours']; onChange: (hours: Rhythm['hours']) => void }) {
  const hour = (value: number, most: number, set: (next: number) => void, id: string, label: string) => (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <NumberField size="sm" least={0} most={most} value={value} onChange={set} />
    </Form.Group>
  )
  return (
    <>
      <Choice
        id="between"
        label={t('editor.between_hours')}
        value={hours === null ? '' : 'some'}
        options={[
          ['', t('editor.the_whole_day')],
          ['some', t('editor.some_hours')],
        ]}
        onChange={(some) => onChange(some === '' ? null : { from: 6, to: 18 })}
      />
      {hours !== null && (
        <>
          {hour(
            hours.from,
            23,
            (from) => onChange({ from, to: Math.max(from, hours.to) }),
            'from-hour',
            t('editor.from_hour'),
          )}
          {hour(hours.to, 23, (to) => onChange({ from: Math.min(to, hours.from), to }), 'to-hour', t('editor.to_hour'))}
        </>
      )}
    </>
  )
}

function Week({ choice, onChange }: { choice: Rhythm; onChange: (choice: Rhythm) => void }) {
  return (
    <>
      <Form.Group controlId="weeks">
        <Form.Label className="mb-0 small quiet">{t('editor.every_n', { rhythm: 'weeks' })}</Form.Label>
        <NumberField
          size="sm"
          least={1}
          most={52}
          value={choice.every}
          onChange={(every) => onChange({ ...choice, every })}
        />
      </Form.Group>
      <fieldset className="whole">
        <legend className="small quiet">{t('editor.on_label')}</legend>
        <div className="d-flex flex-wrap gap-3">
          {weekdays.map(([code, words]) => (
            <Form.Check
              key={code}
              id={`day-${code}`}
              type="checkbox"
              label={words}
              checked={choice.days.includes(code)}
              onChange={(event) =>
                onChange({
                  ...choice,
                  days: event.target.checked
                    ? weekdays.map(([each]) => each).filter((each) => each === code || choice.days.includes(each))
                    : choice.days.filter((each) => each !== code),
                })
              }
            />
          ))}
        </div>
      </fieldset>
    </>
  )
}
