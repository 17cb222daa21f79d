import { Link } from 'react-router'
import type { RulePage } from '../../api/types'
import { SeverityTag } from '../../shared/SeverityTag'
import { zonedWords } from '../../shared/words'

/** What a rule says: its query, its condition, its memory and its next dates. */
export function RuleText({ page }: { page: RulePage }) {
  const { text, nextDates } = page
  return (
    <section className="sheet">
      <h2>{text.grouped ? (text.per.length === 0 ? 'The whole result is an exception where' : `A group by ${text.per.join(', ')} is an exception where`) : 'A row is an exception where'}</h2>
      <pre className="code">{text.exceptions ?? 'every row is one'}</pre>
      <p className="told">{text.sentence.charAt(0).toUpperCase() + text.sentence.slice(1)}.</p>
      <dl className="facts">
        {text.severity.map((band, index) => (
          <Fact key={index} name={<SeverityTag severity={band.severity} />}>
            {band.condition ? <><code>{band.condition}</code><div className="small quiet">{band.sentence}</div></> : 'every other exception'}
          </Fact>
        ))}
        {text.fireWhen && <Fact name="Fires when"><code>{text.fireWhen}</code><div className="small quiet">{text.fireSentence}</div></Fact>}
        {text.thresholds.length > 0 && (
          <Fact name="Thresholds">{text.thresholds.map((each, index) => <span key={each}>{index > 0 && ', '}<Link to={`/thresholds/${each}`}>{each}</Link></span>)}</Fact>
        )}
        <Fact name="Reports">{text.mode === 'full' ? 'everything, each time' : `only what is ${text.report.join(', ')}`}</Fact>
        <Fact name="One finding for each">{text.key.join(', ') || (text.grouped ? 'whole result' : 'row')}</Fact>
        {text.hold && <Fact name="Opens once it lasted">{text.hold}</Fact>}
        {text.misses && <Fact name="Clears once missed for">{text.misses}</Fact>}
        <Fact name="Schedule">{text.schedule}</Fact>
        {text.split && <Fact name={`Split by ${text.split.by}`}>{[...Object.entries(text.split.to).map(([value, to]) => `${value} to ${to.join(', ')}`), ...(text.split.from ? [`whoever ${text.split.from} names`] : []), 'others to those above'].join('; ')}</Fact>}
        {text.copies && <Fact name={`A personal copy for each ${text.copies.key}`}>of the query {text.copies.from}, mailed to its {text.copies.address}</Fact>}
        {nextDates.length > 0 && <Fact name="Next dates">{nextDates.slice(0, 3).map((slot) => zonedWords(slot, page.rule.zone)).join(' · ')}</Fact>}
      </dl>
      <h2 className="mt-3">Query: {text.queryTitle}</h2>
      <pre className="code">{text.sql}</pre>
      <dl className="facts">
        <Fact name="Source">{text.source}</Fact>
        {Object.entries(text.parameters).map(([name, value]) => <Fact key={name} name={`:${name}`}>{value}</Fact>)}
      </dl>
    </section>
  )
}

function Fact({ name, children }: { name: React.ReactNode; children: React.ReactNode }) {
  return <><dt>{name}</dt><dd>{children}</dd></>
}
