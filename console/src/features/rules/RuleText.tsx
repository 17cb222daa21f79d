import { Link } from 'react-router'
import type { RulePage } from '../../api/types'
import { SeverityTag } from '../../shared/SeverityTag'
import { zonedWords } from '../../shared/words'
import { t } from '../../messages'

/** A summary of a rule: its query, condition, memory and next dates. */
export function RuleText({ page }: { page: RulePage }) {
  const { text, nextDates } = page
  return (
    <section className="sheet">
      <h2>
        {text.mode === 'PLAIN'
          ? t('rules.rows_sent')
          : text.grouped
            ? text.per.length === 0
              ? t('rules.exception_the_whole_result_if')
              : t('rules.exception_each_group_where', { per: text.per.join(', ') })
            : t('shared.exception_each_row_where')}
      </h2>
      <pre className="code">{text.exceptions ?? t('shared.all_rows')}</pre>
      <p className="callout">{text.sentence.charAt(0).toUpperCase() + text.sentence.slice(1)}.</p>
      <dl className="facts">
        {(text.mode === 'PLAIN' ? [] : text.severity).map((level, index) => (
          <Fact key={index} name={<SeverityTag severity={level.severity} look={level.look} />}>
            {level.condition ? (
              <>
                <code>{level.condition}</code>
                <div className="small quiet">{level.sentence}</div>
              </>
            ) : (
              t('rules.otherwise')
            )}
          </Fact>
        ))}
        {text.fireWhen && (
          <Fact name={t('rules.fires_when')}>
            <code>{text.fireWhen}</code>
            <div className="small quiet">{text.fireSentence}</div>
          </Fact>
        )}
        {text.thresholds.length > 0 && (
          <Fact name={t('shared.thresholds')}>
            {text.thresholds.map((each, index) => (
              <span key={each}>
                {index > 0 && ', '}
                <Link to={`/thresholds/${each}`}>{each}</Link>
              </span>
            ))}
          </Fact>
        )}
        <Fact name={t('shared.reports')}>
          {text.mode === 'PLAIN'
            ? t('rules.plain_report')
            : text.mode === 'FULL'
              ? t('shared.all_open_findings_every_time')
              : t('rules.findings', { report: text.report.join(', ') })}
        </Fact>
        {text.mode !== 'PLAIN' && (
          <Fact name={t('rules.one_finding_per')}>
            {text.key.join(', ') || (text.grouped ? t('rules.whole_result') : t('rules.row'))}
          </Fact>
        )}
        {text.openAfter && <Fact name={t('shared.open_after')}>{text.openAfter}</Fact>}
        {text.clearAfter && <Fact name={t('shared.clear_after')}>{text.clearAfter}</Fact>}
        <Fact name={t('shared.schedule')}>{text.schedule}</Fact>
        {text.split && (
          <Fact name={t('rules.split_by', { by: text.split.by })}>
            {[
              ...Object.entries(text.split.to).map(([value, to]) => t('rules.value_to', { value, to: to.join(', ') })),
              ...(text.split.from ? [t('rules.recipients_from_query', { from: text.split.from })] : []),
              t('rules.other_values_recipients_above'),
            ].join('; ')}
          </Fact>
        )}
        {text.copies && (
          <Fact name={t('rules.one_personal_copy_per', { key: text.copies.key })}>
            {t('rules.of_the_query_sent_to', { from: text.copies.from, address: text.copies.address })}
          </Fact>
        )}
        {nextDates.length > 0 && (
          <Fact name={t('rules.next_checks')}>
            {nextDates
              .slice(0, 3)
              .map((slot) => zonedWords(slot, page.rule.zone))
              .join(' · ')}
          </Fact>
        )}
      </dl>
      <h2 className="mt-3">{t('rules.query', { queryTitle: text.queryTitle })}</h2>
      {text.sql === null ? (
        <p className="quiet">{t('rules.query_is_hidden')}</p>
      ) : (
        <pre className="code">{text.sql}</pre>
      )}
      <dl className="facts">
        <Fact name={t('shared.source')}>{text.source}</Fact>
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
