import { Button, Table } from 'react-bootstrap'
import { LinkedText } from '../../shared/LinkedText'
import { Scroll } from '../../shared/Scroll'
import { OpenCounts, SeverityTag } from '../../shared/SeverityTag'
import { cellWords, unevaluatedWords, numberWords, countWords } from '../../shared/words'
import type { Compared, DraftSeen, Seen } from './api'
import { rich, t } from '../../messages'

const shownAtFirst = 12

/** What a check with these conditions would find now, and how that differs from the saved rule. */
export function PreviewPanel({ seen, onAccept }: { seen: DraftSeen; onAccept: (condition: string) => void }) {
  const { draft, compared } = seen
  return (
    <>
      <p className="mt-2 mb-1">
        {draft.copy !== null && <>{t('editor.of_personal_copy', { copy: draft.copy })} </>}
        {draft.plain
          ? rich('editor.rows_read_rows_sent', {
              rowsRead: draft.rowsRead,
              tookMillis: numberWords(draft.tookMillis),
              strong: (inner) => <strong>{inner}</strong>,
              exceptions: draft.exceptions,
            })
          : rich('editor.row_read_in_ms_exception', {
              rowsRead: draft.rowsRead,
              tookMillis: numberWords(draft.tookMillis),
              strong: (inner) => <strong>{inner}</strong>,
              exceptions: draft.exceptions,
              openCounts: <OpenCounts open={draft.bySeverity} looks={draft.looks} />,
              wouldReport: numberWords(draft.wouldReport),
            })}
      </p>
      {draft.copies.length > 0 && (
        <ul className="small mb-1">
          {draft.copies.map((copy) => (
            <li key={copy.key}>
              {copy.key}:{' '}
              {copy.failure ??
                t('editor.exception_to', {
                  exceptions: copy.exceptions,
                  wouldReport: numberWords(copy.wouldReport),
                  to: copy.to.join(', ') || t('shared.the_rules_recipients'),
                })}
            </li>
          ))}
        </ul>
      )}
      {draft.audiences.some((hearer) => hearer.split !== null) && (
        <ul className="small mb-1">
          {draft.audiences.map((hearer) => (
            <li key={hearer.split}>
              {t('editor.finding_of_to', {
                findings: hearer.findings,
                split: hearer.split || t('shared.no_value'),
                to: hearer.to.join(', '),
              })}
            </li>
          ))}
        </ul>
      )}
      {compared && <Against compared={compared} />}
      <dl className="facts parts">
        {draft.parts.map((part, index) => (
          <Part key={index} rowsLeft={part.rowsLeft} text={part.text} />
        ))}
      </dl>
      {draft.suggestions.map((offer, index) => (
        <p key={index} className="small mb-1 mt-2">
          {offer.empty ? (
            <>{t('editor.row_with_an_empty_text', { rows: offer.rows, column: offer.column })}</>
          ) : (
            <>
              {t('editor.unknown_is_missing', {
                rows: countWords(offer.rows, draft.grouped),
                column: offer.column,
              })}
            </>
          )}{' '}
          <Button size="sm" variant="plain" onClick={() => onAccept(offer.condition)}>
            {t('editor.count_these_rows_as_exceptions')}
          </Button>
        </p>
      ))}
      {draft.unevaluated > 0 && (
        <p className="small mb-1 mt-2">{t('editor.could_not_be_evaluated', { draft: unevaluatedWords(draft) })}</p>
      )}
      {draft.warnings.map((warning, index) => (
        <p key={index} className="small mb-1 mt-2">
          {t('shared.warning', { message: warning.message })}
          {warning.suggestion && <> {t('shared.did_you_mean', { suggestion: warning.suggestion })}</>}
        </p>
      ))}
      {draft.rows.length > 0 && <Rows seen={draft} />}
    </>
  )
}

function Part({ rowsLeft, text }: { rowsLeft: number; text: string }) {
  return (
    <>
      <dt className="num">{numberWords(rowsLeft)}</dt>
      <dd>{rich('editor.match_after', { code: (inner) => <code>{inner}</code>, text })}</dd>
    </>
  )
}

function Against({ compared }: { compared: Compared }) {
  if (compared.onlyDraftCount === 0 && compared.onlyActiveCount === 0 && compared.otherSeverity === 0)
    return <p className="callout mt-2">{t('editor.the_same_exception_as_the', { both: compared.both })}</p>
  return (
    <div className="callout mt-2">
      {rich('editor.compared_with_the_saved_rule', {
        both: numberWords(compared.both),
        strong: (inner) => <strong>{inner}</strong>,
        onlyDraftCount: numberWords(compared.onlyDraftCount),
        onlyDraft: compared.onlyDraft.length > 0 && (
          <>
            {' '}
            ({compared.onlyDraft.slice(0, 5).join('; ')}
            {compared.onlyDraftCount > 5 && ' …'})
          </>
        ),
        strong2: (inner) => <strong>{inner}</strong>,
        onlyActiveCount: numberWords(compared.onlyActiveCount),
        onlyActive: compared.onlyActive.length > 0 && (
          <>
            {' '}
            ({compared.onlyActive.slice(0, 5).join('; ')}
            {compared.onlyActiveCount > 5 && ' …'})
          </>
        ),
        otherSeverity: compared.otherSeverity > 0 && (
          <>
            {rich('editor.in_both_with_another_severity', {
              strong: (inner) => <strong>{inner}</strong>,
              otherSeverity: numberWords(compared.otherSeverity),
            })}
          </>
        ),
      })}
    </div>
  )
}

function Rows({ seen }: { seen: Seen }) {
  const withSeverity = !seen.plain
  return (
    <Scroll label={t('shared.exceptions')}>
      <Table>
        <thead>
          <tr>
            {withSeverity && <th>{t('shared.severity')}</th>}
            {seen.columns.map((column) => (
              <th key={column.name} className={column.type === 'number' ? 'num' : ''}>
                {column.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {seen.rows.slice(0, shownAtFirst).map((row, index) => (
            <tr key={index}>
              {withSeverity && <td>{row.severity && <SeverityTag severity={row.severity} look={row.look} />}</td>}
              {row.cells.map((cell, i) => (
                <td
                  key={i}
                  className={`${seen.columns[i]?.type === 'number' ? 'num' : ''} ${(cell.text?.length ?? 0) <= 26 ? 'text-nowrap' : ''}`}
                >
                  <LinkedText to={cell.link}>
                    {cell.highlighted ? (
                      <mark>
                        {cell.text === null ? t('shared.missing') : cellWords(cell.text, seen.columns[i]?.type)}
                      </mark>
                    ) : cell.text === null ? (
                      <span className="quiet">{t('shared.missing')}</span>
                    ) : (
                      cellWords(cell.text, seen.columns[i]?.type)
                    )}
                  </LinkedText>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {seen.rows.length > shownAtFirst && (
        <p className="small quiet mt-1 mb-0">{t('editor.the_first_worst_first', { shownAtFirst })}</p>
      )}
    </Scroll>
  )
}
