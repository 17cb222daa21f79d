import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { Link, useSearchParams } from 'react-router'
import { useQuery } from '@tanstack/react-query'
import type { RuleSummary } from '../../api/types'
import { CheckStrip } from '../../shared/CheckStrip'
import { CheckTag } from '../../shared/CheckTag'
import { Loaded } from '../../shared/Loading'
import { Pick } from '../../shared/Pick'
import { Scroll } from '../../shared/Scroll'
import { SearchField } from '../../shared/SearchField'
import { OpenCounts } from '../../shared/SeverityTag'
import { useTitle } from '../../shared/title'
import { plural, stateWords, timeWords } from '../../shared/words'
import { BulkActionsPanel } from './BulkActionsPanel'
import { rules } from './api'
import { filterOf, matching, searchOf, soughtKinds, type Filter } from './filter'
import { SavedFilters } from './SavedFilters'

export function RulesPage() {
  useTitle('Rules')
  const all = useQuery(rules)
  return (
    <>
      <div className="head">
        <h1>Rules</h1>
        <div className="d-flex gap-2 flex-wrap">
          <Link className="btn btn-plain" to="/recipients">
            All recipients
          </Link>
          <Link className="btn btn-primary" to="/rules/new">
            New rule
          </Link>
        </div>
      </div>
      <Loaded query={all} what="The rules">
        {(list) => (list.length === 0 ? <NoRules /> : <Found rules={list} />)}
      </Loaded>
    </>
  )
}

function NoRules() {
  return (
    <p className="sheet">
      No rules yet. <Link to="/rules/new">Create the first</Link>: it watches a query, finds exceptions and sends them.
    </p>
  )
}

const shownAtOnce = 100

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
            <Form.Label className="mb-0 small quiet">
              Search names, queries, columns, sources, thresholds, recipients and labels
            </Form.Label>
            <SearchField value={filter.q} list="kinds" onSettled={(q) => put({ q })} />
            <datalist id="kinds">
              {soughtKinds.map((kind) => (
                <option key={kind} value={`${kind}:`} />
              ))}
            </datalist>
          </Form.Group>
          <Pick
            id="rule-state"
            label="State"
            value={filter.state}
            options={[
              ['ACTIVE', 'active'],
              ['PAUSED', 'paused'],
              ['DRAFT', 'draft'],
            ]}
            onChange={(state) => put({ state: state as Filter['state'] })}
          />
          <Pick
            id="rule-outcome"
            label="Last check"
            value={filter.outcome}
            options={[
              ['FIRED', 'fired'],
              ['QUIET', 'quiet'],
              ['FAILED', 'failed or incomplete'],
              ['NEVER', 'never checked'],
            ]}
            onChange={(outcome) => put({ outcome: outcome as Filter['outcome'] })}
          />
          {labels.length > 0 && (
            <Pick
              id="rule-label"
              label="Label"
              value={filter.label}
              options={labels.map((each) => [each, each])}
              onChange={(label) => put({ label })}
            />
          )}
          {owners.length > 1 && (
            <Pick
              id="rule-owner"
              label="Owner"
              value={filter.owner}
              options={owners.map((each) => [each, each])}
              onChange={(owner) => put({ owner })}
            />
          )}
          <Form.Check
            id="rule-open"
            type="checkbox"
            label="with open findings"
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
            ? plural(list.length, 'rule')
            : `${plural(found.length, 'rule')} of ${list.length}`}
        </p>
      </section>
      {chosen.size > 0 && (
        <BulkActionsPanel key={[...chosen].join()} chosen={[...chosen]} onClear={() => setChosen(new Set())} />
      )}
      <section className="sheet">
        {found.length === 0 ? (
          <p className="quiet mb-0">
            No rules match.{' '}
            <Button size="sm" variant="plain" onClick={() => setSearch({}, { replace: true })}>
              Show all
            </Button>
          </p>
        ) : (
          <Scroll label="Rules">
            <Table>
              <thead>
                <tr>
                  <th>
                    <Form.Check
                      aria-label="Select all results"
                      checked={allChosen}
                      onChange={(event) =>
                        setChosen(event.target.checked ? new Set(found.map((rule) => rule.name)) : new Set())
                      }
                    />
                  </th>
                  <th>Rule</th>
                  <th>State</th>
                  <th>Open</th>
                  <th>Last check</th>
                  <th>Last 20 checks</th>
                  <th>Next check</th>
                  <th>Recipients</th>
                </tr>
              </thead>
              <tbody>
                {shown.map((rule) => (
                  <Row
                    key={rule.name}
                    rule={rule}
                    chosen={chosen.has(rule.name)}
                    onChoose={(is) => choose(rule.name, is)}
                  />
                ))}
              </tbody>
            </Table>
            {shown.length < found.length && (
              <Button size="sm" variant="plain" className="mt-2" onClick={() => setMore(more + 1)}>
                Show more of {found.length}
              </Button>
            )}
          </Scroll>
        )}
      </section>
    </>
  )
}

function Row({ rule, chosen, onChoose }: { rule: RuleSummary; chosen: boolean; onChoose: (is: boolean) => void }) {
  const last = rule.latest[0]
  return (
    <tr>
      <td>
        <Form.Check
          aria-label={`Select ${rule.title}`}
          checked={chosen}
          onChange={(event) => onChoose(event.target.checked)}
        />
      </td>
      <td>
        <Link to={`/rules/${rule.name}`}>{rule.title}</Link>
        <div className="small quiet">
          {rule.owner}
          {rule.copiedFrom && `, copied from ${rule.copiedFrom}`}
          {rule.labels.length > 0 && ` · ${rule.labels.join(', ')}`}
        </div>
      </td>
      <td>
        {rule.ended ? 'ended' : stateWords(rule.state)}
        {rule.draft && <div className="small quiet">with a draft</div>}
      </td>
      <td>
        <OpenCounts open={rule.open} />
      </td>
      <td>
        {last ? (
          <>
            <CheckTag state={last.state} />
            <div className="small quiet text-nowrap">{timeWords(last.slot)}</div>
          </>
        ) : (
          <span className="quiet">never</span>
        )}
      </td>
      <td>
        <CheckStrip newestFirst={rule.latest} />
      </td>
      <td className="text-nowrap">{rule.nextSlot ? timeWords(rule.nextSlot) : <span className="quiet">none</span>}</td>
      <td className="small">
        {rule.named.length === 0 ? (
          <span className="quiet">none</span>
        ) : (
          <>
            {rule.named.slice(0, 2).map((each) => (
              <div key={each}>
                <Link to={`/recipients/${encodeURIComponent(each)}`}>{each}</Link>
              </div>
            ))}
            {rule.named.length > 2 && <span className="quiet">and {rule.named.length - 2} added</span>}
          </>
        )}
      </td>
    </tr>
  )
}
