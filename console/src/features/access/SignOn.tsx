import { Alert } from 'react-bootstrap'
import { useLocation } from 'react-router'
import type { LogInOptions } from './api'
import { t } from '../../messages'

/** A link for each identity provider. @param apart whether it opens beside this page, which then stays as it is */
export function SignOnLinks({ providers, apart = false }: { providers: LogInOptions['providers']; apart?: boolean }) {
  const { pathname, search } = useLocation()
  const returnTo = encodeURIComponent(apart || pathname === '/login' ? '/' : pathname + search)
  return (
    <div className={apart ? 'd-grid gap-2 mb-3' : 'd-grid gap-2'}>
      {providers.map(({ name, title }) => (
        <a
          key={name}
          className="btn btn-primary"
          href={`/sign-on/${name}?returnTo=${returnTo}`}
          {...(apart && { target: '_blank', rel: 'opener' })}
        >
          {t('access.log_in_through', { title })}
        </a>
      ))}
    </div>
  )
}

/** As the service says why. */
const refusals: Record<string, string> = {
  expired: t('access.sign_on_expired'),
  off: t('access.sign_on_off'),
  by_provider: t('access.sign_on_by_provider'),
  unreachable: t('access.sign_on_unreachable'),
  untrusted: t('access.sign_on_untrusted'),
  no_group: t('access.sign_on_no_group'),
  not_known: t('access.sign_on_not_known'),
  disabled: t('access.sign_on_disabled'),
}

/** Why an identity provider's log-in did not work, where the address says so. */
export function SignOnRefusal() {
  const { search } = useLocation()
  const refusal = refusals[new URLSearchParams(search).get('refused') ?? '']
  return refusal ? <Alert variant="danger">{refusal}</Alert> : null
}
