import { Button } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation } from '@tanstack/react-query'
import { usePerson } from '../../shared/person'
import { testMail } from './api'

/** The mail server: whether it takes a message from here. */
export function MailSetup() {
  const operator = usePerson().role === 'OPERATOR'
  const test = useMutation({ mutationFn: testMail })
  return (
    <section className="sheet">
      <h2>Mail servers</h2>
      {operator ? (
        <Button variant="plain" size="sm" className="mt-2" disabled={test.isPending} onClick={() => test.mutate()}>
          {test.isPending ? 'Testing the mail servers …' : 'Test mail servers'}
        </Button>
      ) : (
        <p className="small quiet mt-2 mb-0">Only operators can test the mail servers.</p>
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
        Address, log-in and TLS are settings of the service. Held mail and blocked addresses are in the{' '}
        <Link to="/outbox">outbox</Link>; recipients are under <Link to="/recipients">Recipients</Link>.
      </p>
    </section>
  )
}
