import { Table } from 'react-bootstrap'
import { Link, useParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { useTitle } from '../../shared/title'
import { measureWords, stateWords, timeWords } from '../../shared/words'
import { threshold, type Given, type ThresholdPage as Page, type Value } from './api'
import { GiveValue } from './GiveValue'
import { ImportTable } from './ImportTable'

export function ThresholdPage() {
  const { name = '' } = useParams()
  const page = useQuery(threshold(name))
  return <Loaded query={page} what="The threshold">{(data) => <OneThreshold page={data} />}</Loaded>
}

function OneThreshold({ page }: { page: Page }) {
  const { threshold: summary, values, history } = page
  useTitle(summary.title)
  return (
    <>
      <h1>{summary.title.charAt(0).toUpperCase() + summary.title.slice(1)}</h1>
      <p className="quiet mb-0">
        <code>threshold('{summary.name}'{summary.key.map((each) => `, ${each}`).join('')})</code>{summary.description && ` · ${summary.description}`}
      </p>
      <p className="mb-0">Used by {summary.rules.length === 0 ? 'no rule' : summary.rules.map((rule, index) => <span key={rule}>{index > 0 && ', '}<Link to={`/rules/${rule}`}>{rule}</Link></span>)}</p>
      <div className="two">
        <section className="sheet">
          <h2>Values</h2>
          {values.length === 0 ? <p className="quiet mt-2 mb-0">No value yet; until then what is compared with it stays unknown.</p> : <Values values={values} unit={summary.unit} />}
        </section>
        <GiveValue threshold={summary} />
      </div>
      <div className="two">
        <section className="sheet">
          <h2>Who changed what, when and why</h2>
          {history.length === 0 ? <p className="quiet mt-2 mb-0">Nothing yet.</p> : <Changes history={history} />}
        </section>
        <ImportTable threshold={summary} />
      </div>
    </>
  )
}

const forWhom = (key: string[]) => (key.length === 0 ? 'all others' : key.join(', '))

function Values({ values, unit }: { values: Value[]; unit: string | null }) {
  return (
    <div className="scroll">
      <Table>
        <thead><tr><th>For</th><th>From</th><th className="num">Value</th><th><span className="visually-hidden">When</span></th></tr></thead>
        <tbody>
          {values.map((value, index) => (
            <tr key={index} className={value.when === 'PAST' ? 'quiet' : ''}>
              <td>{forWhom(value.key)}</td><td>{value.from ?? 'always'}</td><td className="num text-nowrap">{measureWords(value.number)} {unit}</td>
              <td>{value.when === 'NOW' ? '' : <span className="tag">{stateWords(value.when)}</span>}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  )
}

function Changes({ history }: { history: Given[] }) {
  return (
    <div className="scroll">
      <Table>
        <thead><tr><th>When</th><th>Who</th><th>For</th><th className="num">Value</th><th>Why</th></tr></thead>
        <tbody>
          {history.map((given, index) => (
            <tr key={index}>
              <td className="text-nowrap">{timeWords(given.setAt)}</td><td>{given.setBy}</td>
              <td>{forWhom(given.key)}{given.from && <div className="small quiet">from {given.from}</div>}</td>
              <td className="num">{given.number === null ? 'taken back' : measureWords(given.number)}</td><td>{given.remark}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  )
}
