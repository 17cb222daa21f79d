import type { ReactNode } from 'react'
import { Table } from 'react-bootstrap'
import { t } from '../../messages'
import { Scroll } from '../../shared/Scroll'
import { numberWords, timeWords } from '../../shared/words'
import type { Outcome } from './goal'

type Row = NonNullable<Outcome['difference']>['firstMore'][number]

/** The findings between the present value and another: what would no longer be told, and what would be told in addition. */
export function GoalEdge({ outcome, present, children }: { outcome: Outcome; present: number; children: ReactNode }) {
  const { difference } = outcome
  const value = numberWords(outcome.value)
  const now = numberWords(present)
  return (
    <div className="mt-2">
      <p className="mb-1 d-flex flex-wrap gap-2 align-items-center">
        <span>
          {!difference || difference.more + difference.fewer === 0
            ? t('editor.goal_same', { value, now })
            : t('editor.goal_difference', { value, now, fewer: difference.fewer, more: difference.more })}
        </span>
        {children}
      </p>
      {difference && difference.firstFewer.length > 0 && (
        <Rows label={t('editor.goal_fewer')} rows={difference.firstFewer} all={difference.fewer} />
      )}
      {difference && difference.firstMore.length > 0 && (
        <Rows label={t('editor.goal_more')} rows={difference.firstMore} all={difference.more} />
      )}
    </div>
  )
}

function Rows({ label, rows, all }: { label: string; rows: Row[]; all: number }) {
  return (
    <Scroll label={label}>
      <Table size="sm" className="mb-1">
        <thead>
          <tr>
            <th>{rows.length < all ? t('editor.goal_latest', { label, shown: rows.length }) : label}</th>
            <th>{t('editor.goal_decided')}</th>
            <th>{t('editor.goal_told_at')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <tr key={index}>
              <td>{row.finding}</td>
              <td>{row.decided}</td>
              <td className="text-nowrap">{timeWords(row.slot)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
