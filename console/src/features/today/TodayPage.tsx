import { useState, type ReactNode } from 'react'
import { Button, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery, useQueryClient, type UseQueryResult } from '@tanstack/react-query'
import type { CheckState, RuleSummary, Schemas } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { useMay } from '../../shared/may'
import { Scroll } from '../../shared/Scroll'
import { OpenCounts } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { ageWords, numberWords, timeWords } from '../../shared/words'
import { blockedAddresses, holds, outbox } from '../outbox/api'
import { checkNow, rules } from '../rules/api'
import { sources } from '../setup/api'
import { day, dayAround, type DaySeen } from './api'
import { Lanes } from './Lanes'
import { headline, needsOf, type Need } from './needs'
import { rich, t } from '../../messages'

export function TodayPage() {
  useTitle(t('shared.today'))
  const [bounds] = useState(() => dayAround(new Date()))
  const all = useQuery(rules)
  const look = useMay()('look')
  const messages = useQuery({ ...outbox({}), enabled: look })
  const held = useQuery(holds)
  const bad = useQuery({ ...blockedAddresses, enabled: look })
  const seen = useQuery(day(bounds))
  return (
    <Loaded query={all} what={t('loading.the_rules')}>
      {(list) => (
        <WithMessages query={look ? messages : null}>
          {(mail) => (
            <Loaded query={seen} what={t('loading.the_day')}>
              {(data) => (
                <Today
                  rules={list}
                  day={data}
                  needs={needsOf({
                    rules: list,
                    messages: mail,
                    holds: held.data ?? [],
                    blockedAddresses: bad.data ?? [],
                    day: data,
                  })}
                />
              )}
            </Loaded>
          )}
        </WithMessages>
      )}
    </Loaded>
  )
}

type MessageList = Schemas['MessageList']
type Messages = MessageList['messages']

/** Readers do not see the outbox; what needs them lies elsewhere. */
function WithMessages({
  query,
  children,
}: {
  query: UseQueryResult<MessageList> | null
  children: (messages: Messages) => ReactNode
}) {
  if (query === null) return children([])
  return (
    <Loaded query={query} what={t('loading.the_outbox')}>
      {({ messages }) => children(messages)}
    </Loaded>
  )
}

const sum = (day: DaySeen, ...states: CheckState[]) =>
  states.reduce((all, state) => all + (day.outcomes[state] ?? 0), 0)

/** `Since midnight 132 checks ran: 6 fired, 125 quiet, 1 failed.` */
export function soFar(day: DaySeen): string {
  const fired = sum(day, 'FIRED')
  const failed = sum(day, 'FAILED', 'PARTLY_FAILED')
  const quiet = sum(day, 'QUIET')
  const running = sum(day, 'RUNNING')
  const incomplete = sum(day, 'INCOMPLETE')
  const others =
    Object.values(day.outcomes).reduce((all, each) => all + each, 0) - fired - failed - quiet - running - incomplete
  const parts = [
    t('today.fired', { fired: numberWords(fired) }),
    t('today.quiet', { quiet: numberWords(quiet) }),
    t('today.failed', { failed: numberWords(failed) }),
    incomplete > 0 && t('today.incomplete', { incomplete: numberWords(incomplete) }),
    others > 0 && t('today.other', { others: numberWords(others) }),
  ]
    .filter(Boolean)
    .join(', ')
  const mail = t('today.message_sent', {
    sent: day.sent,
    queued: day.queued > 0 ? t('today.queued', { queued: numberWords(day.queued) }) : '',
  })
  return t('today.since_midnight_check_ran', {
    fired: fired + failed + quiet + incomplete + others,
    parts,
    running: running > 0 ? t('today.running', { running: numberWords(running) }) : '',
    mail,
  })
}

function Today({ rules: list, day: seen, needs }: { rules: RuleSummary[]; day: DaySeen; needs: Need[] }) {
  const may = useMay()
  return (
    <>
      <div className="head">
        <div>
          <h1>{list.length === 0 ? t('today.get_started') : headline(needs)}</h1>
          {list.length > 0 && <p className="quiet mb-0">{soFar(seen)}</p>}
        </div>
        {may('write') && (
          <Link className="btn btn-plain" to="/rules/new">
            {t('shared.new_rule')}
          </Link>
        )}
      </div>
      {list.length === 0 ? (
        <Beginning />
      ) : (
        <>
          <div className={needs.length > 0 ? 'two wide-right' : ''}>
            {needs.length > 0 && <Needs needs={needs} />}
            <section className="sheet">
              <h2>{t('today.todays_checks')}</h2>
              <Lanes day={seen} />
            </section>
          </div>
          <OpenFindings day={seen} />
        </>
      )}
    </>
  )
}

