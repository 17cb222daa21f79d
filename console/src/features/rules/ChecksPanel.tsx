import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Check, PartCount } from '../../api/types'
import { CheckTag } from '../../shared/CheckTag'
import { Loaded } from '../../shared/Loading'
import { Scroll } from '../../shared/Scroll'
import { unevaluatedWords, numberWords, plural, stateWords, timeWords } from '../../shared/words'
import { checksOf, copiesOf, moveCheck } from './api'

const shown = 12

/**
 * @param grouped whether groups are evaluated, not rows
 * @param copies whether the rule has personal copies
 */
export function ChecksPanel({ name, grouped, copies }: { name: string; grouped: boolean; copies: boolean }) {
  const checks = useQuery(checksOf(name))
  return (
    <section className="sheet">
      <h2>Checks</h2>
      <Loaded query={checks} what="The checks">
        {({ checks: list }) =>
          list.length === 0 ? (
            <p className="quiet mt-2 mb-0">Not checked yet. Press Check now, or wait for the schedule.</p>
          ) : (
            <ChecksTable checks={list} one={grouped ? 'group' : 'row'} copies={copies} />
          )
        }
      </Loaded>
    </section>
  )
}

function ChecksTable({ checks, one, copies }: { checks: Check[]; one: string; copies: boolean }) {
  const last = checks.find((check) => check.parts.length > 0)
  return (
    <>
      <Scroll label="Checks">
        <Table>
          <thead>
            <tr>
              <th>Slot</th>
              <th>Outcome</th>
              <th className="num">Rows</th>
              <th className="num">Exceptions</th>
              <th className="num">Reported</th>
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
                    <div className="small">Could not be evaluated: {unevaluatedWords(check)}</div>
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
      {last && <Left check={last} one={one} />}
    </>
  )
}

/** How each personal copy went, asked for once somebody wants to know. */
function Copies({ check }: { check: Check }) {
  const [open, setOpen] = useState(false)
  return (
    <details className="small" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary>Personal copies</summary>
      {open && <CopiesList check={check.id} />}
    </details>
  )
}

function CopiesList({ check }: { check: string }) {
  const copies = useQuery(copiesOf(check))
  return (
    <Loaded query={copies} what="The personal copies">
      {(list) =>
        list.length === 0 ? (
          <p className="quiet mb-0">No copy was checked.</p>
        ) : (
          <ul className="list-unstyled mb-0">
            {list.map((copy) => (
              <li key={copy.copy}>
                {copy.copy} <CheckTag state={copy.state} />{' '}
                {copy.reason ??
                  `${plural(copy.exceptions ?? 0, 'exception')}, ${numberWords(copy.updates ?? 0)} reported`}
                {copy.state === 'FIRED' && ` to ${copy.to.join(', ') || 'the rule’s recipients'}`}
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
          ? `${check.waitingFor ? 'Next try' : 'Next try'} again at ${timeWords(check.retryAt)}. `
          : check.rowsSoFar !== null && `${plural(check.rowsSoFar, 'row')} so far. `}
        <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('stop')}>
          Stop
        </Button>
        {failed}
      </div>
    )
  }
  if (check.state !== 'AWAITING_APPROVAL') return null
  return (
    <div className="d-flex gap-2 mt-1">
      <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('approve')}>
        Approve
      </Button>
      <Button variant="plain" size="sm" disabled={move.isPending} onClick={() => move.mutate('discard')}>
        Discard
      </Button>
      {failed}
    </div>
  )
}

/** How many rows or groups each part of the condition left at the latest check, and where it stayed unknown. */
function Left({ check, one }: { check: Check; one: string }) {
  return (
    <>
      <h2 className="mt-3">{one === 'row' ? 'Rows' : 'Groups'} matching after each part (last check)</h2>
      <dl className="facts">
        <dt className="num">{numberWords(check.rowsRead ?? 0)}</dt>
        <dd>{check.rowsRead === 1 ? 'row' : 'rows'} read</dd>
        {check.parts.map((part, index) => (
          <PartLeft key={index} part={part} one={one} />
        ))}
      </dl>
    </>
  )
}

function PartLeft({ part, one }: { part: PartCount; one: string }) {
  const unknown = Object.entries(part.unknown).map(
    ([column, rows]) => `${plural(rows, one)} unknown: ${column} is missing`,
  )
  return (
    <>
      <dt className="num">{numberWords(part.rowsLeft)}</dt>
      <dd>
        <code>{part.text}</code>
        {unknown.length > 0 && <div className="small quiet">{unknown.join(', ')}, so not counted</div>}
      </dd>
    </>
  )
}
