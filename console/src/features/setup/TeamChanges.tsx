import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { pageOf } from '../archive/retired'
import { definitionsOfTeam, handOver, removeTeam, renameTeam, type Team, type TeamDefinition } from './api'
import { t } from '../../messages'

/** What a team owns and is mailed; for operators its name, who takes what it owns, and its end. */
export function TeamChanges({ team, others, canChange }: { team: Team; others: string[]; canChange: boolean }) {
  const named = useQuery(definitionsOfTeam(team.name))
  return (
    <details className="entry">
      <summary>{t('setup.what_the_team_owns')}</summary>
      <Loaded query={named} what={t('loading.the_definitions')}>
        {(list) => (
          <>
            <Named list={list} />
            {canChange && list.some(({ owned }) => owned) && <HandOver team={team} others={others} />}
            {canChange && <Rename team={team} />}
            {canChange && list.length === 0 && <Remove team={team} />}
          </>
        )}
      </Loaded>
    </details>
  )
}

function Named({ list }: { list: TeamDefinition[] }) {
  if (list.length === 0) return <p className="quiet small mb-1">{t('setup.team_owns_nothing')}</p>
  return (
    <ul className="small mb-2">
      {list.map((each) => (
        <li key={`${each.kind}/${each.name}`}>
          <Link to={pageOf(each.kind, each.name)}>{each.title}</Link>{' '}
          <span className="quiet">
            {[
              each.kind.replaceAll('-', ' '),
              ...(!each.owned && each.mailed ? [t('setup.only_recipient')] : []),
              ...(each.owned && each.mailed ? [t('setup.also_recipient')] : []),
              ...(each.shown ? [t('setup.shown_to_it')] : []),
              ...(each.retired ? [t('setup.retired')] : []),
            ].join(', ')}
          </span>
        </li>
      ))}
    </ul>
  )
}

function HandOver({ team, others }: { team: Team; others: string[] }) {
  const [to, setTo] = useState(others[0] ?? '')
  const [reason, setReason] = useState('')
  const client = useQueryClient()
  const act = useMutation({
    mutationFn: () => handOver(team.name, to, reason),
    onSuccess: () => client.invalidateQueries(),
  })
  const id = `hand-over-${team.name}`
  if (others.length === 0) return null
  return (
    <Form
      className="d-flex gap-2 flex-wrap align-items-end mb-2"
      onSubmit={(event) => {
        event.preventDefault()
        act.mutate()
      }}
    >
      <Form.Group controlId={`${id}-to`}>
        <Form.Label className="mb-0 small quiet">{t('setup.hand_everything_over_to')}</Form.Label>
        <Form.Select size="sm" value={to} onChange={(event) => setTo(event.target.value)}>
          {others.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </Form.Select>
      </Form.Group>
      <Form.Group controlId={`${id}-reason`} className="flex-grow-1">
        <Form.Label className="mb-0 small quiet">{t('shared.reason')}</Form.Label>
        <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
      </Form.Group>
      <Button type="submit" size="sm" variant="plain" disabled={act.isPending}>
        {t('setup.hand_over')}
      </Button>
      <Refusal error={act.error} />
    </Form>
  )
}

function Rename({ team }: { team: Team }) {
  const [name, setName] = useState(team.name)
  const client = useQueryClient()
  const act = useMutation({
    mutationFn: () => renameTeam(team.name, name.trim()),
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <Form
      className="d-flex gap-2 flex-wrap align-items-end mb-2"
      onSubmit={(event) => {
        event.preventDefault()
        act.mutate()
      }}
    >
      <Form.Group controlId={`rename-${team.name}`} className="flex-grow-1">
        <Form.Label className="mb-0 small quiet">{t('setup.name_of_the_team')}</Form.Label>
        <Form.Control size="sm" value={name} onChange={(event) => setName(event.target.value)} />
      </Form.Group>
      <Button
        type="submit"
        size="sm"
        variant="plain"
        disabled={act.isPending || name.trim() === '' || name.trim() === team.name}
      >
        {t('setup.rename')}
      </Button>
      <p className="small quiet w-100 mb-0">{t('setup.rename_help')}</p>
      <Refusal error={act.error} />
    </Form>
  )
}

function Remove({ team }: { team: Team }) {
  const client = useQueryClient()
  const act = useMutation({ mutationFn: () => removeTeam(team.name), onSuccess: () => client.invalidateQueries() })
  return (
    <>
      <Button size="sm" variant="plain" disabled={act.isPending} onClick={() => act.mutate()}>
        {t('setup.remove_team')}
      </Button>
      <Refusal error={act.error} />
    </>
  )
}
