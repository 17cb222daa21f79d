import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { addPerson, people, teams } from './api'
import { NewTeam, TeamEntry } from './TeamForms'
import { t } from '../../messages'

/** Users, and the teams that own rules and get failure notices. */
export function PeoplePanel() {
  const all = useQuery(people)
  const owners = useQuery(teams)
  const operator = usePerson().role === 'OPERATOR'
  return (
    <section className="sheet">
      <h2>{t('setup.users')}</h2>
      <Loaded query={all} what={t('loading.the_users')}>
        {(list) => (
          <Scroll label={t('setup.users')}>
            <Table size="sm">
              <thead>
                <tr>
                  <th>{t('shared.name')}</th>
                  <th>{t('setup.log_in')}</th>
                  <th>{t('shared.address')}</th>
                  <th>{t('setup.role')}</th>
                </tr>
              </thead>
              <tbody>
                {list.map((each) => (
                  <tr key={each.login}>
                    <td>{each.name}</td>
                    <td>{each.login}</td>
                    <td>{each.email}</td>
                    <td>{each.role.toLowerCase()}</td>
                  </tr>
                ))}
              </tbody>
            </Table>
          </Scroll>
        )}
      </Loaded>
      {operator ? <NewPerson /> : <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_add_users')}</p>}
      <h2 className="mt-4">{t('setup.teams')}</h2>
      <Loaded query={owners} what={t('loading.the_teams')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('setup.no_teams_yet_operators_get')}</p>
          ) : (
            list.map((team) => <TeamEntry key={team.name} team={team} canChange={operator} />)
          )
        }
      </Loaded>
      {operator ? <NewTeam /> : <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_change_teams')}</p>}
    </section>
  )
}

function NewPerson() {
  const blank = { login: '', name: '', email: '', password: '', role: 'ANALYST' as const }
  const [person, setPerson] = useState<{
    login: string
    name: string
    email: string
    password: string
    role: 'ANALYST' | 'OPERATOR'
  }>(blank)
  const client = useQueryClient()
  const add = useMutation({
    mutationFn: () => addPerson(person),
    onSuccess: () => {
      setPerson(blank)
      return client.invalidateQueries({ queryKey: people.queryKey })
    },
  })
  const put = (part: Partial<typeof person>) => setPerson({ ...person, ...part })
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
              value={person.login}
              onChange={(event) => put({ login: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-name">
            <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
            <Form.Control
              size="sm"
              required
              value={person.name}
              onChange={(event) => put({ name: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-email">
            <Form.Label className="mb-0 small quiet">{t('shared.address')}</Form.Label>
            <Form.Control
              size="sm"
              type="email"
              required
              value={person.email}
              onChange={(event) => put({ email: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-password">
            <Form.Label className="mb-0 small quiet">{t('setup.first_password')}</Form.Label>
            <Form.Control
              size="sm"
              type="password"
              required
              autoComplete="new-password"
              value={person.password}
              onChange={(event) => put({ password: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-role">
            <Form.Label className="mb-0 small quiet">{t('setup.role')}</Form.Label>
            <Form.Select
              size="sm"
              value={person.role}
              onChange={(event) => put({ role: event.target.value === 'OPERATOR' ? 'OPERATOR' : 'ANALYST' })}
            >
              <option value="ANALYST">{t('setup.analyst')}</option>
              <option value="OPERATOR">{t('setup.operator')}</option>
            </Form.Select>
          </Form.Group>
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={add.isPending}>
          {t('setup.add')}
        </Button>
        <div role="status">
          <Refusal error={add.error} />
          {add.isSuccess && <p className="callout mt-2 mb-0">{t('setup.can_log_in', { name: add.data.name })}</p>}
        </div>
      </Form>
    </details>
  )
}
