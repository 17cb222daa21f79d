import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { accessPolicy } from '../../shared/may'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { everybody, saveAccessPolicy } from './api'
import { ProviderForm } from './ProviderForm'
import { identityProviders, removeProvider, testProvider, type Provider } from './providers'
import { roleWords } from './roles'
import { t } from '../../messages'

/** How users log in: through which identity providers, and whether with passwords. For operators and auditors. */
export function SignOnPanel() {
  const all = useQuery(identityProviders)
  const operator = usePerson().role === 'OPERATOR'
  return (
    <section className="sheet">
      <h2>{t('setup.single_sign_on')}</h2>
      <Loaded query={all} what={t('loading.the_identity_providers')}>
        {(list) => (
          <>
            {list.length === 0 && <p className="quiet mt-2 mb-0">{t('setup.no_identity_providers')}</p>}
            {list.map((provider) => (
              <One key={provider.name} provider={provider} operator={operator} />
            ))}
          </>
        )}
      </Loaded>
      {operator && <ProviderForm />}
      <Passwords canChange={operator} />
    </section>
  )
}

function One({ provider, operator }: { provider: Provider; operator: boolean }) {
  const client = useQueryClient()
  const [removing, setRemoving] = useState(false)
  const test = useMutation({ mutationFn: () => testProvider(provider.name) })
  const remove = useMutation({
    mutationFn: () => removeProvider(provider.name),
    onSuccess: () => client.invalidateQueries({ queryKey: identityProviders.queryKey }),
  })
  return (
    <div className="mt-2">
      <strong>{provider.title}</strong> {!provider.active && <span className="quiet">{t('setup.provider_off')} </span>}
      {operator && (
        <>
          <Button variant="plain" size="sm" disabled={test.isPending} onClick={() => test.mutate()}>
            {t('setup.test_provider')}
          </Button>{' '}
          <Button variant="plain" size="sm" onClick={() => setRemoving(true)}>
            {t('setup.remove_provider')}
          </Button>
        </>
      )}
      <p className="small quiet mb-0 text-break">{provider.issuer}</p>
      <p className="small quiet mb-0 text-break">{groupWords(provider)}</p>
      <p className="small quiet mb-0 text-break">{t('setup.return_address', { address: provider.returnAddress })}</p>
      <div role="status" className="small">
        {test.data && (
          <>
            <span className="callout">
              {t('setup.provider_answers', {
                keys: test.data.keys,
                logsOut: test.data.logsOut ? t('setup.logs_out_there') : t('setup.offers_no_log_out'),
              })}
            </span>
            {test.data.warnings.map((warning) => (
              <div key={warning}>{warning}</div>
            ))}
          </>
        )}
        <Refusal error={test.error ?? remove.error} />
      </div>
      {removing && (
        <div className="callout mt-2">
          <p className="mb-2">{t('setup.remove_provider_question', { title: provider.title })}</p>
          <Button size="sm" variant="danger" disabled={remove.isPending} onClick={() => remove.mutate()}>
            {t('setup.remove_provider')}
          </Button>{' '}
          <Button size="sm" variant="plain" onClick={() => setRemoving(false)}>
            {t('shared.cancel')}
          </Button>
        </div>
      )}
      {operator && <ProviderForm provider={provider} />}
    </div>
  )
}

/** "reporting: lead, Traffic reporting; crew: reader; others: no access" */
function groupWords({ groups, otherRole }: Provider): string {
  const lines = groups.map(({ group, role, team }) =>
    t('setup.group_is', { group, role: roleWords(role), team: team && t('setup.and_team', { team }) }),
  )
  const others = otherRole ? roleWords(otherRole) : t('setup.no_access')
  return [...lines, t('setup.others_are', { others })].join('; ')
}

/** Whether passwords log users in, and who may in any case. */
function Passwords({ canChange }: { canChange: boolean }) {
  const policy = useQuery(accessPolicy)
  const users = useQuery(everybody)
  const client = useQueryClient()
  const save = useMutation({
    mutationFn: saveAccessPolicy,
    onSuccess: async (saved) => {
      client.setQueryData(accessPolicy.queryKey, saved)
      await client.invalidateQueries({ queryKey: ['log-in-options'] })
    },
  })
  if (!policy.data) return null
  const { passwords, emergencyOperator, teamsDecide } = policy.data
  const operators = (users.data ?? []).filter(({ role, active }) => role === 'OPERATOR' && active)
  return (
    <div className="mt-3">
      <fieldset disabled={!canChange || save.isPending}>
        <Form.Check
          type="switch"
          id="passwords"
          label={t('setup.passwords_log_in')}
          checked={passwords}
          onChange={(event) => save.mutate({ teamsDecide, passwords: event.target.checked })}
        />
        <p className="small quiet mb-2">{t('setup.passwords_help')}</p>
        <div className="fields">
          <Choice
            id="emergency-operator"
            label={t('setup.emergency_operator')}
            value={emergencyOperator ?? ''}
            options={[['', t('shared.none')], ...operators.map(({ login, name }) => [login, name] as [string, string])]}
            onChange={(login) => save.mutate({ teamsDecide, emergencyOperator: login })}
          />
        </div>
      </fieldset>
      <Refusal error={save.error} />
    </div>
  )
}
