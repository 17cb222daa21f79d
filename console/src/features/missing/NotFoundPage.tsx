import { Link, useLocation } from 'react-router'
import { useTitle } from '../../shared/title'
import { rich, t } from '../../messages'

export function NotFoundPage() {
  const { pathname } = useLocation()
  useTitle(t('missing.page_not_found'))
  return (
    <>
      <h1>{t('missing.page_not_found')}</h1>
      <p className="sheet">
        {rich('missing.no_page_at_check_the', {
          code: (inner) => <code className="text-break">{inner}</code>,
          pathname,
          link: (inner) => <Link to="/today">{inner}</Link>,
          link2: (inner) => <Link to="/rules">{inner}</Link>,
        })}
      </p>
    </>
  )
}
