import { useState } from 'react'
import { Alert, Button, Form } from 'react-bootstrap'
import { useSearchParams } from 'react-router'
import { useMutation } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { usePerson } from '../../shared/person'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { answerDevice, askingProgram } from './api'
import { t } from '../../messages'

/** Where a program without a browser is logged in: its code, what it is, and yes or no. */
export function DevicePage() {
  useTitle(t('access.log_in_a_program'))
  const person = usePerson()
  const [parameters] = useSearchParams()
  const [code, setCode] = useState(parameters.get('code') ?? '')
  const look = useMutation({ mutationFn: () => askingProgram(code) })
  const answer = useMutation({ mutationFn: (allow: boolean) => answerDevice(code, allow) })
  const asking = look.data
  return (
    <>
      <h1>{t('access.log_in_a_program')}</h1>
      <section className="sheet">
        <Form
          className="password"
          onSubmit={(event) => {
            event.preventDefault()
            answer.reset()
            look.mutate()
          }}
        >
          <Form.Group controlId="device-code" className="mb-3">
            <Form.Label>{t('access.code_that_the_program_shows')}</Form.Label>
            <Form.Control
              required
              autoFocus
              autoComplete="off"
              className="text-uppercase"
              value={code}
              onChange={(event) => {
                setCode(event.target.value)
                look.reset()
              }}
            />
          </Form.Group>
          {!asking && (
            <Button type="submit" disabled={look.isPending}>
              {t('access.continue')}
            </Button>
          )}
        </Form>
        <div role="status">
          <Refusal error={look.error ?? answer.error} />
          {answer.isSuccess && (
            <p className="callout mt-2 mb-0">
              {answer.variables ? t('access.program_allowed') : t('access.program_refused')}
            </p>
          )}
        </div>
        {asking && !answer.isSuccess && (
          <>
            <dl className="facts mb-3">
              <dt>{t('access.program')}</dt>
              <dd>{asking.name}</dd>
              <dt>{t('access.asked_from')}</dt>
              <dd>{t('access.address_at_time', { address: asking.address, time: timeWords(asking.begunAt) })}</dd>
              <dt>{t('access.will_act_as')}</dt>
              <dd>{person.name}</dd>
            </dl>
            <Alert variant="warning">{t('access.allow_only_what_you_started')}</Alert>
            <div className="d-flex gap-2">
              <Button disabled={answer.isPending} onClick={() => answer.mutate(true)}>
                {t('access.allow')}
              </Button>
              <Button variant="plain" disabled={answer.isPending} onClick={() => answer.mutate(false)}>
                {t('access.refuse')}
              </Button>
            </div>
          </>
        )}
      </section>
    </>
  )
}
