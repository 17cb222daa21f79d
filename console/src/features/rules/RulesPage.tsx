import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import type { RuleSummary } from '../../api/types'
import { Choice } from '../../shared/Choice'
import { Loaded } from '../../shared/Loading'
import { Pick } from '../../shared/Pick'
import { ChooseCell } from '../../shared/ChooseCell'
import { ColumnTable } from '../../shared/ColumnTable'
import { SearchField } from '../../shared/SearchField'
import { useMay } from '../../shared/may'
import { useTitle } from '../../shared/title'
import { BulkActionsPanel } from './BulkActionsPanel'
import { rules } from './api'
import { filterOf, matching, searchOf, soughtKinds, type Filter } from './filter'
import { ruleColumns } from './ruleColumns'
import { SavedFilters } from './SavedFilters'
import { rich, t } from '../../messages'

export function RulesPage() {
  useTitle(t('shared.rules'))
  const all = useQuery(rules)
  const may = useMay()
  return (
    <>
      <div className="head">
        <h1>{t('shared.rules')}</h1>
        <div className="d-flex gap-2 flex-wrap">
          <Link className="btn btn-plain" to="/week">
            {t('week.title')}
          </Link>
          <Link className="btn btn-plain" to="/statements">
            {t('statements.statement_of_checks')}
          </Link>
          {may('look') && (
            <Link className="btn btn-plain" to="/recipients">
              {t('shared.all_recipients')}
            </Link>
          )}
          {may('write') && (
            <Link className="btn btn-primary" to="/rules/new">
              {t('shared.new_rule')}
            </Link>
          )}
        </div>
      </div>
      <Loaded query={all} what={t('loading.the_rules')}>
        {(list) => (list.length === 0 ? <NoRules /> : <Found rules={list} />)}
      </Loaded>
    </>
  )
}

function NoRules() {
  return (
    <p className="sheet">
      {rich('rules.no_rules_yet_create_the', { link: (inner) => <Link to="/rules/new">{inner}</Link> })}
    </p>
  )
}

const shownAtOnce = 100

const orders = [
  ['', t('shared.name')],
  ['next', t('rules.next_check')],
  ['open', t('rules.most_open_findings')],
  ['last', t('rules.longest_unchecked')],
] as const

function Found({ rules: list }: { rules: RuleSummary[] }) {
  const [search, setSearch] = useSearchParams()
  const [chosen, setChosen] = useState<Set<string>>(new Set())
  const [more, setMore] = useState(1)
  const filter = filterOf(search)
  const found = matching(list, filter)
  const shown = found.slice(0, more * shownAtOnce)
  const put = (part: Partial<Filter>) => setSearch(searchOf({ ...filter, ...part }), { replace: true })
  const labels = [...new Set(list.flatMap((rule) => rule.labels))].sort((a, b) => a.localeCompare(b))
  const owners = [...new Set(list.map((rule) => rule.owner))].sort((a, b) => a.localeCompare(b))
  const allChosen = found.length > 0 && found.every((rule) => chosen.has(rule.name))
  const choose = (name: string, is: boolean) =>
    setChosen((before) => {
      const after = new Set(before)
      if (is) after.add(name)
      else after.delete(name)
      return after
    })
  return (
    <>
      <section className="sheet">
        <div className="d-flex flex-wrap gap-3 align-items-end">
          <Form.Group controlId="rule-search" className="flex-grow-1">
            <Form.Label className="mb-0 small quiet">{t('rules.search_names_queries_columns_sources')}</Form.Label>
            <SearchField value={filter.q} list="kinds" onSettled={(q) => put({ q })} />
            <datalist id="kinds">
              {soughtKinds.map((kind) => (
                <option key={kind} value={`${kind}:`} />
              ))}
            </datalist>
          </Form.Group>
          <Pick
            id="rule-state"
            label={t('shared.state')}
            value={filter.state}
            options={[
              ['ACTIVE', t('state.active')],
              ['PAUSED', t('state.paused')],
              ['DRAFT', t('state.draft')],
            ]}
            onChange={(state) => put({ state: state as Filter['state'] })}
          />
          <Pick
            id="rule-outcome"
            label={t('rules.last_check')}
            value={filter.outcome}
            options={[
              ['FIRED', t('state.fired')],
              ['QUIET', t('state.quiet')],
              ['FAILED', t('rules.failed_or_incomplete')],
              ['NEVER', t('rules.never_checked')],
            ]}
            onChange={(outcome) => put({ outcome: outcome as Filter['outcome'] })}
          />
          {labels.length > 0 && (
            <Pick
              id="rule-label"
              label={t('shared.label')}
              value={filter.label}
              options={labels.map((each) => [each, each])}
              onChange={(label) => put({ label })}
            />
          )}
          {owners.length > 1 && (
            <Pick
              id="rule-owner"
              label={t('shared.owner')}
              value={filter.owner}
              options={owners.map((each) => [each, each])}
              onChange={(owner) => put({ owner })}
            />
          )}
          <Choice
            large
            id="rule-sort"
            label={t('rules.sort_by')}
            value={filter.sort}
            options={orders}
            onChange={(sort) => put({ sort })}
          />
          <Form.Check
            id="rule-open"
            type="checkbox"
            label={t('rules.with_open_findings')}
            checked={filter.open}
            onChange={(event) => put({ open: event.target.checked })}
          />
        </div>
        <SavedFilters
          now={searchOf(filter).toString()}
          onChoose={(kept) => setSearch(new URLSearchParams(kept), { replace: true })}
        />
        <p className="small quiet mt-2 mb-0" role="status">
          {found.length === list.length
            ? t('rules.count_rules', { list: list.length })
            : t('rules.rule_of', { found: found.length, list: list.length })}
        </p>
      </section>
      {chosen.size > 0 && (
        <BulkActionsPanel key={[...chosen].join()} chosen={[...chosen]} onClear={() => setChosen(new Set())} />
      )}
      <section className="sheet">
        {found.length === 0 ? (
          <p className="quiet mb-0">
            {t('rules.no_rules_match')}{' '}
            <Button size="sm" variant="plain" onClick={() => setSearch({}, { replace: true })}>
              {t('rules.show_all_short')}
            </Button>
          </p>
        ) : (
          <>
            <ColumnTable
              cards
              table="rules"
              label={t('shared.rules')}
              columns={ruleColumns}
              rows={shown}
              keyOf={(rule) => rule.name}
              lead={{
                heading: (
                  <th data-label={t('rules.select_all_results')}>
                    <Form.Check
                      aria-label={t('rules.select_all_results')}
                      checked={allChosen}
                      onChange={(event) =>
                        setChosen(event.target.checked ? new Set(found.map((rule) => rule.name)) : new Set())
                      }
                    />
                  </th>
                ),
                cell: (rule) => (
                  <ChooseCell
                    label={t('rules.select', { title: rule.title })}
                    chosen={chosen.has(rule.name)}
                    onChoose={(is) => choose(rule.name, is)}
                  />
                ),
              }}
            />
            {shown.length < found.length && (
              <Button size="sm" variant="plain" className="mt-2" onClick={() => setMore(more + 1)}>
                {t('rules.show_more_of', { found: found.length })}
              </Button>
            )}
          </>
        )}
      </section>
    </>
  )
}
