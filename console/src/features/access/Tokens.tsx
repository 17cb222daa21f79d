import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { usePerson } from '../../shared/person'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { createToken, everybodysTokens, revokeToken, tokens, type Token } from './api'
import { t } from '../../messages'

const uses: [Token['scope'], string][] = [
  ['READ', t('access.use_read')],
  ['CHECK', t('access.use_check')],
  ['WRITE', t('access.use_write')],
  ['OPERATE', t('access.use_operate')],
]

/** What a token is for, in words. */
const wordsOfUse = (scope: Token['scope']) => uses.find(([code]) => code === scope)?.[1] ?? scope

/** One's tokens: made with a name, a use and an end, shown once, revoked. */
export function Tokens() {
  const operator = usePerson().role === 'OPERATOR'
  const [everybody, setEverybody] = useState(false)
  const all = useQuery(everybody ? everybodysTokens : tokens)
  return (
    <section className="sheet">
      <h2>{t('access.tokens')}</h2>
      <p className="small quiet mb-2">{t('access.tokens_help')}</p>
      {operator && (
        <Form.Check
          id="everybodys-tokens"
          type="switch"
          className="small mb-2"
          label={t('access.tokens_of_everybody')}
          checked={everybody}
          onChange={(event) => setEverybody(event.target.checked)}
        />
      )}
      <Loaded query={all} what={t('loading.the_tokens')}>
        {(list) =>
          list.length === 0 ? (
            <p className="quiet">{t('access.no_tokens')}</p>
          ) : (
            <Listed list={list} named={everybody} />
          )
        }
      </Loaded>
      <NewToken />
    </section>
  )
}

/** @param named whether each is said to be whose */
function Listed({ list, named }: { list: Token[]; named: boolean }) {
  const client = useQueryClient()
  const revoke = useMutation({
    mutationFn: (id: string) => revokeToken(id),
    onSuccess: () => client.invalidateQueries({ queryKey: tokens.queryKey }),
  })
  return (
    <Scroll label={t('access.tokens')}>
      <Table size="sm" className="cards">
        <thead>
          <tr>
            <th>{t('shared.name')}</th>
            {named && <th>{t('access.token_of')}</th>}
            <th>{t('access.use')}</th>
            <th>{t('access.expires')}</th>
            <th>{t('access.last_used')}</th>
            <th>
              <span className="visually-hidden">{t('shared.change')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {list.map(({ id, name, login, scope, expiresAt, lastUsedAt }) => (
            <tr key={id}>
              <td className="main">{name}</td>
              {named && <td data-label={t('access.token_of')}>{login}</td>}
              <td data-label={t('access.use')}>{wordsOfUse(scope)}</td>
              <td data-label={t('access.expires')}>{timeWords(expiresAt)}</td>
              <td data-label={t('access.last_used')}>
                {lastUsedAt ? timeWords(lastUsedAt) : <span className="quiet">{t('access.never')}</span>}
              </td>
              <td>
                <Button
                  size="sm"
                  variant="plain"
                  aria-label={t('access.revoke_one', { name })}
                  disabled={revoke.isPending}
                  onClick={() => revoke.mutate(id)}
                >
                  {t('access.revoke')}
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <Refusal error={revoke.error} />
    </Scroll>
  )
}

/** @param user the service account that it is for; none for one's own */
export function NewToken({ user }: { user?: string }) {
  const [name, setName] = useState('')
  const [scope, setScope] = useState<Token['scope']>('READ')
  const [days, setDays] = useState('30')
  const client = useQueryClient()
  const create = useMutation({
    mutationFn: () => createToken({ name: name.trim(), scope, days: Number(days) }, user),
    onSuccess: () => {
      setName('')
      return client.invalidateQueries({ queryKey: tokens.queryKey })
    },
  })
  return (
    <Form
      className="d-flex flex-wrap gap-2 align-items-end"
      onSubmit={(event) => {
        event.preventDefault()
        create.mutate()
      }}
    >
      <Form.Group controlId="token-name" className="flex-grow-1">
        <Form.Label className="mb-0 small quiet">{t('access.name_of_a_new_token')}</Form.Label>
        <Form.Control
          size="sm"
          required
          maxLength={200}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </Form.Group>
      <Choice
        id="token-scope"
        label={t('access.use')}
        value={scope}
        options={uses}
        onChange={(value) => setScope(uses.find(([code]) => code === value)?.[0] ?? 'READ')}
      />
      <Form.Group controlId="token-days">
        <Form.Label className="mb-0 small quiet">{t('access.days')}</Form.Label>
        <Form.Control
          size="sm"
          type="number"
          min={1}
          max={366}
          required
          value={days}
          onChange={(event) => setDays(event.target.value)}
        />
      </Form.Group>
      <Button type="submit" size="sm" variant="plain" disabled={create.isPending || name.trim() === ''}>
        {t('access.create_token')}
      </Button>
      <div role="status" className="w-100">
        <Refusal error={create.error} />
        {create.data && (
          <p className="callout mt-2 mb-0">
            {t('access.token_shown_once')}
            <br />
            <code className="user-select-all">{create.data.token}</code>
          </p>
        )}
      </div>
    </Form>
  )
}
