import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Check, PartCount } from '../../api/types'
import { CheckTag } from '../../shared/CheckTag'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { unevaluatedWords, numberWords, countWords, stateWords, timeWords } from '../../shared/words'
import { checksOf, copiesOf, moveCheck } from './api'
import { t } from '../../messages'

const shown = 12

/**
 * @param grouped whether groups are evaluated, not rows
 * @param copies whether the rule has personal copies
 */
export function ChecksPanel({
  name,
  grouped,
  copies,
  retired,
}: {
  name: string
  grouped: boolean
  copies: boolean
  retired: boolean
}) {
  const checks = useQuery(checksOf(name))
  return (
    <section className="sheet">
      <h2>{t('shared.checks')}</h2>
      <Loaded query={checks} what={t('loading.the_checks')}>
        {({ checks: list }) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {retired ? t('rules.it_was_never_checked') : t('rules.not_checked_yet_press_check')}
            </p>
          ) : (
            <ChecksTable checks={list} grouped={grouped} copies={copies} />
          )
        }
      </Loaded>
    </section>
  )
}

function ChecksTable({ checks, grouped, copies }: { checks: Check[]; grouped: boolean; copies: boolean }) {
  const last = checks.find((check) => check.parts.length > 0)
  return (
    <>
      <Scroll label={t('shared.checks')}>
        <Table>
          <thead>
            <tr>
              <th>{t('rules.slot')}</th>
              <th>{t('rules.outcome')}</th>
              <th className="num">{t('shared.rows')}</th>
              <th className="num">{t('shared.exceptions')}</th>
              <th className="num">{t('rules.reported')}</th>
            </tr>
          </thead>
          <tbody>
            {checks.slice(0, shown).map((check) => (
              <tr key={check.id}>
                <td className="text-nowrap">
                  {timeWords(check.slot)}
                  <div className="small quiet">{check.event ?? stateWords(check.origin)}</div>
                </td>
                <td>
                  <CheckTag state={check.state} />
                  {check.reason && <div className="small">{check.reason}</div>}
                  <Moves check={check} />
                  {copies && <Copies check={check} />}
                  {check.unevaluatedGroups.length > 0 && (
                    <div className="small">{t('rules.could_not_be_evaluated', { check: unevaluatedWords(check) })}</div>
                  )}
                </td>
                <td className="num">{check.rowsRead === null ? '' : numberWords(check.rowsRead)}</td>
                <td className="num">{check.exceptions === null ? '' : numberWords(check.exceptions)}</td>
                <td className="num">{check.updates === null ? '' : numberWords(check.updates)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      {last && <Left check={last} grouped={grouped} />}
    </>
  )
}

/** How each personal copy went, asked for once somebody wants to know. */
function Copies({ check }: { check: Check }) {
  const [open, setOpen] = useState(false)
  return (
    <details className="small" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>{t('rules.personal_copies')}</summary>
      {open && <CopiesList check={check.id} />}
    </details>
  )
}

function CopiesList({ check }: { check: string }) {
  const copies = useQuery(copiesOf(check))
  return (
    <Loaded query={copies} what={t('loading.the_personal_copies')}>
      {(list) =>
        list.length === 0 ? (
          <p className="quiet mb-0">{t('rules.no_copy_was_checked')}</p>
        ) : (
          <ul className="list-unstyled mb-0">
            {list.map((copy) => (
              <li key={copy.copy}>
                {copy.copy} <CheckTag state={copy.state} />{' '}
                {copy.reason ??
                  t('rules.exception_reported', {
                    exceptions: copy.exceptions ?? 0,
                    updates: numberWords(copy.updates ?? 0),
                  })}
                {copy.state === 'FIRED' &&
                  t('rules.to', { to: copy.to.join(', ') || t('shared.the_rules_recipients') })}
              </li>
            ))}
          </ul>
        )
      }
    </Loaded>
  )
}

/** Actions for a check that runs or awaits approval, and its progress. */
function Moves({ check }: { check: Check }) {
  const client = useQueryClient()
  const move = useMutation({
    mutationFn: (how: 'stop' | 'approve' | 'discard') => moveCheck(check.id, how),
    onSettled: () => client.invalidateQueries({ queryKey: ['rules'] }),
  })
  const failed = move.isError && (
    <div className="small callout bad" role="status">
      {move.error.message}
    </div>
  )
  if (check.state === 'RUNNING') {
    return (
      <div className="small">
        {check.retryAt
          ? t('rules.again_at', {
              attempt: t('shared.next_try'),
              retryAt: timeWords(check.retryAt),
            })
          : check.rowsSoFar !== null && t('rules.row_so_far', { rowsSoFar: check.rowsSoFar })}
        <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('stop')}>
          {t('shared.stop')}
        </Button>
        {failed}
      </div>
    )
  }
  if (check.state !== 'AWAITING_APPROVAL') return null
  return (
    <div className="d-flex gap-2 mt-1">
      <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('approve')}>
        {t('rules.approve')}
      </Button>
      <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('discard')}>
        {t('shared.discard')}
      </Button>
      {failed}
    </div>
  )
}

/** How many rows or groups each part of the condition left at the latest check, and where it stayed unknown. */
function Left({ check, grouped }: { check: Check; grouped: boolean }) {
  return (
    <>
      <h2 className="mt-3">
        {t('rules.matching_after_each_part_last', { rows: grouped ? t('rules.groups') : t('shared.rows') })}
      </h2>
      <dl className="facts">
        <dt className="num">{numberWords(check.rowsRead ?? 0)}</dt>
        <dd>{t('rules.row_read', { rowsRead: check.rowsRead })}</dd>
        {check.parts.map((part, index) => (
          <PartLeft key={index} part={part} grouped={grouped} />
        ))}
      </dl>
    </>
  )
}

function PartLeft({ part, grouped }: { part: PartCount; grouped: boolean }) {
  const unknown = Object.entries(part.unknown).map(([column, rows]) =>
    t('rules.unknown_is_missing', { rows: countWords(rows, grouped), column }),
  )
  return (
    <>
      <dt className="num">{numberWords(part.rowsLeft)}</dt>
      <dd>
        <code>{part.text}</code>
        {unknown.length > 0 && (
          <div className="small quiet">{t('rules.so_not_counted', { unknown: unknown.join(', ') })}</div>
        )}
      </dd>
    </>
  )
}
