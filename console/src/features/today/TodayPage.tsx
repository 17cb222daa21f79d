import { Link } from 'react-router'
import { Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { RuleSummary } from '../../api/types'
import { CheckStrip } from '../../shared/CheckStrip'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { OpenCounts } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { plural, timeWords } from '../../shared/words'
import { holds, outbox } from '../outbox/api'
import { rules } from '../rules/api'
import { headline, needsOf, type Need } from './needs'

export function TodayPage() {
  useTitle('Today')
  const all = useQuery(rules)
  const messages = useQuery(outbox({}))
  const held = useQuery(holds)
  return (
    <Loaded query={all} what="The rules">
      {(list) => <Loaded query={messages} what="The outbox">{(mail) => <Today rules={list} needs={needsOf(list, mail, held.data)} />}</Loaded>}
    </Loaded>
  )
}

function Today({ rules: list, needs }: { rules: RuleSummary[]; needs: Need[] }) {
  const active = list.filter((rule) => rule.state === 'ACTIVE')
  const next = active.flatMap((rule) => (rule.nextSlot ? [rule.nextSlot] : [])).sort()[0]
  return (
    <>
      <h1>{headline(needs)}</h1>
      <p className="quiet mb-0">{plural(active.length, 'rule')} {active.length === 1 ? 'is' : 'are'} active.{next && ` The next check is ${timeWords(next)}.`}</p>
      <div className="two">
        {needs.length > 0 && <Needs needs={needs} />}
        <Strips rules={active} />
      </div>
      <OpenFindings rules={list} />
    </>
  )
}

function Needs({ needs }: { needs: Need[] }) {
  return (
    <section className="sheet">
      <h2>Needs you</h2>
      {needs.map((need) => (
        <div className="need" key={need.what + need.to}>
          <span className={`tag ${need.look} align-self-start`} aria-hidden="true">{need.sign}</span>
          <div className="flex-grow-1"><b>{need.what}</b><div className="quiet">{need.why}</div></div>
          <Link className="btn btn-plain btn-sm align-self-start" to={need.to}>{need.verb}<span className="visually-hidden">: {need.what}</span></Link>
        </div>
      ))}
    </section>
  )
}

function Strips({ rules: list }: { rules: RuleSummary[] }) {
  return (
    <section className="sheet">
      <h2>The last checks</h2>
      <Scroll label="Checks">
        <Table>
          <tbody>
            {list.map((rule) => <tr key={rule.name}><td><Link to={`/rules/${rule.name}`}>{rule.title}</Link></td><td><CheckStrip newestFirst={rule.latest} /></td></tr>)}
          </tbody>
        </Table>
      </Scroll>
      <p className="quiet small mt-2 mb-0">Each dot is a check. On the line it was quiet; lifted, it had something to report; ✕ failed; ? could not be judged.</p>
    </section>
  )
}

function OpenFindings({ rules: list }: { rules: RuleSummary[] }) {
  const open = list.filter((rule) => Object.keys(rule.open).length > 0)
  return (
    <section className="sheet">
      <h2>Open findings</h2>
      {open.length === 0 ? <p className="quiet mt-2 mb-0">Nothing is open.</p> : (
        <Scroll label="Open findings">
          <Table>
            <thead><tr><th>Rule</th><th>Open</th><th>Last check</th><th>Mailed to</th></tr></thead>
            <tbody>
              {open.map((rule) => (
                <tr key={rule.name}>
                  <td><Link to={`/rules/${rule.name}`}>{rule.title}</Link></td>
                  <td><OpenCounts open={rule.open} /></td>
                  <td>{rule.latest[0] ? timeWords(rule.latest[0].slot) : ''}</td>
                  <td>{plural(rule.to.length, 'person', 'people')}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
    </section>
  )
}
