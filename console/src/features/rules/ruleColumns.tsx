import { Link } from 'react-router'
import type { RuleSummary } from '../../api/types'
import { CheckStrip } from '../../shared/CheckStrip'
import { CheckTag } from '../../shared/CheckTag'
import type { CellColumn } from '../../shared/ColumnTable'
import { OpenCounts } from '../../shared/SeverityTag'
import { stateWords, timeWords } from '../../shared/words'
import { t } from '../../messages'

const none = () => <span className="quiet">{t('shared.none')}</span>

/** What the list of rules says of each. */
export const ruleColumns: CellColumn<RuleSummary>[] = [
  {
    key: 'rule',
    label: t('shared.rule'),
    className: 'main',
    plain: true,
    cell: (rule) => (
      <>
        <Link to={`/rules/${rule.name}`}>{rule.title}</Link>
        <div className="small quiet">
          {rule.owner}
          {rule.copiedFrom && t('rules.copied_from', { copiedFrom: rule.copiedFrom })}
          {rule.mode === 'PLAIN' && ` · ${t('rules.plain_report_tag')}`}
          {rule.labels.length > 0 && ` · ${rule.labels.join(', ')}`}
        </div>
      </>
    ),
  },
  {
    key: 'state',
    label: t('shared.state'),
    cell: (rule) => (
      <>
        {rule.ended ? t('rules.ended') : stateWords(rule.state)}
        {rule.draft && <div className="small quiet">{t('rules.with_a_draft')}</div>}
      </>
    ),
  },
  {
    key: 'open',
    label: t('shared.open'),
    cell: (rule) =>
      rule.mode === 'PLAIN' ? <span className="quiet">–</span> : <OpenCounts open={rule.open} looks={rule.looks} />,
  },
  {
    key: 'last',
    label: t('rules.last_check'),
    cell: ({ latest: [last] }) =>
      last ? (
        <>
          <CheckTag state={last.state} />
          <div className="small quiet text-nowrap">{timeWords(last.slot)}</div>
        </>
      ) : (
        <span className="quiet">{t('shared.never')}</span>
      ),
  },
  {
    key: 'latest',
    label: t('rules.last_20_checks'),
    cell: (rule) => <CheckStrip newestFirst={rule.latest} />,
  },
  {
    key: 'next',
    label: t('rules.next_check'),
    className: 'text-nowrap',
    cell: (rule) => (
      <>
        {rule.nextSlot ? timeWords(rule.nextSlot) : none()}
        <div className="small quiet text-wrap">{rule.schedule}</div>
      </>
    ),
  },
  {
    key: 'recipients',
    label: t('shared.recipients'),
    className: 'small',
    cell: (rule) => (
      <>
        {rule.named.length === 0 && none()}
        {rule.named.slice(0, 2).map((each) => (
          <div key={each}>
            <Link to={`/recipients/${encodeURIComponent(each)}`}>{each}</Link>
          </div>
        ))}
        {rule.named.length > 2 && (
          <span className="quiet">{t('rules.and_added', { named: rule.named.length - 2 })}</span>
        )}
        <div className="quiet">
          {[rule.splitBy && t('rules.split_by_column', { column: rule.splitBy }), rule.formats.join(', ')]
            .filter(Boolean)
            .join(' · ')}
        </div>
      </>
    ),
  },
]
