import { Link } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { measureWords, plural } from '../../shared/words'
import { thresholds } from '../thresholds/api'

/** The named numbers, each leading to its values over time. */
export function ThresholdsPanel() {
  const all = useQuery(thresholds)
  return (
    <section className="sheet">
      <div className="head">
        <h2>Thresholds</h2>
        <Link className="small quiet" to="/thresholds">
          All
        </Link>
      </div>
      <Loaded query={all} what="The thresholds">
        {(list) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              No thresholds yet. A threshold is a named number for several conditions:{' '}
              <Link to="/documents/new">write a definition</Link> of kind threshold.
            </p>
          ) : (
            <ul className="list-unstyled mt-2 mb-0">
              {list.map((each) => (
                <li key={each.name}>
                  <Link to={`/thresholds/${each.name}`}>{each.title}</Link>{' '}
                  <span className="quiet small">
                    {each.number === null ? 'no value' : `${measureWords(each.number)} ${each.unit ?? ''}`}
                    {each.key.length > 0 && `, by ${each.key.join(', ')}`}
                    {each.planned > 0 && `, ${plural(each.planned, 'value')} planned`}
                  </span>
                </li>
              ))}
            </ul>
          )
        }
      </Loaded>
    </section>
  )
}
