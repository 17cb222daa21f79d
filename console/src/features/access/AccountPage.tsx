import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import type { Person } from '../../api/types'
import { accessPolicy } from '../../shared/may'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { useTitle } from '../../shared/title'
import { roleHelp, roleWords } from '../setup/roles'
import { changePassword } from './api'
import { PasswordFields } from './PasswordFields'
import { Sessions } from './Sessions'
import { Tokens } from './Tokens'
import { t } from '../../messages'

/** Who one is here, and one's password. */
export function AccountPage() {
  useTitle(t('access.account'))
  const person = usePerson()
  return (
    <>
      <h1>{t('access.account')}</h1>
      <section className="sheet">
        <dl className="facts">
          <dt>{t('shared.name')}</dt>
          <dd>{person.name}</dd>
          <dt>{t('access.log_in_name')}</dt>
          <dd>{person.login}</dd>
          <dt>{t('shared.address')}</dt>
          <dd>{person.email}</dd>
          <dt>{t('setup.role')}</dt>
          <dd>
            {roleWords(person.role)}. {roleHelp(person.role)}
          </dd>
          <dt>{t('setup.teams')}</dt>
          <dd>{person.teams.length === 0 ? t('shared.none') : person.teams.join(', ')}</dd>
        </dl>
      </section>
      <ChangePassword person={person} />
      <Sessions />
      <Tokens />
    </>
  )
}

/** Not where nobody logs in with one. */
function ChangePassword({ person }: { person: Person }) {
  const policy = useQuery(accessPolicy)
  const [present, setPresent] = useState('')
  const [password, setPassword] = useState('')
  const change = useMutation({ mutationFn: () => changePassword(present, password) })
  if (policy.data?.passwords === false && policy.data.emergencyOperator !== person.login) return null
  return (
    <section className="sheet">
      <h2>{t('access.change_password')}</h2>
      <Form
        className="password"
        onSubmit={(event) => {
          event.preventDefault()
          change.mutate()
        }}
      >
        <Form.Group controlId="present-password" className="mb-3">
          <Form.Label>{t('access.present_password')}</Form.Label>
          <Form.Control
            type="password"
            autoComplete="current-password"
            required
            value={present}
            onChange={(event) => setPresent(event.target.value)}
          />
        </Form.Group>
        <PasswordFields password={password} onChange={setPassword} />
        <Button type="submit" variant="plain" disabled={change.isPending}>
          {t('access.change_password')}
        </Button>
        <div role="status">
          <Refusal error={change.error} />
          {change.isSuccess && <p className="callout mt-2 mb-0">{t('access.password_changed')}</p>}
        </div>
      </Form>
    </section>
  )
}
