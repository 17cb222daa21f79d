import { useState } from 'react'
import { Link } from 'react-router'
import { Button, Form, Table } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { FindingColumn, FindingList, FindingState } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { HandleMany } from '../../shared/HandleMany'
import { Scroll } from '../../shared/Scroll'
import { SeverityTag } from '../../shared/SeverityTag'
import { cellWords, markWords, plural, stateWords, timeWords } from '../../shared/words'
import { findingsOf } from './api'

const states: FindingState[] = ['OPEN', 'PENDING', 'AGED_OUT', 'CLEARED']

export function FindingsPanel({ name }: { name: string }) {
  const [state, setState] = useState<FindingState | null>('OPEN')
  const findings = useQuery(findingsOf(name, state))
  return (
    <section className="sheet" id="findings">
      <div className="head">
        <h2>Findings</h2>
        <span className="quiet small">
          Export: <a href={`/api/rules/${encodeURIComponent(name)}/findings.csv`}>findings</a>,{' '}
          <a href={`/api/rules/${encodeURIComponent(name)}/events.csv`}>events</a>
        </span>
        <Form.Group controlId="finding-state" className="d-flex gap-2 align-items-center">
          <Form.Label className="mb-0 quiet">Show</Form.Label>
          <Form.Select
            size="sm"
            value={state ?? ''}
            onChange={(event) => setState(states.find((each) => each === event.target.value) ?? null)}
          >
            {states.map((each) => (
              <option key={each} value={each}>
                {stateWords(each)}
              </option>
            ))}
            <option value="">all</option>
          </Form.Select>
        </Form.Group>
      </div>
      <Loaded query={findings} what="The findings">
        {(list) =>
          list.findings.length === 0 ? (
            <p className="quiet mt-2 mb-0">No finding{state ? ` is ${stateWords(state)}` : ''}.</p>
          ) : (
            <FindingsTable name={name} list={list} />
          )
        }
      </Loaded>
    </section>
  )
}

const shownAtFirst = 10

/** A name such as SK-583 is not broken at its hyphen. */
const isShort = (text: string | null | undefined) => (text?.length ?? 0) <= 12

const cellOf = (text: string | null | undefined, type: string) =>
  text === null || text === undefined ? <span className="quiet">missing</span> : cellWords(text, type)

const align = (column: FindingColumn) => (column.type === 'number' ? 'num' : '')

function FindingsTable({ name, list }: { name: string; list: FindingList }) {
  const [all, setAll] = useState(false)
  const [chosen, setChosen] = useState<Set<number>>(new Set())
  const choose = (id: number, is: boolean) =>
    setChosen((before) => {
      const after = new Set(before)
      if (is) after.add(id)
      else after.delete(id)
      return after
    })
  const columns = list.columns
  const copies = list.findings.some(({ copy }) => copy !== null)
  const shown = all ? list.findings : list.findings.slice(0, shownAtFirst)
  return (
    <>
      {chosen.size > 0 && (
        <HandleMany findings={[...chosen].map((id) => ({ rule: name, id }))} onDone={() => setChosen(new Set())} />
      )}
      <Scroll label="Findings">
        <Table>
          <thead>
            <tr>
              <th>
                <span className="visually-hidden">Choose</span>
              </th>
              <th>Severity</th>
              {copies && <th>For</th>}
              {columns.map((column) => (
                <th key={column.name} className={align(column)}>
                  {column.label}
                </th>
              ))}
              <th>State</th>
              <th>Since</th>
              <th>Reported</th>
              <th>Why</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((finding) => (
              <tr key={finding.id}>
                <td>
                  {finding.state !== 'CLEARED' && (
                    <Form.Check
                      aria-label={`Select ${finding.identity}`}
                      checked={chosen.has(finding.id)}
                      onChange={(event) => choose(finding.id, event.target.checked)}
                    />
                  )}
                </td>
                <td>
                  <SeverityTag severity={finding.severity} />
                </td>
                {copies && <td>{finding.copy}</td>}
                {columns.map((column) => (
                  <td
                    key={column.name}
                    className={isShort(finding.row[column.name]) ? `${align(column)} text-nowrap` : align(column)}
                  >
                    {cellOf(finding.row[column.name], column.type)}
                  </td>
                ))}
                <td>
                  {stateWords(finding.state)}
                  {finding.noData && <div className="small quiet">no data</div>}
                  {finding.handling.map((mark) => (
                    <div key={mark.kind} className="small quiet">
                      {markWords(mark)}
                    </div>
                  ))}
                </td>
                <td className="text-nowrap">{timeWords(finding.openedAt)}</td>
                <td className="text-nowrap">
                  {finding.reportedAt ? timeWords(finding.reportedAt) : <span className="quiet">not yet</span>}
                </td>
                <td>
                  <Link
                    to={`/rules/${name}/findings/${finding.id}`}
                    aria-label={`Why? Explanation of ${finding.identity}`}
                  >
                    Why?
                  </Link>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
        {shown.length < list.findings.length && (
          <Button variant="plain" size="sm" className="mt-2" onClick={() => setAll(true)}>
            Show all {list.findings.length}
          </Button>
        )}
        {all && list.total > list.findings.length && (
          <p className="quiet small mt-2 mb-0">
            The first {list.findings.length} of {plural(list.total, 'finding')}, worst first.
          </p>
        )}
      </Scroll>
    </>
  )
}
