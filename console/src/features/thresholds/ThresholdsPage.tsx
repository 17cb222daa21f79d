import { Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { useTitle } from '../../shared/title'
import { measureWords } from '../../shared/words'
import { thresholds, type ThresholdSummary } from './api'

export function ThresholdsPage() {
  useTitle('Thresholds')
  const all = useQuery(thresholds)
  return (
    <>
      <h1>Thresholds</h1>
      <section className="sheet">
        <Loaded query={all} what="The thresholds">
          {(list) =>
            list.length === 0 ? (
              <p className="quiet mb-0">
                No thresholds yet. Write a definition of kind threshold and save it with <code>odd push</code>.
                Conditions then use it.
              </p>
            ) : (
              <ThresholdTable list={list} />
            )
          }
        </Loaded>
      </section>
    </>
  )
}

function ThresholdTable({ list }: { list: ThresholdSummary[] }) {
  return (
    <Scroll label="Thresholds">
      <Table>
        <thead>
          <tr>
            <th>Threshold</th>
            <th className="num">Now</th>
            <th>Key columns</th>
            <th className="num">Values</th>
            <th className="num">Planned</th>
            <th>Used by</th>
          </tr>
        </thead>
        <tbody>
          {list.map((each) => (
            <tr key={each.name}>
              <td>
                <Link to={`/thresholds/${each.name}`}>{each.title}</Link>
                <div className="small quiet">{each.description ?? each.name}</div>
              </td>
              <td className="num text-nowrap">
                {each.number === null ? '–' : `${measureWords(each.number)} ${each.unit ?? ''}`}
              </td>
              <td>{each.key.join(', ') || <span className="quiet">single value</span>}</td>
              <td className="num">{each.values}</td>
              <td className="num">{each.planned}</td>
              <td>
                {each.rules.map((rule, index) => (
                  <span key={rule}>
                    {index > 0 && ', '}
                    <Link to={`/rules/${rule}`}>{rule}</Link>
                  </span>
                ))}
                {each.rules.length === 0 && <span className="quiet">no rules</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
