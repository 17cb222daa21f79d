import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { Link } from 'react-router'
import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { Choice } from '../../shared/Choice'
import { ColumnTable, type CellColumn } from '../../shared/ColumnTable'
import { Loaded } from '../../shared/Loading'
import { timeWords } from '../../shared/words'
import { everybody } from '../setup/api'
import { audit, auditFile, type AuditEntry, type Sought } from './api'
import { addressOf, actWords } from './acts'
import { t } from '../../messages'

const columns: CellColumn<AuditEntry>[] = [
  { key: 'at', label: t('audit.at'), className: 'text-nowrap', cell: ({ at }) => timeWords(at) },
  {
    key: 'by',
    label: t('audit.by'),
    className: 'text-nowrap',
    cell: ({ login, name }) =>
      login === null ? <span className="quiet">{t('audit.nobody')}</span> : <span title={login}>{name}</span>,
  },
  { key: 'act', label: t('audit.act'), className: 'main', plain: true, cell: ({ act }) => actWords(act) },
  {
    key: 'about',
    label: t('audit.about'),
    cell: (entry) => {
      const address = addressOf(entry)
      return address === null ? entry.subject : <Link to={address}>{entry.subject}</Link>
    },
  },
  { key: 'detail', label: t('audit.detail'), cell: ({ detail }) => detail },
]

/** Who did what, newest first: changes apart from looks at data and from log-ins. */
export function AuditPanel() {
  const [sought, setSought] = useState<Sought>({ kind: 'CHANGES', by: '', q: '', from: '', to: '' })
  const put = (part: Partial<Sought>) => setSought({ ...sought, ...part })
  const users = useQuery(everybody)
  const pages = useInfiniteQuery(audit(sought))
  return (
    <section className="sheet">
      <div className="head">
        <h2>{t('audit.who_did_what')}</h2>
        <span className="small quiet d-flex gap-2">
          <a href={auditFile('csv', sought)}>{t('audit.csv')}</a>
          <a href={auditFile('jsonl', sought)}>{t('audit.json_lines')}</a>
        </span>
      </div>
      <Form className="d-flex flex-wrap gap-2 align-items-end" onSubmit={(event) => event.preventDefault()}>
        <Choice
          id="audit-kind"
          label={t('audit.kind')}
          value={sought.kind}
          options={[
            ['CHANGES', t('audit.changes')],
            ['LOOKS', t('audit.looks')],
            ['LOG_INS', t('audit.log_ins')],
            ['', t('audit.all')],
          ]}
          onChange={(kind) => put({ kind: kind })}
        />
        <Choice
          id="audit-by"
          label={t('audit.by')}
          value={sought.by}
          options={[['', t('audit.everybody')], ...(users.data ?? []).map(({ login, name }) => [login, name] as const)]}
          onChange={(by) => put({ by })}
        />
        <Form.Group controlId="audit-q">
          <Form.Label className="mb-0 small quiet">{t('audit.search')}</Form.Label>
          <Form.Control size="sm" type="search" value={sought.q} onChange={(event) => put({ q: event.target.value })} />
        </Form.Group>
        <Form.Group controlId="audit-from">
          <Form.Label className="mb-0 small quiet">{t('audit.from')}</Form.Label>
          <Form.Control
            size="sm"
            type="date"
            value={sought.from}
            onChange={(event) => put({ from: event.target.value })}
          />
        </Form.Group>
        <Form.Group controlId="audit-to">
          <Form.Label className="mb-0 small quiet">{t('audit.to')}</Form.Label>
          <Form.Control size="sm" type="date" value={sought.to} onChange={(event) => put({ to: event.target.value })} />
        </Form.Group>
      </Form>
      <Loaded query={pages} what={t('loading.the_audit')}>
        {({ pages: all }) => {
          const entries = all.flatMap((page) => page.entries)
          return entries.length === 0 ? (
            <p className="quiet mt-2 mb-0">{t('audit.nothing_matches')}</p>
          ) : (
            <ColumnTable
              cards
              small
              table="audit"
              label={t('audit.who_did_what')}
              columns={columns}
              rows={entries}
              keyOf={({ id }) => id}
            />
          )
        }}
      </Loaded>
      {pages.hasNextPage && (
        <Button
          size="sm"
          variant="plain"
          className="mt-2"
          disabled={pages.isFetchingNextPage}
          onClick={() => void pages.fetchNextPage()}
        >
          {t('audit.show_earlier')}
        </Button>
      )}
    </section>
  )
}
