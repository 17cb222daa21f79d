import { useState, type ReactNode } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { HandleMany } from '../../shared/HandleMany'
import { Pick } from '../../shared/Pick'
import { ChooseCell } from '../../shared/ChooseCell'
import { ColumnTable } from '../../shared/ColumnTable'
import { useSettled } from '../../shared/settled'
import { SearchField } from '../../shared/SearchField'
import { useTitle } from '../../shared/title'
import { rules } from '../rules/api'
import { findingColumns } from './findingColumns'
import { filterOf, findingsAcross, type Found, type Sought } from './api'
import { t } from '../../messages'

/** Findings over all rules: what is open, whose hands it is in, and setting marks on several at once. */
export function FindingsPage() {
  useTitle(t('shared.findings'))
  const [search, setSearch] = useSearchParams()
  const known = useQuery(rules)
  const sought: Sought = {
    q: search.get('q') ?? '',
    rule: search.get('rule') ?? '',
    state: search.get('state') ?? '',
    severity: search.get('severity') ?? '',
    handling: search.get('handling') ?? '',
  }
  const settled = useSettled(JSON.stringify(sought), 250)
  const asked = JSON.parse(settled) as Sought
  const found = useInfiniteQuery(findingsAcross(asked))
  const put = (name: keyof Sought, value: string) =>
    setSearch(
      (before) => {
        const after = new URLSearchParams(before)
        if (value) after.set(name, value)
        else after.delete(name)
        return after
      },
      { replace: true },
    )
  return (
    <>
      <div className="head">
        <h1>{t('shared.findings')}</h1>
        <Link className="btn btn-plain" to="/findings/over-time">
          {t('findings.over_time')}
        </Link>
      </div>
      <section className="sheet">
        <div className="d-flex flex-wrap gap-3 align-items-end">
          <Form.Group controlId="finding-search" className="flex-grow-1">
            <Form.Label className="mb-0 small quiet">{t('findings.search_rows_and_rules')}</Form.Label>
            <SearchField value={sought.q} onSettled={(q) => put('q', q)} />
          </Form.Group>
          <Pick
            id="finding-rule"
            label={t('shared.rule')}
            value={sought.rule}
            options={(known.data ?? []).map((rule) => [rule.name, rule.title])}
            any={t('findings.all_rules')}
            onChange={(value) => put('rule', value)}
          />
          <Pick
            id="finding-state"
            label={t('shared.state')}
            value={sought.state}
            options={[
              ['OPEN', t('state.open')],
              ['PENDING', t('state.pending')],
              ['AGED_OUT', t('findings.aged_out')],
              ['CLEARED', t('state.cleared')],
            ]}
            any={t('findings.not_cleared')}
            onChange={(value) => put('state', value)}
          />
          <Pick
            id="finding-severity"
            label={t('shared.severity')}
            value={sought.severity}
            options={[
              ['CRITICAL', t('state.critical')],
              ['WARNING', t('state.warning')],
              ['NOTICE', t('state.notice')],
            ]}
            onChange={(value) => put('severity', value)}
          />
          <Pick
            id="finding-handling"
            label={t('shared.handling')}
            value={sought.handling}
            options={[
              ['BY_NOBODY', t('state.by_nobody')],
              ['TAKEN', t('state.taken')],
              ['SNOOZED', t('state.snoozed')],
              ['ACCEPTED', t('state.accepted')],
            ]}
            onChange={(value) => put('handling', value)}
          />
        </div>
      </section>
      <Loaded query={found} what={t('loading.the_findings')}>
        {({ pages }) => (
          <List
            key={settled}
            findings={pages.flatMap((page) => page.findings)}
            total={pages[0]?.total ?? 0}
            sought={asked}
            narrowed={search.size > 0}
            more={
              found.hasNextPage && (
                <Button
                  size="sm"
                  variant="plain"
                  className="mt-2"
                  disabled={found.isFetchingNextPage}
                  onClick={() => void found.fetchNextPage()}
                >
                  {t('findings.show_more')}
                </Button>
              )
            }
          />
        )}
      </Loaded>
    </>
  )
}

function List({
  findings,
  total,
  sought,
  narrowed,
  more,
}: {
  findings: Found[]
  total: number
  sought: Sought
  narrowed: boolean
  more: ReactNode
}) {
  const [chosen, setChosen] = useState<Set<number>>(new Set())
  // Those that are not shown yet are chosen with the filter, not one by one.
  const [everything, setEverything] = useState(false)
  const shown = findings.filter((finding) => chosen.has(finding.id)).map(({ id }) => id)
  if (findings.length === 0)
    return (
      <p className="sheet quiet">
        {narrowed ? t('findings.no_findings_match') : t('findings.no_findings_yet_they_appear')}
      </p>
    )
  const choose = (id: number, is: boolean) => {
    setEverything(false)
    setChosen((before) => {
      const after = new Set(before)
      if (is) after.add(id)
      else after.delete(id)
      return after
    })
  }
  const markable = findings.filter((finding) => finding.state !== 'CLEARED')
  const allChosen = markable.length > 0 && markable.every((finding) => chosen.has(finding.id))
  return (
    <>
      {shown.length > 0 && (
        <HandleMany
          chosen={everything ? { filter: filterOf(sought), expected: total } : { findings: shown }}
          onDone={() => {
            setChosen(new Set())
            setEverything(false)
          }}
        />
      )}
      <section className="sheet">
        <p className="small quiet mb-0" role="status">
          {total > findings.length
            ? t('findings.the_first_of_finding_worst', { findings: findings.length, total })
            : t('findings.finding_worst_and_newest_first', { total })}
          {allChosen && total > findings.length && (
            <>
              {' '}
              <Button size="sm" variant="link" className="p-0" onClick={() => setEverything(!everything)}>
                {everything
                  ? t('findings.select_shown_only', { shown: shown.length })
                  : t('findings.select_all_found', { total })}
              </Button>
            </>
          )}
        </p>
        <ColumnTable
          cards
          table="all-findings"
          label={t('shared.findings')}
          columns={findingColumns}
          rows={findings}
          keyOf={(finding) => finding.id}
          lead={{
            heading: (
              <th data-label={markable.length > 0 ? t('findings.select_all') : undefined}>
                {markable.length > 0 && (
                  <Form.Check
                    aria-label={t('findings.select_all')}
                    checked={allChosen}
                    onChange={(event) => {
                      setEverything(false)
                      setChosen(event.target.checked ? new Set(markable.map((each) => each.id)) : new Set())
                    }}
                  />
                )}
              </th>
            ),
            cell: (finding) => (
              <ChooseCell
                label={t('shared.select', { identity: finding.identity })}
                possible={finding.state !== 'CLEARED'}
                chosen={chosen.has(finding.id)}
                onChoose={(is) => choose(finding.id, is)}
              />
            ),
          }}
        />
        {more}
        {findings.length > 20 && (
          <Button size="sm" variant="plain" className="mt-2" onClick={() => window.scrollTo({ top: 0 })}>
            {t('findings.to_the_top')}
          </Button>
        )}
      </section>
    </>
  )
}
