import { lazy, Suspense, useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { restore, revisionsOf, revisionText, type Revision } from './api'
import { t } from '../../messages'

const Differences = lazy(() => import('./Differences').then(({ Differences: shown }) => ({ default: shown })))

/** What was saved of a definition, how two of them differ, and the way back. */
export function RevisionsPanel({ kind, name, onRestored }: { kind: string; name: string; onRestored: () => void }) {
  const all = useQuery(revisionsOf(kind, name))
  return (
    <section className="sheet">
      <h2>{t('revisions.revisions')}</h2>
      <Loaded query={all} what={t('loading.the_revisions')}>
        {(list) => <Listed kind={kind} name={name} list={list} onRestored={onRestored} />}
      </Loaded>
    </section>
  )
}

const shownAtFirst = 5

function Listed({
  kind,
  name,
  list,
  onRestored,
}: {
  kind: string
  name: string
  list: Revision[]
  onRestored: () => void
}) {
  const newest = list[0]?.revision ?? 1
  const [older, setOlder] = useState<number | null>(null)
  const [newer, setNewer] = useState(newest)
  const [all, setAll] = useState(false)
  return (
    <>
      <Scroll label={t('revisions.revisions')}>
        <Table size="sm">
          <thead>
            <tr>
              <th className="num">{t('revisions.no')}</th>
              <th>{t('shared.saved')}</th>
              <th>{t('shared.reason')}</th>
              <th>{t('revisions.compare')}</th>
            </tr>
          </thead>
          <tbody>
            {(all ? list : list.slice(0, shownAtFirst)).map((each) => (
              <tr key={each.revision}>
                <td className="num">{each.revision}</td>
                <td className="text-nowrap">
                  {timeWords(each.at)}
                  <div className="small quiet">{each.author}</div>
                </td>
                <td>{each.reason || <span className="quiet">{t('shared.none')}</span>}</td>
                <td>
                  {each.revision === newest ? (
                    <span className="quiet">{t('revisions.current')}</span>
                  ) : (
                    <Button
                      size="sm"
                      variant="plain"
                      aria-pressed={older === each.revision}
                      onClick={() => {
                        setOlder(each.revision)
                        setNewer(newest)
                      }}
                    >
                      {t('revisions.with', { newest })}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      {!all && list.length > shownAtFirst && (
        <Button size="sm" variant="plain" className="mt-2" onClick={() => setAll(true)}>
          {t('revisions.show_all', { list: list.length })}
        </Button>
      )}
      {older !== null && (
        <div className="mt-3">
          <div className="d-flex gap-2 align-items-end flex-wrap mb-2">
            <Choice
              id={`${kind}-older`}
              label={t('revisions.this_revision')}
              list={list}
              value={older}
              onChange={setOlder}
            />
            <Choice
              id={`${kind}-newer`}
              label={t('revisions.with_this_revision')}
              list={list}
              value={newer}
              onChange={setNewer}
            />
            <Button size="sm" variant="plain" onClick={() => setOlder(null)}>
              {t('revisions.close')}
            </Button>
          </div>
          <Compared kind={kind} name={name} older={older} newer={newer} />
          {older !== newest && <Restore key={older} kind={kind} name={name} revision={older} onRestored={onRestored} />}
        </div>
      )}
    </>
  )
}

function Choice({
  id,
  label,
  list,
  value,
  onChange,
}: {
  id: string
  label: string
  list: Revision[]
  value: number
  onChange: (revision: number) => void
}) {
  return (
    <Form.Group controlId={id}>
      <Form.Label className="mb-0 small quiet">{label}</Form.Label>
      <Form.Select size="sm" value={value} onChange={(event) => onChange(Number(event.target.value))}>
        {list.map((each) => (
          <option key={each.revision} value={each.revision}>
            {t('revisions.revision', { revision: each.revision })}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  )
}

export function Compared({ kind, name, older, newer }: { kind: string; name: string; older: number; newer: number }) {
  const before = useQuery(revisionText(kind, name, older))
  const after = useQuery(revisionText(kind, name, newer))
  return (
    <Loaded query={before} what={t('loading.the_older_one')}>
      {(was) => (
        <Loaded query={after} what={t('loading.the_newer_one')}>
          {(is) => (
            <Suspense fallback={null}>
              <Differences
                before={was}
                after={is}
                beforeLabel={t('revisions.older_revision', { older })}
                afterLabel={t('revisions.newer_revision', { newer })}
              />
            </Suspense>
          )}
        </Loaded>
      )}
    </Loaded>
  )
}

function Restore({
  kind,
  name,
  revision,
  onRestored,
}: {
  kind: string
  name: string
  revision: number
  onRestored: () => void
}) {
  const [reason, setReason] = useState('')
  const back = useMutation({ mutationFn: () => restore(kind, name, revision, reason), onSuccess: onRestored })
  return (
    <Form
      className="d-flex gap-2 align-items-end flex-wrap mt-2"
      onSubmit={(event) => {
        event.preventDefault()
        back.mutate()
      }}
    >
      <Form.Group controlId={`restore-${kind}`} className="flex-grow-1">
        <Form.Label className="mb-0 small quiet">{t('revisions.reason_for_restoring')}</Form.Label>
        <Form.Control
          size="sm"
          value={reason}
          placeholder={t('revisions.restore_revision', { revision })}
          onChange={(event) => setReason(event.target.value)}
        />
      </Form.Group>
      <Button type="submit" size="sm" variant="plain" disabled={back.isPending}>
        {t('revisions.restore_heading', { revision })}
      </Button>
      <div role="status">
        <Refusal error={back.error} />
      </div>
    </Form>
  )
}
