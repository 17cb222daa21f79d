import { useEffect } from 'react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Person } from '../../api/types'
import { logInOptions, session } from './api'
import { expiry } from './expiry'
import { LogInForm } from './LogInForm'
import { SignOnLinks } from './SignOn'
import { t } from '../../messages'

/** The log-in above a page whose session has ended; what was typed there stays. For another user the page is loaded again. */
export function ExpiredSession({ person }: { person: Person }) {
  const client = useQueryClient()
  const options = useQuery(logInOptions)
  const providers = options.data?.providers ?? []
  const goOn = async (who: Person) => {
    if (who.login !== person.login) {
      location.reload()
      return
    }
    client.setQueryData(session.queryKey, who)
    client.setQueryData(expiry.queryKey, false)
    await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'documents' })
  }
  // An identity provider has a page of its own, beside this one.
  useEffect(() => {
    const look = () =>
      void api.get<Person>('/api/session').then(
        (who) => goOn(who),
        () => undefined,
      )
    window.addEventListener('focus', look)
    return () => window.removeEventListener('focus', look)
  })
  return (
    <div className="expired" role="dialog" aria-modal="true" aria-labelledby="expired-title">
      <LogInForm known={person.login} onLoggedIn={(who) => void goOn(who)}>
        <h1 id="expired-title" className="mb-2">
          {t('access.session_expired')}
        </h1>
        <p className="quiet">{t('access.session_expired_help')}</p>
        {providers.length > 0 && (
          <>
            <SignOnLinks providers={providers} apart />
            <p className="small quiet">{t('access.session_expired_apart')}</p>
          </>
        )}
      </LogInForm>
    </div>
  )
}
