import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { pageOf } from '../archive/retired'
import { belongings, handOverUser, type Belongings, type Somebody } from './api'
import { t } from '../../messages'

type Props = { user: Somebody; others: Somebody[]; onDisable: () => void }

/** What depends on a user: seen and handed over before they are disabled. */
export function UserBelongings({ user, others, onDisable }: Props) {
  const all = useQuery(belongings(user.login))
  const [disabling, setDisabling] = useState(false)
  return (
    <div className="mt-3">
      <h4 className="h6">{t('setup.what_depends_on_user')}</h4>
      <Loaded query={all} what={t('loading.what_depends_on_the_user')}>
        {(found) => (
          <>
            <Listed found={found} />
            {found.mailedBy.length + found.reachedFor.length + found.taken.length > 0 && (
              <HandOver user={user} others={others} />
            )}
          </>
        )}
      </Loaded>
      {user.active && !disabling && (
        <Button size="sm" variant="plain" onClick={() => setDisabling(true)}>
          {t('setup.disable_user')}
        </Button>
      )}
      {user.active && disabling && (
        <div className="callout mt-2">
          <p className="mb-2">{t('setup.disable_question', { name: user.name })}</p>
          <Button size="sm" variant="danger" onClick={onDisable}>
            {t('setup.disable_user')}
          </Button>{' '}
          <Button size="sm" variant="plain" onClick={() => setDisabling(false)}>
            {t('shared.cancel')}
          </Button>
        </div>
      )}
    </div>
  )
}

function Listed({ found }: { found: Belongings }) {
  const { aloneIn, reachedFor, mailedBy, taken, drafts, tokens } = found
  if (aloneIn.length + reachedFor.length + mailedBy.length + taken.length + drafts.length + tokens === 0)
    return <p className="quiet small mb-2">{t('setup.nothing_depends_on_user')}</p>
  return (
    <ul className="small mb-2">
      {aloneIn.map((team) => (
        <li key={`team ${team}`}>{t('setup.alone_in', { team })}</li>
      ))}
      {reachedFor.map((team) => (
        <li key={`address ${team}`}>{t('setup.reached_for', { team })}</li>
      ))}
      {mailedBy.map(({ kind, name, title, retired }) => (
        <li key={`${kind} ${name}`}>
          {t('setup.mailed_by')} <Link to={pageOf(kind, name)}>{title}</Link>
          {retired && <span className="quiet"> {t('setup.retired')}</span>}
        </li>
      ))}
      {taken.map(({ name, count }) => (
        <li key={`taken ${name}`}>
          {t('setup.has_taken', { count })} <Link to={pageOf('rule', name)}>{name}</Link>
        </li>
      ))}
      {drafts.map(({ name }) => (
        <li key={`draft ${name}`}>
          {t('setup.draft_not_applied')} <Link to={pageOf('rule', name)}>{name}</Link>
        </li>
      ))}
      {tokens > 0 && <li>{t('setup.tokens_that_end', { tokens })}</li>}
    </ul>
  )
}

function HandOver({ user, others }: { user: Somebody; others: Somebody[] }) {
  const [to, setTo] = useState('')
  const [reason, setReason] = useState('')
  const client = useQueryClient()
  const act = useMutation({
    mutationFn: () => handOverUser(user.login, to, reason),
    onSuccess: () => client.invalidateQueries(),
  })
  if (others.length === 0) return null
  return (
    <Form
      className="d-flex gap-2 flex-wrap align-items-end mb-2"
      onSubmit={(event) => {
        event.preventDefault()
        act.mutate()
      }}
    >
      <Choice
        id={`hand-over-to-${user.login}`}
        label={t('setup.mail_and_findings_go_to')}
        value={to}
        options={[['', t('setup.choose_a_user')], ...others.map(({ login, name }) => [login, name] as const)]}
        onChange={setTo}
      />
      <Form.Group controlId={`hand-over-why-${user.login}`}>
        <Form.Label className="mb-0 small quiet">{t('shared.reason')}</Form.Label>
        <Form.Control size="sm" maxLength={500} value={reason} onChange={(event) => setReason(event.target.value)} />
      </Form.Group>
      <Button type="submit" size="sm" variant="plain" disabled={act.isPending || to === ''}>
        {t('setup.hand_over')}
      </Button>
      <div role="status" className="w-100">
        <Refusal error={act.error} />
      </div>
    </Form>
  )
}
