import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { addPerson, people, saveTeam, teams } from './api'

/** Users, and the teams that own rules and get failure notices. */
export function PeoplePanel() {
  const all = useQuery(people)
  const owners = useQuery(teams)
  const operator = usePerson().role === 'OPERATOR'
  return (
    <section className="sheet">
      <h2>Users</h2>
      <Loaded query={all} what="The users">
        {(list) => (
          <Scroll label="Users">
            <Table size="sm">
              <thead>
                <tr>
                  <th>Name</th>
                  <th>Log-in</th>
                  <th>Address</th>
                  <th>Role</th>
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
      {operator ? <NewPerson /> : <p className="small quiet mt-2 mb-0">Only operators can add users.</p>}
      <h2 className="mt-4">Teams</h2>
      <Loaded query={owners} what="The teams">
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              No teams yet: operators get the failure notices. Rules name their team as owner.
            </p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map((team) => (
                <li key={team.name}>
                  {team.name}: <span className="quiet">{team.addresses.join(', ')}</span>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
      {operator ? <OneTeam /> : <p className="small quiet mt-2 mb-0">Only operators can change teams.</p>}
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
      <summary>Add user</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          add.mutate()
        }}
      >
        <div className="fields">
          <Form.Group controlId="new-login">
            <Form.Label className="mb-0 small quiet">Log-in</Form.Label>
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
            <Form.Label className="mb-0 small quiet">Name</Form.Label>
            <Form.Control
              size="sm"
              required
              value={person.name}
              onChange={(event) => put({ name: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-email">
            <Form.Label className="mb-0 small quiet">Address</Form.Label>
            <Form.Control
              size="sm"
              type="email"
              required
              value={person.email}
              onChange={(event) => put({ email: event.target.value })}
            />
          </Form.Group>
          <Form.Group controlId="new-password">
            <Form.Label className="mb-0 small quiet">First password</Form.Label>
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
            <Form.Label className="mb-0 small quiet">Role</Form.Label>
            <Form.Select
              size="sm"
              value={person.role}
              onChange={(event) => put({ role: event.target.value === 'OPERATOR' ? 'OPERATOR' : 'ANALYST' })}
            >
              <option value="ANALYST">analyst</option>
              <option value="OPERATOR">operator</option>
            </Form.Select>
          </Form.Group>
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={add.isPending}>
          Add
        </Button>
        <div role="status">
          <Refusal error={add.error} />
          {add.isSuccess && <p className="callout mt-2 mb-0">{add.data.name} can log in.</p>}
        </div>
      </Form>
    </details>
  )
}

function OneTeam() {
  const [name, setName] = useState('')
  const [addresses, setAddresses] = useState('')
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: () => saveTeam(name.trim(), addresses.split(/[,;\s]+/).filter(Boolean)),
    onSuccess: () => {
      setName('')
      setAddresses('')
      return client.invalidateQueries({ queryKey: teams.queryKey })
    },
  })
  return (
    <details className="entry">
      <summary>Add or change team</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div className="fields">
          <Form.Group controlId="team-name">
            <Form.Label className="mb-0 small quiet">Name</Form.Label>
            <Form.Control size="sm" required value={name} onChange={(event) => setName(event.target.value)} />
          </Form.Group>
          <Form.Group controlId="team-addresses" className="whole">
            <Form.Label className="mb-0 small quiet">Addresses (comma-separated)</Form.Label>
            <Form.Control size="sm" required value={addresses} onChange={(event) => setAddresses(event.target.value)} />
          </Form.Group>
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={save.isPending}>
          Save team
        </Button>
        <div role="status">
          <Refusal error={save.error} />
        </div>
      </Form>
    </details>
  )
}
