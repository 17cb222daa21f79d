import { useState, type ReactNode, type SubmitEvent } from 'react'
import { Alert, Button, Form } from 'react-bootstrap'
import { useMutation } from '@tanstack/react-query'
import type { Person } from '../../api/types'
import { logIn } from './api'
import { t } from '../../messages'

type Props = {
  /** The name of who was logged in before. */
  known?: string
  onLoggedIn: (person: Person) => void
  children: ReactNode
}

/** Name and password; what stands above them comes with it. */
export function LogInForm({ known = '', onLoggedIn, children }: Props) {
  const [login, setLogin] = useState(known)
  const [password, setPassword] = useState('')
  const attempt = useMutation({ mutationFn: () => logIn(login, password), onSuccess: onLoggedIn })
  const submit = (event: SubmitEvent) => {
    event.preventDefault()
    attempt.mutate()
  }
  return (
    <Form className="sheet" onSubmit={submit}>
      {children}
      {attempt.isError && <Alert variant="danger">{attempt.error.message}</Alert>}
      <Form.Group controlId="login" className="mb-3">
        <Form.Label>{t('access.log_in_name')}</Form.Label>
        <Form.Control
          autoComplete="username"
          autoFocus={known === ''}
          required
          value={login}
          onChange={(event) => setLogin(event.target.value)}
        />
      </Form.Group>
      <Form.Group controlId="password" className="mb-3">
        <Form.Label>{t('shared.password')}</Form.Label>
        <Form.Control
          type="password"
          autoComplete="current-password"
          autoFocus={known !== ''}
          required
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
      </Form.Group>
      <Button type="submit" disabled={attempt.isPending}>
        {attempt.isPending ? t('access.logging_in') : t('access.log_in')}
      </Button>
    </Form>
  )
}
