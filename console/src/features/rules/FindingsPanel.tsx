import { useState } from 'react'
import { Link } from 'react-router'
import { Button, Form } from 'react-bootstrap'
import { useQuery } from '@tanstack/react-query'
import type { FindingColumn, FindingList, FindingState } from '../../api/types'
import { Loaded } from '../../shared/Loading'
import { HandleMany } from '../../shared/HandleMany'
import { ChooseCell } from '../../shared/ChooseCell'
import { ColumnTable, type CellColumn } from '../../shared/ColumnTable'
import { LinkedText } from '../../shared/LinkedText'
import { useMay } from '../../shared/may'
import { SeverityTag } from '../../shared/SeverityTag'
import { cellWords, markWords, stateWords, timeWords } from '../../shared/words'
import { findingsOf } from './api'
import { rich, t } from '../../messages'

const states: FindingState[] = ['OPEN', 'PENDING', 'AGED_OUT', 'CLEARED']

export function FindingsPanel({ name }: { name: string }) {
  const [state, setState] = useState<FindingState | null>('OPEN')
  const findings = useQuery(findingsOf(name, state))
  const may = useMay()
  return (
    <section className="sheet" id="findings">
      <div className="head">
        <h2>{t('shared.findings')}</h2>
        {may('look') && (
          <span className="quiet small">
            {rich('rules.export_findings_events', {
              a: (inner) => <a href={`/api/rules/${encodeURIComponent(name)}/findings.csv`}>{inner}</a>,
              a2: (inner) => <a href={`/api/rules/${encodeURIComponent(name)}/events.csv`}>{inner}</a>,
            })}
          </span>
        )}
        <Form.Group controlId="finding-state" className="d-flex gap-2 align-items-center">
          <Form.Label className="mb-0 quiet">{t('shared.show')}</Form.Label>
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
            <option value="">{t('shared.all')}</option>
          </Form.Select>
        </Form.Group>
      </div>
      <Loaded query={findings} what={t('loading.the_findings')}>
        {(list) =>
          list.findings.length === 0 ? (
            <p className="quiet mt-2 mb-0">
              {t('rules.no_finding', { state: state ? t('rules.is', { state: stateWords(state) }) : '' })}
            </p>
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

const cellOf = (text: string | null | undefined, type: string, link: string | undefined) =>
  text === null || text === undefined ? (
    <span className="quiet">{t('shared.missing')}</span>
  ) : (
    <LinkedText to={link}>{cellWords(text, type)}</LinkedText>
  )

const align = (column: FindingColumn) => (column.type === 'number' ? 'num' : '')

type FoundHere = FindingList['findings'][number]

/** The columns of the query between those of the finding itself, whose keys begin with a sign. */
function columnsOf(rule: string, list: FindingList): CellColumn<FoundHere>[] {
  const copies = list.findings.some(({ copy }) => copy !== null)
  return [
    {
      key: '@severity',
      label: t('shared.severity'),
      plain: true,
      cell: (finding) => <SeverityTag severity={finding.severity} look={finding.look} />,
    },
    ...(copies ? [{ key: '@copy', label: t('shared.for'), cell: ({ copy }: FoundHere) => copy }] : []),
    ...list.columns.map((column) => ({
      key: column.name,
      label: column.label,
      className: align(column),
      cellClass: ({ row }: FoundHere) => (isShort(row[column.name]) ? 'text-nowrap' : ''),
      cell: ({ row, links }: FoundHere) => cellOf(row[column.name], column.type, links[column.name]),
    })),
    {
      key: '@state',
      label: t('shared.state'),
      cell: (finding) => (
        <>
          {stateWords(finding.state)}
          {finding.noData && <div className="small quiet">{t('shared.no_data')}</div>}
          {finding.handling.map((mark) => (
            <div key={mark.kind} className="small quiet">
              {markWords(mark)}
            </div>
          ))}
        </>
      ),
    },
    {
      key: '@since',
      label: t('shared.since'),
      className: 'text-nowrap',
      cell: (finding) => timeWords(finding.openedAt),
    },
    {
      key: '@reported',
      label: t('rules.reported'),
      className: 'text-nowrap',
      cell: (finding) =>
        finding.reportedAt ? timeWords(finding.reportedAt) : <span className="quiet">{t('shared.not_yet')}</span>,
    },
    {
      key: '@why',
      label: t('shared.why'),
      plain: true,
      cell: (finding) => (
        <Link
          to={`/rules/${rule}/findings/${finding.id}`}
          aria-label={t('shared.why_explanation_of', { identity: finding.identity })}
        >
          {t('shared.why_question')}
        </Link>
      ),
    },
  ]
}

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
  const columns = columnsOf(name, list)
  const shown = all ? list.findings : list.findings.slice(0, shownAtFirst)
  return (
    <>
      {chosen.size > 0 && <HandleMany chosen={{ findings: [...chosen] }} onDone={() => setChosen(new Set())} />}
      <ColumnTable
        cards
        table={`findings:${name}`}
        label={t('shared.findings')}
        columns={columns}
        rows={shown}
        keyOf={(finding) => finding.id}
        lead={{
          heading: (
            <th>
              <span className="visually-hidden">{t('shared.choose')}</span>
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
      {shown.length < list.findings.length && (
        <Button variant="plain" size="sm" className="mt-2" onClick={() => setAll(true)}>
          {t('rules.show_all', { findings: list.findings.length })}
        </Button>
      )}
      {all && list.total > list.findings.length && (
        <p className="quiet small mt-2 mb-0">
          {t('rules.the_first_of_finding_worst', { findings: list.findings.length, total: list.total })}
        </p>
      )}
    </>
  )
}
