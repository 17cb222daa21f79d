import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation } from '@tanstack/react-query'
import { usePerson } from '../../shared/person'
import { testMail } from './api'
import { rich, t } from '../../messages'

/** The mail server: whether it takes a message from here. */
export function MailSetup() {
  const operator = usePerson().role === 'OPERATOR'
  const test = useMutation({ mutationFn: testMail })
  return (
    <section className="sheet">
      <h2>{t('setup.mail_servers')}</h2>
      {operator ? (
        <Button variant="plain" size="sm" className="mt-2" disabled={test.isPending} onClick={() => test.mutate()}>
          {test.isPending ? t('setup.testing_the_mail_servers') : t('setup.test_mail_servers')}
        </Button>
      ) : (
        <p className="small quiet mt-2 mb-0">{t('setup.only_operators_can_test_the')}</p>
      )}
      <div role="status">
        {test.data?.map((each) => (
          <p key={each.server} className={each.reached ? 'callout mt-2 mb-0' : 'callout bad mt-2 mb-0'}>
            {each.server}: {each.detail}
          </p>
        ))}
        {test.error && <p className="callout bad mt-2 mb-0">{test.error.message}</p>}
      </div>
      <p className="small quiet mt-2 mb-0">
        {rich('setup.address_log_in_and_tls', {
          link: (inner) => <Link to="/outbox">{inner}</Link>,
          link2: (inner) => <Link to="/recipients">{inner}</Link>,
        })}
      </p>
    </section>
  )
}
