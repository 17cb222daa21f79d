import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useMay } from '../../shared/may'
import { Refusal } from '../../shared/Refusal'
import { logoOf, removeLogo, saveLogo, saveTeam, teams, type Somebody, type Team } from './api'
import { TeamChanges } from './TeamChanges'
import { TeamMembers } from './TeamMembers'
import { t } from '../../messages'

type EntryProps = {
  team: Team
  users: Somebody[]
  canChange: boolean
  /** Also leads of the team. */
  canSetMembers: boolean
  /** The other teams. */
  others: string[]
}

/** A team with its addresses and members, and how its messages end. */
export function TeamEntry({ team, users, canChange, canSetMembers, others }: EntryProps) {
  const looks = useMay()('look')
  // The picture is read again after it was replaced.
  const [seen, setSeen] = useState(0)
  return (
    <details className="entry">
      <summary>
        {team.name}: <span className="quiet">{team.addresses.join(', ')}</span>
      </summary>
      <TeamMembers team={team} users={users} canChange={canSetMembers} />
      {team.signature !== '' && <p className="signature mb-1">{team.signature}</p>}
      {team.hasLogo && (
        <img className="logo" key={seen} src={logoOf(team.name)} alt={t('setup.logo_of', { team: team.name })} />
      )}
      {canChange && (
        <>
          <TeamForm team={team} />
          <LogoForm team={team} onChanged={() => setSeen(seen + 1)} />
        </>
      )}
      {looks && <TeamChanges team={team} others={others} canChange={canChange} />}
    </details>
  )
}

export function NewTeam() {
  return (
    <details className="entry">
      <summary>{t('setup.add_team')}</summary>
      <TeamForm team={null} />
    </details>
  )
}

function TeamForm({ team }: { team: Team | null }) {
  const id = team?.name ?? 'new'
  const [name, setName] = useState('')
  const [addresses, setAddresses] = useState(team?.addresses.join(', ') ?? '')
  const [signature, setSignature] = useState(team?.signature ?? '')
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: () => saveTeam(team?.name ?? name.trim(), addresses.split(/[,;\s]+/).filter(Boolean), signature),
    onSuccess: () => {
      if (team === null) {
        setName('')
        setAddresses('')
        setSignature('')
      }
      return client.invalidateQueries({ queryKey: teams.queryKey })
    },
  })
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault()
        save.mutate()
      }}
    >
      <div className="fields">
        {team === null && (
          <Form.Group controlId="team-name">
            <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
            <Form.Control size="sm" required value={name} onChange={(event) => setName(event.target.value)} />
          </Form.Group>
        )}
        <Form.Group controlId={`team-addresses-${id}`} className="whole">
          <Form.Label className="mb-0 small quiet">{t('setup.addresses_comma_separated')}</Form.Label>
          <Form.Control size="sm" required value={addresses} onChange={(event) => setAddresses(event.target.value)} />
        </Form.Group>
        <Form.Group controlId={`team-signature-${id}`} className="whole">
          <Form.Label className="mb-0 small quiet">{t('setup.signature')}</Form.Label>
          <Form.Control
            as="textarea"
            size="sm"
            rows={3}
            maxLength={1000}
            value={signature}
            onChange={(event) => setSignature(event.target.value)}
          />
          <Form.Text className="small">{t('setup.signature_help')}</Form.Text>
        </Form.Group>
      </div>
      <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={save.isPending}>
        {t('setup.save_team')}
      </Button>
      <div role="status">
        <Refusal error={save.error} />
        {save.isSuccess && <p className="callout mt-2 mb-0">{t('shared.saved')}</p>}
      </div>
    </Form>
  )
}

function LogoForm({ team, onChanged }: { team: Team; onChanged: () => void }) {
  const client = useQueryClient()
  const onSuccess = () => {
    onChanged()
    return client.invalidateQueries({ queryKey: teams.queryKey })
  }
  const save = useMutation({ mutationFn: (picture: File) => saveLogo(team.name, picture), onSuccess })
  const remove = useMutation({ mutationFn: () => removeLogo(team.name), onSuccess })
  return (
    <div className="d-flex gap-2 flex-wrap align-items-end mt-2">
      <Form.Group controlId={`team-logo-${team.name}`}>
        <Form.Label className="mb-0 small quiet">{t('setup.logo')}</Form.Label>
        <Form.Control
          type="file"
          size="sm"
          accept="image/png,image/jpeg"
          onChange={(event) => {
            const picture = (event.target as HTMLInputElement).files?.[0]
            if (picture) save.mutate(picture)
          }}
        />
      </Form.Group>
      {team.hasLogo && (
        <Button size="sm" variant="plain" disabled={remove.isPending} onClick={() => remove.mutate()}>
          {t('setup.remove_logo')}
        </Button>
      )}
      <div role="status">
        <Refusal error={save.error ?? remove.error} />
      </div>
    </div>
  )
}
