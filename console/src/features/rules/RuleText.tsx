import { Link } from 'react-router'
import type { RulePage } from '../../api/types'
import { SeverityTag } from '../../shared/SeverityTag'
import { zonedWords } from '../../shared/words'

/** A summary of a rule: its query, condition, memory and next dates. */
export function RuleText({ page }: { page: RulePage }) {
  const { text, nextDates } = page
  return (
    <section className="sheet">
      <h2>
        {text.grouped
          ? text.per.length === 0
            ? 'Exception: the whole result if'
            : `Exception: each group (${text.per.join(', ')}) where`
          : 'Exception: each row where'}
      </h2>
      <pre className="code">{text.exceptions ?? 'all rows'}</pre>
      <p className="callout">{text.sentence.charAt(0).toUpperCase() + text.sentence.slice(1)}.</p>
      <dl className="facts">
        {text.severity.map((level, index) => (
          <Fact key={index} name={<SeverityTag severity={level.severity} />}>
            {level.condition ? (
              <>
                <code>{level.condition}</code>
                <div className="small quiet">{level.sentence}</div>
              </>
            ) : (
              'otherwise'
            )}
          </Fact>
        ))}
        {text.fireWhen && (
          <Fact name="Fires when">
            <code>{text.fireWhen}</code>
            <div className="small quiet">{text.fireSentence}</div>
          </Fact>
        )}
        {text.thresholds.length > 0 && (
          <Fact name="Thresholds">
            {text.thresholds.map((each, index) => (
              <span key={each}>
                {index > 0 && ', '}
                <Link to={`/thresholds/${each}`}>{each}</Link>
              </span>
            ))}
          </Fact>
        )}
        <Fact name="Reports">
          {text.mode === 'full' ? 'all open findings, every time' : `${text.report.join(', ')} findings`}
        </Fact>
        <Fact name="One finding per">{text.key.join(', ') || (text.grouped ? 'whole result' : 'row')}</Fact>
        {text.openAfter && <Fact name="Open after">{text.openAfter}</Fact>}
        {text.clearAfter && <Fact name="Clear after">{text.clearAfter}</Fact>}
        <Fact name="Schedule">{text.schedule}</Fact>
        {text.split && (
          <Fact name={`Split by ${text.split.by}`}>
            {[
              ...Object.entries(text.split.to).map(([value, to]) => `${value} to ${to.join(', ')}`),
              ...(text.split.from ? [`recipients from query ${text.split.from}`] : []),
              'other values: recipients above',
            ].join('; ')}
          </Fact>
        )}
        {text.copies && (
          <Fact name={`One personal copy per ${text.copies.key}`}>
            of the query {text.copies.from}, sent to its {text.copies.address}
          </Fact>
        )}
        {nextDates.length > 0 && (
          <Fact name="Next checks">
            {nextDates
              .slice(0, 3)
              .map((slot) => zonedWords(slot, page.rule.zone))
              .join(' · ')}
          </Fact>
        )}
      </dl>
      <h2 className="mt-3">Query: {text.queryTitle}</h2>
      <pre className="code">{text.sql}</pre>
      <dl className="facts">
        <Fact name="Source">{text.source}</Fact>
        {Object.entries(text.parameters).map(([name, value]) => (
          <Fact key={name} name={`:${name}`}>
            {value}
          </Fact>
        ))}
      </dl>
    </section>
  )
}

function Fact({ name, children }: { name: React.ReactNode; children: React.ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  )
}
