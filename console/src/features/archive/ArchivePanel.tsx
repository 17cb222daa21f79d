import { useState } from 'react'
import { Button, Table } from 'react-bootstrap'
import { Link } from 'react-router'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Loaded } from '../../shared/Loading'
import { useMay } from '../../shared/may'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { timeWords } from '../../shared/words'
import { archive, remove, removalOf, restore, type Removal, type Retired } from './api'
import { pageOf } from './retired'
import { t } from '../../messages'

/** What was retired: restored with its history, or removed for good. */
export function ArchivePanel() {
  const all = useQuery(archive)
  return (
    <section className="sheet">
      <h2>{t('archive.retired_definitions')}</h2>
      <p className="small quiet mb-2">{t('archive.retired_definitions_help')}</p>
      <Loaded query={all} what={t('loading.the_archive')}>
        {(list) => (list.length === 0 ? <p className="quiet mb-0">{t('archive.empty')}</p> : <Listed list={list} />)}
      </Loaded>
    </section>
  )
}

function Listed({ list }: { list: Retired[] }) {
  const may = useMay()
  const [removing, setRemoving] = useState<Retired | null>(null)
  const client = useQueryClient()
  const back = useMutation({
    mutationFn: ({ kind, name }: Retired) => restore(kind, name),
    onSuccess: () => client.invalidateQueries(),
  })
  return (
    <>
      <Scroll label={t('archive.retired_definitions')}>
        <Table size="sm" className="cards">
          <thead>
            <tr>
              <th>{t('shared.title')}</th>
              <th>{t('archive.kind')}</th>
              <th>{t('shared.owner')}</th>
              <th>{t('archive.retired')}</th>
              <th>{t('shared.reason')}</th>
              <th>
                <span className="visually-hidden">{t('shared.change')}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {list.map((each) => (
              <tr key={`${each.kind}/${each.name}`}>
                <td className="main">
                  <Link to={pageOf(each.kind, each.name)}>{each.title}</Link>
                </td>
                <td data-label={t('archive.kind')}>{kindWords(each.kind)}</td>
                <td data-label={t('shared.owner')}>
                  {each.owner ?? <span className="quiet">{t('archive.all_teams')}</span>}
                </td>
                <td data-label={t('archive.retired')}>{t('archive.at_by', { at: timeWords(each.at), by: each.by })}</td>
                <td data-label={t('shared.reason')}>{each.reason}</td>
                <td>
                  <div className="d-flex gap-2">
                    {may('write', each.owner ?? undefined) && (
                      <Button
                        size="sm"
                        variant="plain"
                        aria-label={t('archive.restore_one', { title: each.title })}
                        disabled={back.isPending}
                        onClick={() => back.mutate(each)}
                      >
                        {t('archive.restore')}
                      </Button>
                    )}
                    {may('operate') && (
                      <Button
                        size="sm"
                        variant="plain"
                        aria-label={t('archive.remove_one', { title: each.title })}
                        onClick={() => setRemoving(each)}
                      >
                        {t('archive.remove')}
                      </Button>
                    )}
                  </div>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Scroll>
      <div role="status">
        <Refusal error={back.error} />
      </div>
      {removing && (
        <ForGood key={`${removing.kind}/${removing.name}`} retired={removing} onClose={() => setRemoving(null)} />
      )}
    </>
  )
}

const kindWords = (kind: string) => kind.replaceAll('-', ' ')

/** What would go, before it goes. */
function ForGood({ retired, onClose }: { retired: Retired; onClose: () => void }) {
  const { kind, name, title } = retired
  const counts = useQuery(removalOf(kind, name))
  const client = useQueryClient()
  const act = useMutation({
    mutationFn: () => remove(kind, name),
    onSuccess: async () => {
      await client.invalidateQueries()
      onClose()
    },
  })
  return (
    <div className="callout bad mt-2">
      <h3 className="h6">{t('archive.remove_for_good', { title })}</h3>
      <Loaded query={counts} what={t('loading.the_archive')}>
        {(seen) => (
          <>
            <p className="mb-2">{t('archive.what_goes', { counts: countWords(seen).join(', ') })}</p>
            <Button size="sm" className="me-2" disabled={act.isPending} onClick={() => act.mutate()}>
              {t('archive.remove_now')}
            </Button>
            <Button size="sm" variant="plain" onClick={onClose}>
              {t('archive.keep')}
            </Button>
          </>
        )}
      </Loaded>
      <div role="status">
        <Refusal error={act.error} />
      </div>
    </div>
  )
}

function countWords({ revisions, checks, findings, messages, measurements, thresholdValues }: Removal): string[] {
  return [
    t('archive.count_revisions', { revisions }),
    ...(checks > 0 ? [t('archive.count_checks', { checks })] : []),
    ...(findings > 0 ? [t('archive.count_findings', { findings })] : []),
    ...(messages > 0 ? [t('archive.count_messages', { messages })] : []),
    ...(measurements > 0 ? [t('archive.count_measurements', { measurements })] : []),
    ...(thresholdValues > 0 ? [t('archive.count_values', { thresholdValues })] : []),
  ]
}
