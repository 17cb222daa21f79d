import { useId, useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import { t } from '../../messages'
import { definitionsOf } from '../documents/api'
import { people, teams } from '../setup/api'
import { listOf, objection, withNew, type Known } from './recipients'

type Props = {
  id: string
  label: string
  value: string[] | undefined
  /** Whether lists are offered too. */
  withLists?: boolean
  onChange: (recipients: string[]) => void
}

/** Recipients: each as an entry that can be removed, and a field that searches teams, lists and people or takes an address. */
export function PeopleField({ id, label, value = [], withLists = true, onChange }: Props) {
  const users = useQuery(people).data ?? []
  const groups = useQuery(teams).data ?? []
  const lists = useQuery({ ...definitionsOf('recipient-list'), enabled: withLists }).data ?? []
  const known: Known = {
    teams: groups.map(({ name }) => name),
    logins: users.map(({ login }) => login),
    lists: lists.map(({ name }) => name),
  }
  const [typed, setTyped] = useState('')
  const [refused, setRefused] = useState<string | null>(null)
  const help = useId()
  const add = (text: string) => {
    const entries = listOf(text)
    const bad = entries.filter((each) => objection(each, known) !== null)
    const good = entries.filter((each) => !bad.includes(each))
    // What is wrong stays in the field, to be corrected.
    setTyped(bad.join(', '))
    setRefused(bad[0] === undefined ? null : objection(bad[0], known))
    if (good.length > 0) onChange(withNew(value, good))
  }
  const offered = new Map<string, string>([
    ...groups.map(({ name, addresses }) => [`team: ${name}`, addresses.join(', ')] as const),
    ...lists.map(({ name, title }) => [`list: ${name}`, title] as const),
    ...users.map(({ name, email }) => [email, name] as const),
  ])
  return (
    <Form.Group controlId={id} className="whole">
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      {value.length > 0 && (
        <ul className="recipients" aria-label={t('editor.recipients_of', { label })}>
          {value.map((each) => (
            <li key={each}>
              {each}
              <Button
                size="sm"
                variant="plain"
                className="x"
                aria-label={t('editor.remove_recipient', { recipient: each })}
                onClick={() => onChange(value.filter((other) => other !== each))}
              >
                ✕
              </Button>
            </li>
          ))}
        </ul>
      )}
      <Form.Control
        size="sm"
        value={typed}
        list={`${id}-known`}
        autoComplete="off"
        placeholder={withLists ? t('editor.name_team_or_address') : t('editor.name_team_or_address_no_list')}
        aria-invalid={refused !== null}
        aria-describedby={refused === null ? undefined : help}
        onChange={(event) => {
          const text = event.target.value
          // A choice from the list comes whole, and so does what ends with a comma.
          if (offered.has(text) || /[,;]\s*$/.test(text)) add(text)
          else {
            setTyped(text)
            setRefused(null)
          }
        }}
        onKeyDown={(event) => {
          if (event.key === 'Enter') {
            event.preventDefault()
            add(typed)
          } else if (event.key === 'Backspace' && typed === '' && value.length > 0) onChange(value.slice(0, -1))
        }}
        onBlur={() => add(typed)}
      />
      {refused !== null && (
        <div id={help} className="small problem-text" role="alert">
          {refused}
        </div>
      )}
      <datalist id={`${id}-known`}>
        {[...offered]
          .filter(([each]) => !value.includes(each))
          .map(([each, words]) => (
            <option key={each} value={each}>
              {words}
            </option>
          ))}
      </datalist>
    </Form.Group>
  )
}
