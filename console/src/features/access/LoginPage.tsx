import { useState } from 'react'
import { Alert, Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Mark } from '../../shared/Mark'
import { useTitle } from '../../shared/title'
import { logInOptions, requestPasswordLink, session } from './api'
import { LogInForm } from './LogInForm'
import { SignOnLinks, SignOnRefusal } from './SignOn'
import { t } from '../../messages'

export function LoginPage() {
  useTitle(t('access.log_in'))
  const options = useQuery(logInOptions)
  const providers = options.data?.providers ?? []
  return (
    <main className="login">
      <div className="brand mb-2">
        <Mark />
        {t('shared.odd_sentry')}
      </div>
      <SignOnRefusal />
      {providers.length === 0 ? (
        !options.isPending && <PasswordLogIn title={t('access.log_in')} />
      ) : (
        <>
          <section className="sheet">
            <h1 className="mb-3">{t('access.log_in')}</h1>
            <SignOnLinks providers={providers} />
          </section>
          <details className="entry mt-3">
            <summary>
              {options.data?.passwords === false ? t('access.emergency_log_in') : t('access.log_in_with_password')}
            </summary>
            <PasswordLogIn />
          </details>
        </>
      )}
      {options.data?.passwords !== false && <ForgottenPassword />}
    </main>
  )
}

function PasswordLogIn({ title }: { title?: string }) {
  const client = useQueryClient()
  return (
    <LogInForm onLoggedIn={(person) => client.setQueryData(session.queryKey, person)}>
      {title && <h1 className="mb-3">{title}</h1>}
    </LogInForm>
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
