import { Button, Table } from 'react-bootstrap'
import { Scroll } from '../../shared/Scroll'
import { OpenCounts, SeverityTag } from '../../shared/SeverityTag'
import { cellWords, unevaluatedWords, numberWords, plural } from '../../shared/words'
import type { Compared, DraftSeen, Seen } from './api'

const shownAtFirst = 12

/** What a check with these conditions would find now, and how that differs from the saved rule. */
export function PreviewPanel({ seen, onAccept }: { seen: DraftSeen; onAccept: (condition: string) => void }) {
  const { draft, compared } = seen
  return (
    <>
      <p className="mt-2 mb-1">
        {draft.copy !== null && <>Personal copy {draft.copy}: </>}
        {plural(draft.rowsRead, 'row')} read in {numberWords(draft.tookMillis)} ms,{' '}
        <strong>{plural(draft.exceptions, 'exception')}</strong> <OpenCounts open={draft.bySeverity} />; a check now
        would report {numberWords(draft.wouldReport)}.
      </p>
      {draft.copies.length > 0 && (
        <ul className="small mb-1">
          {draft.copies.map((copy) => (
            <li key={copy.key}>
              {copy.key}:{' '}
              {copy.failure ??
                `${plural(copy.exceptions, 'exception')}, ${numberWords(copy.wouldReport)} to ${copy.to.join(', ') || 'the rule’s recipients'}`}
            </li>
          ))}
        </ul>
      )}
      {draft.audiences.some((hearer) => hearer.split !== null) && (
        <ul className="small mb-1">
          {draft.audiences.map((hearer) => (
            <li key={hearer.split}>
              {plural(hearer.findings, 'finding')} of {hearer.split || 'no value'} to {hearer.to.join(', ')}
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
            <>
              {plural(offer.rows, 'row')} with an empty text in {offer.column}: “is missing” does not match them.
            </>
          ) : (
            <>
              Unknown: {plural(offer.rows, draft.grouped ? 'group' : 'row')} ({offer.column} is missing).
            </>
          )}{' '}
          <Button size="sm" variant="plain" onClick={() => onAccept(offer.condition)}>
            Count these rows as exceptions
          </Button>
        </p>
      ))}
      {draft.unevaluated > 0 && <p className="small mb-1 mt-2">Could not be evaluated: {unevaluatedWords(draft)}.</p>}
      {draft.warnings.map((warning, index) => (
        <p key={index} className="small mb-1 mt-2">
          Warning: {warning.message}
          {warning.suggestion && <> – did you mean “{warning.suggestion}”?</>}
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
      <dd>
        match after <code>{text}</code>
      </dd>
    </>
  )
}

function Against({ compared }: { compared: Compared }) {
  if (compared.onlyDraftCount === 0 && compared.onlyActiveCount === 0 && compared.otherSeverity === 0)
    return <p className="callout mt-2">The same {plural(compared.both, 'exception')} as the saved rule.</p>
  return (
    <div className="callout mt-2">
      Compared with the saved rule: {numberWords(compared.both)} in both,{' '}
      <strong>{numberWords(compared.onlyDraftCount)} added</strong>
      {compared.onlyDraft.length > 0 && (
        <>
          {' '}
          ({compared.onlyDraft.slice(0, 5).join('; ')}
          {compared.onlyDraftCount > 5 && ' …'})
        </>
      )}
      , <strong>{numberWords(compared.onlyActiveCount)} removed</strong>
      {compared.onlyActive.length > 0 && (
        <>
          {' '}
          ({compared.onlyActive.slice(0, 5).join('; ')}
          {compared.onlyActiveCount > 5 && ' …'})
        </>
      )}
      {compared.otherSeverity > 0 && (
        <>
          ; <strong>{numberWords(compared.otherSeverity)}</strong> in both with another severity
        </>
      )}
      .
    </div>
  )
}

function Rows({ seen }: { seen: Seen }) {
  return (
    <Scroll label="Exceptions">
      <Table>
        <thead>
          <tr>
            <th>Severity</th>
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
              <td>
                <SeverityTag severity={row.severity} />
              </td>
              {row.cells.map((cell, i) => (
                <td
                  key={i}
                  className={`${seen.columns[i]?.type === 'number' ? 'num' : ''} ${(cell.text?.length ?? 0) <= 12 ? 'text-nowrap' : ''}`}
                >
                  {cell.highlighted ? (
                    <mark>{cell.text === null ? 'missing' : cellWords(cell.text, seen.columns[i]?.type)}</mark>
                  ) : cell.text === null ? (
                    <span className="quiet">missing</span>
                  ) : (
                    cellWords(cell.text, seen.columns[i]?.type)
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      {seen.rows.length > shownAtFirst && (
        <p className="small quiet mt-1 mb-0">The first {shownAtFirst}, worst first.</p>
      )}
    </Scroll>
  )
}
