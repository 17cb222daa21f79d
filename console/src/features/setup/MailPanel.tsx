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
      <h2>Mail</h2>
      {operator
        ? <Button variant="plain" size="sm" className="mt-2" disabled={test.isPending} onClick={() => test.mutate()}>{test.isPending ? 'Asking the mail servers …' : 'Test the mail servers'}</Button>
        : <p className="small quiet mt-2 mb-0">An operator tests the mail servers.</p>}
      <div role="status">{test.data?.map((each) => <p key={each.server} className={each.reached ? 'told mt-2 mb-0' : 'told bad mt-2 mb-0'}>{each.server}: {each.words}</p>)}{test.error && <p className="told bad mt-2 mb-0">{test.error.message}</p>}</div>
      <p className="small quiet mt-2 mb-0">Its address, log-in and TLS are settings of the service. What is held or comes back stands in the <Link to="/outbox">outbox</Link>; who gets what under <Link to="/readers">readers</Link>.</p>
    </section>
  )
}
