import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { accessPolicy } from '../../shared/may'
import { Refusal } from '../../shared/Refusal'
import { rich, t } from '../../messages'
import { NewToken } from '../access/Tokens'
import { UserBelongings } from './UserBelongings'
import { addPerson, changePerson, invite, people, setActive, type Role, type Somebody } from './api'
import { roleHelp, roles, roleWords } from './roles'

type Details = { name: string; email: string; role: Role; teams: string[] }

/** What an operator says of a user besides the log-in name. */
function DetailFields({
  id,
  details,
  teams,
  program,
  onChange,
}: {
  id: string
  details: Details
  /** A service account has no address. */
  program: boolean
  teams: string[]
  onChange: (part: Partial<Details>) => void
}) {
  return (
    <>
      <Form.Group controlId={`${id}-name`}>
        <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
        <Form.Control
          size="sm"
          required
          maxLength={200}
          value={details.name}
          onChange={(event) => onChange({ name: event.target.value })}
        />
      </Form.Group>
      <Form.Group controlId={`${id}-email`}>
        <Form.Label className="mb-0 small quiet">{t('shared.address')}</Form.Label>
        <Form.Control
          size="sm"
          type="email"
          required={!program}
          value={details.email}
          onChange={(event) => onChange({ email: event.target.value })}
        />
      </Form.Group>
      <Choice
        id={`${id}-role`}
        label={t('setup.role')}
        value={details.role}
        options={roles.map((role) => [role, roleWords(role)] as const)}
        onChange={(role) => onChange({ role: roles.find((each) => each === role) ?? 'ANALYST' })}
      />
      <p className="whole small quiet mb-0">{roleHelp(details.role)}</p>
      {teams.length > 0 && (
        <fieldset className="whole">
          <legend className="mb-0 small quiet">{t('setup.teams')}</legend>
          {teams.map((team) => (
            <Form.Check
              inline
              key={team}
              type="checkbox"
              id={`${id}-team-${team}`}
              label={team}
              checked={details.teams.includes(team)}
              onChange={(event) =>
                onChange({
                  teams: event.target.checked
                    ? [...details.teams, team]
                    : details.teams.filter((each) => each !== team),
                })
              }
            />
          ))}
        </fieldset>
      )}
    </>
  )
}

/** The lists of users, one with those who are disabled. */
const useUsersChanged = () => {
  const client = useQueryClient()
  return () =>
    Promise.all([
      client.invalidateQueries({ queryKey: people.queryKey }),
      client.invalidateQueries({ queryKey: ['teams'] }),
    ])
}

type UserFormProps = { user: Somebody; others: Somebody[]; teams: string[]; onClose: () => void }

