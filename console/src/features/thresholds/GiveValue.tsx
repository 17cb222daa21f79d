import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { numberWords } from '../../shared/words'
import { effectOf, give, type Effect, type NewValue, type ThresholdSummary } from './api'

/** Gives or plans a value; what it would do to each rule can be counted first. */
export function GiveValue({ threshold }: { threshold: ThresholdSummary }) {
  const [key, setKey] = useState<string[]>(() => threshold.key.map(() => ''))
  const [number, setNumber] = useState('')
  const [from, setFrom] = useState('')
  const [remark, setRemark] = useState('')
  const client = useQueryClient()
  const given = key.filter((part) => part.trim() !== '')
  const value: NewValue = { key: given, from: from || null, number: number || null }
  const effect = useMutation({ mutationFn: () => effectOf(threshold.name, value) })
  const save = useMutation({
    mutationFn: () => give(threshold.name, value, remark),
    onSuccess: async () => {
      setRemark('')
      effect.reset()
      await client.invalidateQueries({ queryKey: ['thresholds'] })
    },
  })
  return (
    <section className="sheet">
      <h2>Give or plan a value</h2>
      <Form className="mt-2" onSubmit={(event) => { event.preventDefault(); save.mutate() }}>
        {threshold.key.map((part, index) => (
          <Form.Group key={part} controlId={`key-${part}`} className="mb-2">
            <Form.Label className="mb-0">{part} <span className="quiet">(left empty: all others)</span></Form.Label>
            <Form.Control size="sm" value={key[index] ?? ''} onChange={(event) => setKey(key.map((each, i) => (i === index ? event.target.value : each)))} />
          </Form.Group>
        ))}
        <div className="d-flex gap-3 flex-wrap">
          <Form.Group controlId="number" className="mb-2">
            <Form.Label className="mb-0">Value {threshold.unit && <span className="quiet">({threshold.unit})</span>}</Form.Label>
            <Form.Control size="sm" inputMode="decimal" value={number} onChange={(event) => setNumber(event.target.value)} />
          </Form.Group>
          <Form.Group controlId="from" className="mb-2">
            <Form.Label className="mb-0">From <span className="quiet">(left empty: always)</span></Form.Label>
            <Form.Control size="sm" type="date" value={from} onChange={(event) => setFrom(event.target.value)} />
          </Form.Group>
        </div>
        <Form.Group controlId="remark" className="mb-2">
          <Form.Label className="mb-0">Why</Form.Label>
          <Form.Control size="sm" value={remark} onChange={(event) => setRemark(event.target.value)} />
        </Form.Group>
        <div className="d-flex gap-2">
          <Button variant="plain" onClick={() => effect.mutate()} disabled={effect.isPending || number === ''}>Count the effect</Button>
          <Button type="submit" disabled={save.isPending || number === '' || remark.trim() === ''}>Save the value</Button>
        </div>
      </Form>
      <div role="status">
        {effect.data && <Effects effects={effect.data} />}
        {(effect.error ?? save.error) && <p className="told bad">{(effect.error ?? save.error)?.message}</p>}
        {save.isSuccess && <p className="told">Saved. Checks use it from now on.</p>}
      </div>
    </section>
  )
}

function Effects({ effects }: { effects: Effect[] }) {
  if (effects.length === 0) return <p className="told">No rule uses it.</p>
  return (
    <ul className="told list-unstyled">
      {effects.map((each) => (
        <li key={each.rule}>
          {each.title}: {each.refused ?? `${numberWords(each.before ?? 0)} exceptions now, ${numberWords(each.after ?? 0)} with this value`}
        </li>
      ))}
    </ul>
  )
}
