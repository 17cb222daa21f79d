import { useState } from 'react'
import { Form } from 'react-bootstrap'
import { t } from '../../messages'

/** A new password, typed twice. */
export function PasswordFields({ password, onChange }: { password: string; onChange: (password: string) => void }) {
  const [again, setAgain] = useState('')
  return (
    <>
      <Form.Group controlId="new-password" className="mb-3">
        <Form.Label>{t('access.new_password')}</Form.Label>
        <Form.Control
          type="password"
          autoComplete="new-password"
          required
          value={password}
          onChange={(event) => onChange(event.target.value)}
        />
        <Form.Text className="small">{t('access.password_help')}</Form.Text>
      </Form.Group>
      <Form.Group controlId="new-password-again" className="mb-3">
        <Form.Label>{t('access.new_password_again')}</Form.Label>
        <Form.Control
          type="password"
          autoComplete="new-password"
          required
          value={again}
          ref={(field: HTMLInputElement | null) =>
            field?.setCustomValidity(again === password ? '' : t('access.passwords_differ'))
          }
          onChange={(event) => setAgain(event.target.value)}
        />
      </Form.Group>
    </>
  )
}
