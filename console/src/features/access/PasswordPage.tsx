import { useState } from 'react'
import { Alert, Button } from 'react-bootstrap'
import { useLocation } from 'react-router'
import { useMutation } from '@tanstack/react-query'
import { Mark } from '../../shared/Mark'
import { useTitle } from '../../shared/title'
import { setPassword } from './api'
import { PasswordFields } from './PasswordFields'
import { t } from '../../messages'

/** Where the link of an invitation leads, and that of a forgotten password. The link's proof stands behind the hash sign. */
export function PasswordPage() {
  useTitle(t('access.set_password'))
  const token = useLocation().hash.slice(1)
  const [password, put] = useState('')
  const set = useMutation({ mutationFn: () => setPassword(token, password) })
  return (
    <main className="login">
      <div className="brand mb-2">
        <Mark />
        {t('shared.odd_sentry')}
      </div>
      <form
        className="sheet"
        onSubmit={(event) => {
          event.preventDefault()
          set.mutate()
        }}
      >
        <h1 className="mb-3">{t('access.set_password')}</h1>
        {set.isSuccess ? (
          <>
            <p>{t('access.password_is_set')}</p>
            {/* A full load, so that another user's session does not stay. */}
            <a className="btn btn-primary" href="/">
              {t('access.log_in')}
            </a>
          </>
        ) : token === '' ? (
          <p className="mb-0">{t('access.link_without_proof')}</p>
        ) : (
          <>
            {set.isError && <Alert variant="danger">{set.error.message}</Alert>}
            <PasswordFields password={password} onChange={put} />
            <Button type="submit" disabled={set.isPending}>
              {t('access.set_password')}
            </Button>
          </>
        )}
      </form>
    </main>
  )
}
