import { Link } from 'react-router'
import type { CellColumn } from '../../shared/ColumnTable'
import { LinkedText } from '../../shared/LinkedText'
import { SeverityTag } from '../../shared/SeverityTag'
import { cellWords, markWords, stateWords, timeWords } from '../../shared/words'
import type { Found } from './api'
import { t } from '../../messages'

/** What the list of findings says of each. */
export const findingColumns: CellColumn<Found>[] = [
  {
    key: 'severity',
    label: t('shared.severity'),
    plain: true,
    cell: (finding) => <SeverityTag severity={finding.severity} look={finding.look} />,
  },
  {
    key: 'finding',
    label: t('shared.finding'),
    className: 'main',
    plain: true,
    cell: (finding) => (
      <>
        {finding.cells.length === 0
          ? finding.identity
          : finding.cells.map((cell, index) => (
              <span key={cell.label}>
                {index > 0 && ' · '}
                <span className="quiet small">{cell.label}</span>{' '}
                {cell.text === null ? (
                  <span className="quiet">{t('shared.missing')}</span>
                ) : (
                  <LinkedText to={cell.link}>{cellWords(cell.text)}</LinkedText>
                )}
              </span>
            ))}
        {finding.copy && <div className="small quiet">{t('findings.for', { copy: finding.copy })}</div>}
      </>
    ),
  },
  {
    key: 'rule',
    label: t('shared.rule'),
    cell: (finding) => <Link to={`/rules/${finding.rule}`}>{finding.title}</Link>,
  },
  {
    key: 'state',
    label: t('shared.state'),
    cell: (finding) => (
      <>
        {stateWords(finding.state)}
        {finding.noData && <div className="small quiet">{t('shared.no_data')}</div>}
      </>
    ),
  },
  {
    key: 'since',
    label: t('shared.since'),
    className: 'text-nowrap',
    cell: (finding) => timeWords(finding.openedAt),
  },
  {
    key: 'handling',
    label: t('shared.handling'),
    cell: (finding) =>
      finding.handling.length === 0 ? (
        <span className="quiet">{t('shared.none')}</span>
      ) : (
        finding.handling.map((mark) => (
          <div key={mark.kind} className="small">
            {markWords(mark)}
            {mark.note && `: ${mark.note}`}
          </div>
        ))
      ),
  },
  {
    key: 'why',
    label: t('shared.why'),
    plain: true,
    cell: (finding) => (
      <Link
        to={`/rules/${finding.rule}/findings/${finding.id}`}
        aria-label={t('shared.why_explanation_of', { identity: finding.identity })}
      >
        {t('shared.why_question')}
      </Link>
    ),
  },
]
