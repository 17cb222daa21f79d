import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useNavigate } from 'react-router'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { nameFrom } from '../../shared/names'
import { copyRule } from './api'
import { t } from '../../messages'

/** Copies the rule: a draft without memory and recipients. */
export function CopyRule({ name, title, onLeave }: { name: string; title: string; onLeave: () => void }) {
  const [newTitle, setNewTitle] = useState(t('rules.title_of_copy', { title }))
  const [newName, setNewName] = useState(nameFrom(t('rules.title_of_copy', { title })))
  const client = useQueryClient()
  const go = useNavigate()
  const copy = useMutation({
    mutationFn: () => copyRule(name, { name: newName, title: newTitle }),
    onSuccess: async (made) => {
      await client.invalidateQueries({ queryKey: ['rules'] })
      await go(`/rules/${made.name}/edit`)
    },
  })
  return (
    <section className="sheet" aria-label={t('rules.copy')}>
      <Form
        className="d-flex flex-wrap gap-2 align-items-end"
        onSubmit={(event) => {
          event.preventDefault()
          copy.mutate()
        }}
      >
        <Form.Group controlId="copy-title" className="flex-grow-1">
          <Form.Label className="mb-0 small quiet">{t('rules.title_of_the_copy')}</Form.Label>
          <Form.Control
            autoFocus
            required
            value={newTitle}
            onChange={(event) => {
              if (newName === nameFrom(newTitle)) setNewName(nameFrom(event.target.value))
              setNewTitle(event.target.value)
            }}
          />
        </Form.Group>
        <Form.Group controlId="copy-name">
          <Form.Label className="mb-0 small quiet">{t('shared.name')}</Form.Label>
          <Form.Control
            required
            pattern="[a-z0-9][a-z0-9_\-]{0,79}"
            value={newName}
            onChange={(event) => setNewName(event.target.value)}
          />
        </Form.Group>
        <Button type="submit" disabled={copy.isPending}>
          {t('rules.copy_rule')}
        </Button>
        <Button variant="plain" onClick={onLeave}>
          {t('shared.cancel')}
        </Button>
      </Form>
      <p className="small quiet mt-2 mb-0">{t('rules.the_copy_is_a_draft')}</p>
      <div role="status">
        <Refusal error={copy.error} />
      </div>
    </section>
  )
}
