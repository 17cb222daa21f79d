import { useQueryClient } from '@tanstack/react-query'
import type { Person } from '../../api/types'
import { session } from './api'
import { expiry } from './expiry'
import { LogInForm } from './LogInForm'
import { t } from '../../messages'

/** The log-in above a page whose session has ended; what was typed there stays. For another user the page is loaded again. */
export function ExpiredSession({ person }: { person: Person }) {
  const client = useQueryClient()
  const goOn = async (who: Person) => {
    if (who.login !== person.login) {
      location.reload()
      return
    }
    client.setQueryData(session.queryKey, who)
    client.setQueryData(expiry.queryKey, false)
    await client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'documents' })
  }
  return (
    <div className="expired" role="dialog" aria-modal="true" aria-labelledby="expired-title">
      <LogInForm known={person.login} onLoggedIn={(who) => void goOn(who)}>
        <h1 id="expired-title" className="mb-2">
          {t('access.session_expired')}
        </h1>
        <p className="quiet">{t('access.session_expired_help')}</p>
      </LogInForm>
    </div>
  )
}
