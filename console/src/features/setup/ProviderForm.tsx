import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Refusal } from '../../shared/Refusal'
import { teams } from './api'
import { identityProviders, saveProvider, type Provider, type ProviderAsk } from './providers'
import { roles, roleWords } from './roles'
import { t } from '../../messages'

const blank: ProviderAsk = {
  title: '',
  issuer: 'https://',
  clientId: '',
  scopes: ['profile', 'email'],
  loginClaim: 'preferred_username',
  groupClaim: 'groups',
  knownBy: 'NOTHING',
  addsPeople: true,
  otherRole: null,
  addressesVerified: false,
  active: true,
  groups: [],
}

function ask(of?: Provider): ProviderAsk {
  if (!of) return blank
  const { title, issuer, clientId, loginClaim, groupClaim, knownBy, addsPeople, otherRole } = of
  const { addressesVerified, active, groups } = of
  const scopes = of.scopes.filter((scope) => scope !== 'openid')
  return {
    ...{ title, issuer, clientId, scopes, loginClaim, groupClaim, knownBy, addsPeople, otherRole },
    ...{ addressesVerified, active, groups },
  }
}

/** Adds an identity provider, or changes one. */
export function ProviderForm({ provider }: { provider?: Provider }) {
  const id = provider?.name ?? 'new-provider'
  const client = useQueryClient()
  const [name, setName] = useState(provider?.name ?? '')
  const [wanted, setWanted] = useState<ProviderAsk>(ask(provider))
  const put = (part: Partial<ProviderAsk>) => setWanted({ ...wanted, ...part })
  const save = useMutation({
    mutationFn: () => saveProvider(name, wanted),
    onSuccess: async (saved) => {
      if (provider) setWanted(ask(saved))
      else {
        setName('')
        setWanted(blank)
      }
      await client.invalidateQueries({ queryKey: identityProviders.queryKey })
    },
  })
  const text = (field: 'title' | 'issuer' | 'clientId' | 'loginClaim' | 'groupClaim', label: string, whole = false) => (
    <Form.Group controlId={`${id}-${field}`} {...(whole && { className: 'whole' })}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Control
        size="sm"
        required
        value={wanted[field] ?? ''}
        onChange={(event) => put({ [field]: event.target.value })}
      />
    </Form.Group>
  )
  const check = (field: 'addsPeople' | 'addressesVerified' | 'active', label: string) => (
    <Form.Check
      id={`${id}-${field}`}
      label={label}
      checked={wanted[field]}
      onChange={(event) => put({ [field]: event.target.checked })}
    />
  )
  return (
    <details className="entry">
      <summary>{provider ? t('setup.change', { name: provider.title }) : t('setup.add_identity_provider')}</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          save.mutate()
        }}
      >
        <div className="fields">
          {!provider && (
            <Form.Group controlId={`${id}-name`}>
              <Form.Label className="mb-0 small quiet">{t('setup.name_in_addresses')}</Form.Label>
              <Form.Control
                size="sm"
                required
                pattern="[a-z0-9][a-z0-9\-]{0,39}"
                value={name}
                onChange={(event) => setName(event.target.value)}
              />
            </Form.Group>
          )}
          {text('title', t('setup.title_on_the_log_in_page'))}
          {text('issuer', t('setup.issuer'), true)}
          {text('clientId', t('setup.client_id'))}
          <Form.Group controlId={`${id}-secret`}>
            <Form.Label className="mb-0 small quiet">{t('setup.client_secret')}</Form.Label>
            <Form.Control
              size="sm"
              type="password"
              autoComplete="new-password"
              placeholder={provider?.hasSecret ? t('setup.unchanged') : ''}
              value={wanted.clientSecret ?? ''}
              onChange={(event) => put({ clientSecret: event.target.value === '' ? null : event.target.value })}
            />
          </Form.Group>
          <GroupLines id={id} wanted={wanted} onChange={put} />
          <Choice
            id={`${id}-known`}
            label={t('setup.recognise_users_by')}
            value={wanted.knownBy ?? 'NOTHING'}
            options={[
              ['NOTHING', t('setup.recognise_nobody')],
              ['ADDRESS', t('setup.recognise_by_address')],
              ['LOG_IN_NAME', t('setup.recognise_by_log_in_name')],
            ]}
            onChange={(knownBy) => put({ knownBy: knownBy === '' ? 'NOTHING' : knownBy })}
          />
          <p className="whole small quiet mb-0">{t('setup.recognise_help')}</p>
          <div className="whole">
            {check('addsPeople', t('setup.adds_users'))}
            {check('addressesVerified', t('setup.addresses_verified'))}
            {check('active', t('setup.provider_active'))}
          </div>
          {text('groupClaim', t('setup.group_claim'))}
          {text('loginClaim', t('setup.login_claim'))}
          <Form.Group controlId={`${id}-scopes`}>
            <Form.Label className="mb-0 small quiet">{t('setup.scopes')}</Form.Label>
            <Form.Control
              size="sm"
              value={(wanted.scopes ?? []).join(' ')}
              onChange={(event) => put({ scopes: event.target.value.split(' ') })}
              onBlur={() => put({ scopes: (wanted.scopes ?? []).filter((scope) => scope !== '') })}
            />
          </Form.Group>
        </div>
        <Button type="submit" size="sm" variant="plain" className="mt-2" disabled={save.isPending}>
          {t('setup.save_identity_provider')}
        </Button>
        <div role="status">
          <Refusal error={save.error} />
          {save.isSuccess && (
            <p className="callout mt-2 mb-0 text-break">
              {t('setup.provider_saved', { address: save.data.returnAddress })}
            </p>
          )}
        </div>
      </Form>
    </details>
  )
}

