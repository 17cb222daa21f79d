import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { useSearchParams } from 'react-router'
import { Scroll } from '../../shared/Scroll'
import { useMay } from '../../shared/may'
import { measureWords, stateWords } from '../../shared/words'
import type { ThresholdPage } from './api'
import { ValuesEditor } from './ValuesEditor'
import { t } from '../../messages'

export const forWhom = (key: string[]) => (key.length === 0 ? t('thresholds.default') : key.join(', '))

const setters = (owner: string | null) =>
  owner === null ? t('thresholds.leads_set_values') : t('thresholds.leads_of_the_owner_set_values', { owner })

export function Values({ page }: { page: ThresholdPage }) {
  const [search, setSearch] = useSearchParams()
  const lead = useMay()('lead', page.threshold.owner ?? undefined)
  const number = search.get('value')
  const suggested = number === null ? null : { number, reason: search.get('reason') ?? '' }
  const [edited, setEdited] = useState(suggested !== null)
  const leave = () => {
    setEdited(false)
    if (suggested) setSearch({}, { replace: true })
  }
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('thresholds.values')}</h2>
        {!edited && lead && (
          <Button size="sm" variant="plain" onClick={() => setEdited(true)}>
            {t('thresholds.edit_or_plan_values')}
          </Button>
        )}
      </div>
      {!lead && <p className="small quiet mb-0">{setters(page.threshold.owner)}</p>}
      {edited ? (
        <ValuesEditor page={page} suggested={suggested} onLeave={leave} />
      ) : page.values.length === 0 ? (
        <p className="quiet mt-2 mb-0">{t('thresholds.no_value_yet_conditions_that')}</p>
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
    <Scroll label={t('thresholds.values')}>
      <Table>
        <thead>
          <tr>
            {kept && <th>{key.join(', ')}</th>}
            <th>{t('thresholds.from_heading')}</th>
            <th className="num">{t('thresholds.value')}</th>
            <th>
              <span className="visually-hidden">{t('thresholds.when')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {page.values.map((value, index) => (
            <tr key={index} className={value.when === 'PAST' ? 'quiet' : ''}>
              {kept && <td>{forWhom(value.key)}</td>}
              <td>{value.from ?? t('thresholds.always')}</td>
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