/** Changes, invites, disables or enables a user. @param others to whom what they have can be handed over */
export function UserForm({ user, others, teams, onClose }: UserFormProps) {
  const { login } = user
  const [details, setDetails] = useState<Details>(user)
  const onSuccess = useUsersChanged()
  const { name, email, role } = details
  const save = useMutation({
    mutationFn: () => changePerson(login, { name, email, role, teams: details.teams }),
    onSuccess,
  })
  const activity = useMutation({ mutationFn: (active: boolean) => setActive(login, active), onSuccess })
  const invitation = useMutation({ mutationFn: () => invite(login), onSuccess })
  const passwords = useQuery(accessPolicy).data?.passwords !== false
  const id = `user-${login}`
  return (
    <div className="entry">
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <h3 className="h6">{t('setup.change_user', { name: user.name })}</h3>
        <div className="fields">
          <DetailFields
            id={id}
            details={details}
            teams={teams}
            program={user.service || user.email === ''}
            onChange={(part) => setDetails({ ...details, ...part })}
          />
        </div>
        {user.providers.length > 0 && (
          <p className="small quiet mb-0">{t('setup.logs_in_through', { providers: user.providers.join(', ') })}</p>
        )}
        <div className="d-flex flex-wrap gap-2 mt-2">
          <Button type="submit" size="sm" variant="plain" disabled={save.isPending}>
            {t('setup.save_user')}
          </Button>
          {user.active && passwords && !user.service && (
            <Button size="sm" variant="plain" disabled={invitation.isPending} onClick={() => invitation.mutate()}>
              {t('setup.send_password_link')}
            </Button>
          )}
          {!user.active && (
            <Button size="sm" variant="plain" disabled={activity.isPending} onClick={() => activity.mutate(true)}>
              {t('setup.enable')}
            </Button>
          )}
          <Button size="sm" variant="plain" onClick={onClose}>
            {t('shared.close')}
          </Button>
        </div>
        <div role="status">
          <Refusal error={save.error ?? activity.error ?? invitation.error} />
          {save.isSuccess && <p className="callout mt-2 mb-0">{t('shared.saved')}</p>}
          {invitation.isSuccess && (
            <p className="callout mt-2 mb-0">{t('setup.password_link_sent', { address: user.email })}</p>
          )}
          {activity.isSuccess && !user.active && (
            <p className="callout mt-2 mb-0">
              {rich('setup.is_disabled', {
                name: user.name,
                a: (inner) => <Link to={`/recipients/${encodeURIComponent(user.email)}`}>{inner}</Link>,
              })}
            </p>
          )}
        </div>
      </Form>
      {user.service && user.active && (
        <div className="mt-3">
          <h4 className="h6">{t('access.tokens')}</h4>
          <NewToken user={login} />
        </div>
      )}
      <UserBelongings user={user} others={others} onDisable={() => activity.mutate(false)} />
    </div>
  )
}

const blank = {
  login: '',
  password: '',
  service: false,
  details: { name: '', email: '', role: 'ANALYST', teams: [] } as Details,
}

export function NewUser({ teams }: { teams: string[] }) {
  const [user, setUser] = useState(blank)
  const onChanged = useUsersChanged()
  const passwords = useQuery(accessPolicy).data?.passwords !== false
  const { login, password, service, details } = user
  const add = useMutation({
    mutationFn: () => addPerson({ login, service, password: password === '' || service ? null : password, ...details }),
    onSuccess: () => {
      setUser(blank)
      return onChanged()
    },
  })
  return (
    <details className="entry">
      <summary>{t('setup.add_user')}</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate()
        }}
      >
        <div className="fields">
          <Form.Group controlId="new-login">
            <Form.Label className="mb-0 small quiet">{t('setup.log_in')}</Form.Label>
            <Form.Control
              size="sm"
              required
              pattern="[a-z0-9._\-]{1,60}"
              autoComplete="off"
              value={login}
              onChange={(event) => setUser({ ...user, login: event.target.value })}
            />
          </Form.Group>
          <Form.Check
            id="new-service"
            className="whole small"
            label={t('setup.is_service_account')}
            checked={service}
            onChange={(event) => setUser({ ...user, service: event.target.checked })}
          />
          <DetailFields
            id="new"
            details={details}
            teams={teams}
            program={service}
            onChange={(part) => setUser({ ...user, details: { ...details, ...part } })}
          />
          {passwords && !service && (
            <Form.Group controlId="new-password" className="whole">
              <Form.Label className="mb-0 small quiet">{t('setup.first_password')}</Form.Label>
              <Form.Control
                size="sm"
                type="password"
                autoComplete="new-password"
                value={password}
                onChange={(event) => setUser({ ...user, password: event.target.value })}
              />
              <Form.Text className="small">{t('setup.first_password_help')}</Form.Text>
            </Form.Group>
          )}
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={add.isPending}>
          {password === '' && passwords && !service ? t('setup.add_and_invite') : t('setup.add')}
        </Button>
        <div role="status">
          <Refusal error={add.error} />
          {add.isSuccess && (
            <p className="callout mt-2 mb-0">
              {add.data.invited && passwords
                ? t('setup.password_link_sent', { address: add.data.email })
                : add.data.service
                  ? t('setup.service_account_added', { name: add.data.name })
                  : t('setup.can_log_in', { name: add.data.name })}
            </p>
          )}
        </div>
      </Form>
    </details>
  )
}
