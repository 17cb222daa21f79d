import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import { measureWords, stateWords } from '../../shared/words'
import type { ThresholdPage } from './api'
import { ValuesEditor } from './ValuesEditor'

export const forWhom = (key: string[]) => (key.length === 0 ? 'default' : key.join(', '))

export function Values({ page }: { page: ThresholdPage }) {
  const [edited, setEdited] = useState(false)
  return (
    <section className="sheet">
      <div className="head">
        <h2>Values</h2>
        {!edited && (
          <Button size="sm" variant="plain" onClick={() => setEdited(true)}>
            Edit or plan values
          </Button>
        )}
      </div>
      {edited ? (
        <ValuesEditor page={page} onLeave={() => setEdited(false)} />
      ) : page.values.length === 0 ? (
        <p className="quiet mt-2 mb-0">No value yet. Conditions that use it are unknown.</p>
      ) : (
        <ValuesTable page={page} />
      )}
    </section>
  )
}

function ValuesTable({ page }: { page: ThresholdPage }) {
  const { key, unit } = page.threshold
  const kept = key.length > 0
  return (
    <Scroll label="Values">
      <Table>
        <thead>
          <tr>
            {kept && <th>{key.join(', ')}</th>}
            <th>From</th>
            <th className="num">Value</th>
            <th>
              <span className="visually-hidden">When</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {page.values.map((value, index) => (
            <tr key={index} className={value.when === 'PAST' ? 'quiet' : ''}>
              {kept && <td>{forWhom(value.key)}</td>}
              <td>{value.from ?? 'always'}</td>
              <td className="num text-nowrap">
                {measureWords(value.number)} {unit}
              </td>
              <td>{value.when === 'NOW' ? '' : <span className="tag">{stateWords(value.when)}</span>}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
