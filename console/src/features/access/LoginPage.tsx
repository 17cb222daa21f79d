import { useState } from 'react'
import { Alert, Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Mark } from '../../shared/Mark'
import { useTitle } from '../../shared/title'
import { requestPasswordLink, session } from './api'
import { LogInForm } from './LogInForm'
import { t } from '../../messages'

export function LoginPage() {
  useTitle(t('access.log_in'))
  const client = useQueryClient()
  return (
    <main className="login">
      <div className="brand mb-2">
        <Mark />
        {t('shared.odd_sentry')}
      </div>
      <LogInForm onLoggedIn={(person) => client.setQueryData(session.queryKey, person)}>
        <h1 className="mb-3">{t('access.log_in')}</h1>
      </LogInForm>
      <ForgottenPassword />
    </main>
  )
}

function ForgottenPassword() {
  const [login, setLogin] = useState('')
  const request = useMutation({ mutationFn: () => requestPasswordLink(login) })
  return (
    <details className="entry mt-3">
      <summary>{t('access.forgotten')}</summary>
      <Form
        onSubmit={(event) => {
          event.preventDefault()
          request.mutate()
        }}
      >
        <Form.Group controlId="forgotten-login" className="mb-2">
          <Form.Label>{t('access.log_in_name_or_address')}</Form.Label>
          <Form.Control required value={login} onChange={(event) => setLogin(event.target.value)} />
        </Form.Group>
        <Button type="submit" variant="plain" disabled={request.isPending}>
          {t('access.send_link')}
        </Button>
        <div role="status">
          {request.isError && <Alert variant="danger">{request.error.message}</Alert>}
          {request.isSuccess && <p className="callout mt-2 mb-0">{t('access.link_sent')}</p>}
        </div>
      </Form>
    </details>
  )
}
