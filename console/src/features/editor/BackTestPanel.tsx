import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { backTest, work, type RuleDocument, type Variant, type Work } from './api'
import { BackTestProgress } from './BackTestProgress'
import { t } from '../../messages'

/** How often the rule, as it is being edited, would have mailed over past slots. */
export function BackTestPanel({ document }: { document: RuleDocument }) {
  const [days, setDays] = useState('30')
  const [name, setName] = useState('')
  const [values, setValues] = useState('')
  const [copy, setCopy] = useState('')
  const onTrial: Record<string, string[]> =
    name.trim() && values.trim() ? { [name.trim()]: values.split(/[,;]\s*/).map((each) => each.trim()) } : {}
  const start = useMutation({
    mutationFn: () => backTest(Number(days), { thresholds: onTrial, conditions: [] }, document, copy.trim() || null),
  })
  return (
    <section className="mt-4" aria-label={t('editor.back_test')}>
      <h3>{t('editor.back_test')}</h3>
      <Form
        className="d-flex gap-2 align-items-end flex-wrap mt-2"
        onSubmit={(event) => {
          event.preventDefault()
          start.mutate()
        }}
      >
        <Form.Group controlId="days">
          <Form.Label className="mb-0 small quiet">{t('editor.days_back')}</Form.Label>
          <Form.Control
            size="sm"
            type="number"
            min={1}
            max={3660}
            value={days}
            onChange={(event) => setDays(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="trial-name">
          <Form.Label className="mb-0 small quiet">{t('editor.try_threshold')}</Form.Label>
          <Form.Control
            size="sm"
            value={name}
            placeholder={t('shared.none')}
            onChange={(event) => setName(event.target.value)}
          />
        </Form.Group>
        <Form.Group controlId="trial-values">
          <Form.Label className="mb-0 small quiet">{t('editor.values_to_try')}</Form.Label>
          <Form.Control
            size="sm"
            value={values}
            placeholder="20, 25, 30"
            onChange={(event) => setValues(event.target.value)}
          />
        </Form.Group>
        {document.copies && (
          <Form.Group controlId="trial-copy">
            <Form.Label className="mb-0 small quiet">
              {t('editor.personal_copy', { key: document.copies.key })}
            </Form.Label>
            <Form.Control size="sm" required value={copy} onChange={(event) => setCopy(event.target.value)} />
          </Form.Group>
        )}
        <Button type="submit" variant="plain" disabled={start.isPending}>
          {t('shared.run')}
        </Button>
      </Form>
      <div role="status">
        {start.error && <p className="callout bad">{start.error.message}</p>}
        {start.data && <Progress key={start.data.id} asked={start.data} />}
      </div>
    </section>
  )
}

function Progress({ asked }: { asked: Work }) {
  const now = useQuery({ ...work(asked.id), initialData: asked })
  const { state, result } = now.data
  if (state === 'DONE' && result)
    return <Variants variants={result.variants} warmUp={result.warmUp} beyondStart={result.beyondStart ?? null} />
  return <BackTestProgress now={now.data} onStopped={() => void now.refetch()} />
}

const nameOf = (variant: Variant) =>
  Object.entries(variant.thresholds)
    .map(([name, value]) => `${name} ${value}`)
    .join(', ') || t('editor.as_saved')

function Variants({
  variants,
  warmUp,
  beyondStart,
}: {
  variants: Variant[]
  warmUp: number
  beyondStart: string | null
}) {
  return (
    <Scroll label={t('editor.back_test_results')}>
      <Table>
        <thead>
          <tr>
            <th>{t('editor.with')}</th>
            <th className="num">{t('shared.checks')}</th>
            <th className="num">{t('shared.messages')}</th>
            <th className="num">{t('editor.findings_reported')}</th>
            <th className="num">{t('editor.max_exceptions')}</th>
            <th className="num">{t('editor.unknown_groups')}</th>
          </tr>
        </thead>
        <tbody>
          {variants.map((variant) => (
            <tr key={nameOf(variant)}>
              <td>{nameOf(variant)}</td>
              <td className="num">{variant.checks}</td>
              <td className="num">{variant.messages}</td>
              <td className="num">{variant.updates}</td>
              <td className="num">{variant.highestExceptions}</td>
              <td className="num">{variant.unevaluated}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="small quiet mt-1 mb-0">
        {t('editor.calculated_from_todays_data_after', {
          warmUp,
          beyondStart: beyondStart && t('editor.the_schedule_starts_the_back', { beyondStart: timeWords(beyondStart) }),
        })}
      </p>
    </Scroll>
  )
}
