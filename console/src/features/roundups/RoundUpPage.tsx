import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { Definitions, Written } from '../../api/types'
import { Choice } from '../../shared/Choice'
import { DefinitionForm, type FormProps } from '../documents/DefinitionForm'
import { movedForward } from '../fields/layout'
import { MoreFields } from '../fields/MoreFields'
import { NextDates } from '../fields/NextDates'
import { BelongingFields } from '../fields/Belonging'
import { ZoneField } from '../fields/OwnerAndZone'
import type { Times } from '../fields/parts'
import { PeopleField } from '../fields/PeopleField'
import { TimesFields } from '../fields/TimesFields'
import { rules } from '../rules/api'
import { t } from '../../messages'

type RoundUpDocument = Written<Definitions['round-up']>

/** Weekly on Monday morning, until something else is chosen. */
const start = (): RoundUpDocument => ({
  kind: 'round-up',
  name: '',
  owner: '',
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  rules: [],
  to: [],
  schedule: { start: `${new Date().toISOString().slice(0, 10)}T08:00`, recur: ['FREQ=WEEKLY;BYDAY=MO'] },
})

const languages = [
  ['', t('shared.english')],
  ['de', t('editor.german')],
  ['nb', t('editor.norwegian')],
] as const
const severities = [
  ['', t('roundups.all_wait')],
  ['critical', t('roundups.critical_at_once')],
  ['warning', t('roundups.warnings_at_once')],
  ['notice', t('roundups.notices_at_once')],
] as const
const statements = [
  ['', t('roundups.no_statement')],
  ['with_updates', t('roundups.statement_with_updates')],
  ['only', t('roundups.statement_only')],
] as const
const covered = [
  'id',
  'kind',
  'name',
  'title',
  'owner',
  'visible_to',
  'zone',
  'language',
  'rules',
  'to',
  'statement',
  'send_immediately',
  'schedule',
]

/** One message with the updates of several rules: which, to whom, when, and what does not wait for it. */
export function RoundUpPage() {
  const [fresh] = useState(start)
  return (
    <DefinitionForm<RoundUpDocument>
      start={fresh}
      fresh={t('roundups.new_round_up')}
      at={() => '/setup/mail'}
      saysEmpty={['rules', 'to']}
      fields={(form) => <RoundUpFields {...form} />}
      effect={(value) => (
        <section className="sheet">
          <h2>{t('roundups.when_it_is_sent')}</h2>
          <NextDates
            schedule={value.schedule}
            zone={value.zone ?? 'UTC'}
            otherwise={t('roundups.choose_when_it_is_sent')}
          />
        </section>
      )}
    />
  )
}

function RoundUpFields({ value, put }: FormProps<RoundUpDocument>) {
  return (
    <>
      <div className="fields mt-2">
        <BelongingFields value={value} onChange={put} />
        <ZoneField value={value.zone} onChange={(zone) => put({ zone })} />
        <Choice
          id="language"
          label={t('shared.language')}
          value={value.language}
          options={languages}
          onChange={(language) => put({ language })}
        />
        <PeopleField id="to" label={t('editor.to')} value={value.to} onChange={(to) => put({ to })} />
      </div>
      <RulesField value={value.rules} onChange={(chosen) => put({ rules: chosen })} />
      <div className="fields mt-3">
        <Choice
          id="statement"
          label={t('statements.statement_of_checks')}
          value={value.statement}
          options={statements}
          onChange={(statement) => put({ statement, ...(statement === 'only' && { send_immediately: undefined }) })}
        />
        <Choice
          id="send-immediately"
          label={t('roundups.what_does_not_wait')}
          value={value.send_immediately}
          options={severities}
          onChange={(send_immediately) => put({ send_immediately })}
        />
      </div>
      <fieldset className="mt-3">
        <legend>{t('roundups.when_it_is_sent')}</legend>
        <TimesFields<Times>
          times={value.schedule}
          zone={value.zone ?? 'UTC'}
          purpose="message"
          onChange={(schedule) => put({ schedule })}
        />
        <MoreFields
          part="times"
          value={value.schedule}
          covered={['start', 'recur', 'until', 'calendar', 'on_holidays']}
          onChange={(schedule) => put({ schedule })}
        />
      </fieldset>
      <MoreFields<RoundUpDocument> part="round-up" value={value} covered={covered} onChange={put} />
    </>
  )
}

/** Rules in the order in which the message reports them. */
function RulesField({ value, onChange }: { value: string[]; onChange: (rules: string[]) => void }) {
  const all = useQuery(rules)
  const titles = new Map((all.data ?? []).map(({ name, title }) => [name, title]))
  return (
    <fieldset className="mt-3">
      <legend>{t('roundups.rules_in_this_order')}</legend>
      {value.length === 0 && <p className="small quiet mb-1">{t('roundups.no_rule_yet')}</p>}
      <ol className="in-order">
        {value.map((name, index) => (
          <li key={name}>
            {titles.get(name) ?? name}
            {index > 0 && (
              <Button
                size="sm"
                variant="plain"
                className="x"
                aria-label={t('editor.move_forward', { name })}
                onClick={() => onChange(movedForward(value, index))}
              >
                ↑
              </Button>
            )}
            <Button
              size="sm"
              variant="plain"
              className="x"
              aria-label={t('editor.remove', { name })}
              onClick={() => onChange(value.filter((each) => each !== name))}
            >
              ✕
            </Button>
          </li>
        ))}
      </ol>
      <Form.Select
        size="sm"
        className="w-auto"
        aria-label={t('roundups.add_a_rule')}
        value=""
        onChange={(event) => event.target.value && onChange([...value, event.target.value])}
      >
        <option value="">{t('roundups.add_a_rule')}</option>
        {[...titles]
          .filter(([name]) => !value.includes(name))
          .map(([name, title]) => (
            <option key={name} value={name}>
              {title}
            </option>
          ))}
      </Form.Select>
    </fieldset>
  )
}
