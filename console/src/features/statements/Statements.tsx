import { useState } from 'react'
import { Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { timeWords } from '../../shared/words'
import { statementsOf, type Period, type Statement } from './api'
import { t } from '../../messages'

const periods = [
  ['week', t('statements.last_7_days')],
  ['thirty_days', t('statements.last_30_days')],
  ['this_month', t('statements.this_month')],
  ['last_month', t('statements.last_month')],
] as const

function PeriodChoice({ value, onChange }: { value: Period; onChange: (period: Period) => void }) {
  return (
    <Choice
      id="statement-period"
      label={t('statements.period')}
      value={value}
      options={periods}
      onChange={(period) => period !== '' && onChange(period)}
    />
  )
}

/** Whether silence can be trusted, then how the rule was checked and what it did not report. */
function Sentences({ statement }: { statement: Statement }) {
  const [verdict, ...others] = statement.sentences
  return (
    <>
      <p className={statement.complete ? 'callout mb-1' : 'callout bad mb-1'}>{verdict}</p>
      <p className="small mb-0">{others.join(' ')}</p>
    </>
  )
}

/** The statement of one rule, on its page. */
export function StatementPanel({ name }: { name: string }) {
  const [period, setPeriod] = useState<Period>('week')
  const found = useQuery(statementsOf(period, [name]))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('statements.statement_of_checks')}</h2>
        <PeriodChoice value={period} onChange={setPeriod} />
      </div>
      <Loaded query={found} what={t('loading.the_statement')}>
        {({ statements: [statement] }) => (statement ? <Sentences statement={statement} /> : null)}
      </Loaded>
    </section>
  )
}

/** The statements of all rules, those first of which silence says nothing. */
export function StatementsPage() {
  useTitle(t('statements.statement_of_checks'))
  const [period, setPeriod] = useState<Period>('week')
  const found = useQuery(statementsOf(period))
  return (
    <>
      <div className="head">
        <h1>{t('statements.statement_of_checks')}</h1>
        <PeriodChoice value={period} onChange={setPeriod} />
      </div>
      <p className="quiet">{t('statements.what_it_is')}</p>
      <Loaded query={found} what={t('loading.the_statement')}>
        {({ statements, from, to }) => {
          const incomplete = statements.filter(({ complete }) => !complete)
          const complete = statements.filter((each) => each.complete)
          return (
            <>
              <p>
                {t('statements.from_to', { from: timeWords(from), to: timeWords(to) })}{' '}
                {t('statements.counts', { complete: complete.length, incomplete: incomplete.length })}
              </p>
              <section className="sheet">
                <Table className="mb-0">
                  <thead>
                    <tr>
                      <th>{t('shared.rule')}</th>
                      <th>{t('statements.what_silence_meant')}</th>
                    </tr>
                  </thead>
                  <tbody>
                    {[...incomplete, ...complete].map((each) => (
                      <tr key={each.rule}>
                        <td>
                          <Link to={`/rules/${each.rule}`}>{each.title}</Link>
                        </td>
                        <td>
                          <Sentences statement={each} />
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </Table>
              </section>
            </>
          )
        }}
      </Loaded>
    </>
  )
}