/** What to do first where there is nothing yet, in the order of work. */
function Beginning() {
  const known = useQuery(sources)
  const none = known.data?.length === 0
  return (
    <ol className="sheet steps-to-begin">
      <li>
        {none ? (
          <>
            {rich('today.a_source_an_operator_connects', {
              code: (inner) => <code>{inner}</code>,
              link: (inner) => <Link to="/setup">{inner}</Link>,
            })}
          </>
        ) : (
          <>
            {t('today.a_source_is_connected', {
              known: known.data && `: ${known.data.map((source) => source.name).join(', ')}`,
            })}
          </>
        )}
      </li>
      <li>{rich('today.write_a_query_one_select', { link: (inner) => <Link to="/queries/new">{inner}</Link> })}</li>
      <li>{rich('today.create_a_rule_that_says', { link: (inner) => <Link to="/rules/new">{inner}</Link> })}</li>
    </ol>
  )
}

function Needs({ needs }: { needs: Need[] }) {
  const [all, setAll] = useState(false)
  const shown = all ? needs : needs.slice(0, 6)
  return (
    <section className="sheet">
      <h2>{t('today.needs_attention')}</h2>
      {shown.map((need) => (
        <div className="need" key={need.what + need.to}>
          <span className={`tag ${need.look} align-self-start`} aria-hidden="true">
            {need.sign}
          </span>
          <div className="flex-grow-1">
            <b>{need.what}</b>
            <div className="quiet">{need.why}</div>
          </div>
          {need.check ? (
            <CheckNow rule={need.check} what={need.what} />
          ) : (
            <Link className="btn btn-plain btn-sm align-self-start text-nowrap" to={need.to}>
              {need.verb}
              <span className="visually-hidden">: {need.what}</span>
            </Link>
          )}
        </div>
      ))}
      {shown.length < needs.length && (
        <Button size="sm" variant="plain" className="mt-2" onClick={() => setAll(true)}>
          {t('today.show_all', { needs: needs.length })}
        </Button>
      )}
    </section>
  )
}

function CheckNow({ rule, what }: { rule: string; what: string }) {
  const client = useQueryClient()
  const [key] = useState(() => crypto.randomUUID())
  const ask = useMutation({ mutationFn: () => checkNow(rule, key), onSettled: () => client.invalidateQueries() })
  return (
    <span className="align-self-start text-end">
      <Button size="sm" variant="plain" className="text-nowrap" disabled={ask.isPending} onClick={() => ask.mutate()}>
        {ask.isPending ? t('shared.checking') : t('shared.check_now')}
        <span className="visually-hidden">: {what}</span>
      </Button>
      <Link className="small d-block mt-1" to={`/rules/${rule}`}>
        {t('shared.show')}
      </Link>
      <span role="status">{ask.error && <span className="small problem-text">{ask.error.message}</span>}</span>
    </span>
  )
}

function OpenFindings({ day: seen }: { day: DaySeen }) {
  const total = seen.open.reduce(
    (all, each) => all + Object.values(each.open).reduce((sum, count) => sum + count, 0),
    0,
  )
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('today.open_findings')}</h2>
        {total > 0 && (
          <Link className="small quiet" to="/findings">
            {t('today.all_in_rule', { total: numberWords(total), open: seen.open.length })}
          </Link>
        )}
      </div>
      {seen.open.length === 0 ? (
        <p className="quiet mt-2 mb-0">{t('today.no_open_findings')}</p>
      ) : (
        <Scroll label={t('today.open_findings')}>
          <Table>
            <thead>
              <tr>
                <th>{t('shared.rule')}</th>
                <th>{t('shared.open')}</th>
                <th className="num">{t('today.new_today')}</th>
                <th className="num">{t('today.cleared_today')}</th>
                <th>{t('today.oldest')}</th>
                <th>{t('today.taken_by')}</th>
                <th>{t('today.last_reported')}</th>
              </tr>
            </thead>
            <tbody>
              {seen.open.map((each) => (
                <tr key={each.rule}>
                  <td>
                    <Link to={`/findings?rule=${each.rule}`}>{each.title}</Link>
                  </td>
                  <td>
                    <OpenCounts open={each.open} looks={each.looks} />
                  </td>
                  <td className="num">{numberWords(each.newToday)}</td>
                  <td className="num">{numberWords(each.cleared)}</td>
                  <td className="text-nowrap">{each.oldest ? ageWords(each.oldest, seen.now) : ''}</td>
                  <td>
                    {each.taken === 0 ? (
                      <span className="quiet">{t('shared.none')}</span>
                    ) : (
                      `${each.takenBy.join(', ')} (${numberWords(each.taken)})`
                    )}
                  </td>
                  <td>
                    {each.lastReported ? (
                      t('today.to_person', {
                        lastReported: timeWords(each.lastReported),
                        lastRecipients: each.lastRecipients,
                      })
                    ) : (
                      <span className="quiet">{t('shared.not_yet')}</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </Scroll>
      )}
    </section>
  )
}
