import { Link } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { RuleSummary } from '../../api/types'
import { CheckStrip } from '../../shared/CheckStrip'
import { CheckTag } from '../../shared/CheckTag'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { OpenCounts } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { stateWords, timeWords } from '../../shared/words'
import { rules } from './api'

export function RulesPage() {
  useTitle('Rules')
  const all = useQuery(rules)
  return (
    <>
      <h1>Rules</h1>
      <Loaded query={all} what="The rules">
        {(list) => (list.length === 0 ? <NoRules /> : <RulesTable rules={list} />)}
      </Loaded>
    </>
  )
}

function NoRules() {
  return <p className="sheet">There is no rule yet. Write a query and a rule as documents and save them with <code>odd push</code>.</p>
}

function RulesTable({ rules: list }: { rules: RuleSummary[] }) {
  return (
    <section className="sheet">
      <Scroll label="Rules">
        <Table>
          <thead>
            <tr><th>Rule</th><th>State</th><th>Open</th><th>Last check</th><th>Outcome</th><th>Last twenty</th><th>Next check</th></tr>
          </thead>
          <tbody>
            {list.map((rule) => {
              const last = rule.latest[0]
              return (
                <tr key={rule.name}>
                  <td><Link to={`/rules/${rule.name}`}>{rule.title}</Link><div className="small quiet">{rule.owner}</div></td>
                  <td>{stateWords(rule.state)}</td>
                  <td><OpenCounts open={rule.open} /></td>
                  <td className="text-nowrap">{last ? timeWords(last.slot) : <span className="quiet">never</span>}</td>
                  <td>{last && <CheckTag state={last.state} />}</td>
                  <td><CheckStrip newestFirst={rule.latest} /></td>
                  <td className="text-nowrap">{rule.nextSlot ? timeWords(rule.nextSlot) : <span className="quiet">none</span>}</td>
                </tr>
              )
            })}
          </tbody>
        </Table>
      </Scroll>
    </section>
  )
}