type LinesProps = { id: string; wanted: ProviderAsk; onChange: (part: Partial<ProviderAsk>) => void }

/** What its groups mean here; the first line that fits decides the role. */
function GroupLines({ id, wanted, onChange }: LinesProps) {
  const known = useQuery(teams)
  const names = (known.data ?? []).map((team) => team.name)
  const roleOptions = roles.map((role) => [role, roleWords(role)] as const)
  const put = (at: number, part: Partial<ProviderAsk['groups'][number]>) =>
    onChange({ groups: wanted.groups.map((line, index) => (index === at ? { ...line, ...part } : line)) })
  return (
    <fieldset className="whole">
      <legend className="mb-0 small quiet">{t('setup.groups')}</legend>
      {wanted.groups.map((line, index) => (
        // Lines have no other name than their place.
        <div key={index} className="fields in-order">
          <Form.Group controlId={`${id}-group-${index}`}>
            <Form.Label className="mb-0 small quiet">{t('setup.group')}</Form.Label>
            <Form.Control
              size="sm"
              required
              value={line.group}
              onChange={(event) => put(index, { group: event.target.value })}
            />
          </Form.Group>
          <Choice
            id={`${id}-role-${index}`}
            label={t('setup.role')}
            value={line.role}
            options={roleOptions}
            onChange={(role) => put(index, { role: role === '' ? 'READER' : role })}
          />
          <Choice
            id={`${id}-team-${index}`}
            label={t('shared.team')}
            value={line.team ?? ''}
            options={[['', t('shared.none')], ...names.map((team) => [team, team] as [string, string])]}
            onChange={(team) => put(index, { team: team === '' ? null : team })}
          />
          <div className="align-self-end">
            <Button
              size="sm"
              variant="plain"
              aria-label={t('setup.remove_group', { group: line.group })}
              onClick={() => onChange({ groups: wanted.groups.filter((_, at) => at !== index) })}
            >
              {t('setup.remove_line')}
            </Button>
          </div>
        </div>
      ))}
      <Button
        size="sm"
        variant="plain"
        className="mb-2"
        onClick={() => onChange({ groups: [...wanted.groups, { group: '', role: 'READER', team: null }] })}
      >
        {t('setup.add_group')}
      </Button>
      <div className="fields">
        <Choice
          id={`${id}-others`}
          label={t('setup.role_of_others')}
          value={wanted.otherRole ?? ''}
          options={[['', t('setup.no_access')], ...roleOptions]}
          onChange={(role) => onChange({ otherRole: role === '' ? null : role })}
        />
      </div>
      <p className="small quiet mb-0">{t('setup.groups_help')}</p>
    </fieldset>
  )
}
