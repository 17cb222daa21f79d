import { useState } from 'react'
import { Button, Form, Table } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Refusal } from '../../shared/Refusal'
import { Scroll } from '../../shared/Scroll'
import { teams } from '../setup/api'
import { bulkAction, type BulkAction, type BulkActionResult } from './api'
import { t } from '../../messages'

const acts: [BulkAction['action'], string][] = [
  ['PAUSE', t('shared.pause')],
  ['ACTIVATE', t('rules.activate')],
  ['CHECK', t('shared.check_now')],
  ['HAND_OVER', t('rules.hand_over')],
  ['RECIPIENTS', t('rules.change_recipients')],
]

const people = (text: string) =>
  text
    .split(/[,;]/)
    .map((each) => each.trim())
    .filter(Boolean)

/** One act on many rules: first the list of what would be done to each, then the doing. */
export function BulkActionsPanel({ chosen, onClear }: { chosen: string[]; onClear: () => void }) {
  const [act, setAct] = useState<BulkAction['action']>('PAUSE')
  const [owner, setOwner] = useState('')
  const [add, setAdd] = useState('')
  const [remove, setRemove] = useState('')
  const [reason, setReason] = useState('')
  const known = useQuery(teams)
  const client = useQueryClient()
  const ask: BulkAction = {
    action: act,
    rules: chosen,
    ...(act === 'HAND_OVER' ? { owner } : {}),
    ...(act === 'RECIPIENTS' ? { add: people(add), remove: people(remove) } : {}),
    reason,
  }
  const look = useMutation({ mutationFn: () => bulkAction(ask, false) })
  const really = useMutation({
    mutationFn: () => bulkAction(ask, true),
    onSuccess: async () => {
      look.reset()
      await client.invalidateQueries()
    },
  })
  const word = acts.find(([code]) => code === act)?.[1] ?? ''
  const again = () => {
    look.reset()
    really.reset()
  }
  const willDo = look.data?.filter((each) => each.refused === null).length ?? 0
  return (
    <section className="sheet chosen" aria-label={t('rules.selected_rules')}>
      <Form
        className="d-flex flex-wrap gap-2 align-items-end"
        onSubmit={(event) => {
          event.preventDefault()
          really.reset()
          look.mutate()
        }}
      >
        <strong className="me-2">{t('rules.rule_selected', { chosen: chosen.length })}</strong>
        <Form.Group controlId="act">
          <Form.Label className="mb-0 small quiet">{t('rules.action')}</Form.Label>
          <Form.Select
            size="sm"
            value={act}
            onChange={(event) => {
              again()
              setAct(acts.find(([code]) => code === event.target.value)?.[0] ?? 'PAUSE')
            }}
          >
            {acts.map(([code, words]) => (
              <option key={code} value={code}>
                {words}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        {act === 'HAND_OVER' && (
          <Form.Group controlId="new-owner">
            <Form.Label className="mb-0 small quiet">{t('rules.to_the_team')}</Form.Label>
            <Form.Control
              size="sm"
              required
              list="teams"
              value={owner}
              onChange={(event) => {
                again()
                setOwner(event.target.value)
              }}
            />
            <datalist id="teams">
              {(known.data ?? []).map((team) => (
                <option key={team.name} value={team.name} />
              ))}
            </datalist>
          </Form.Group>
        )}
        {act === 'RECIPIENTS' && (
          <>
            <Form.Group controlId="add-people">
              <Form.Label className="mb-0 small quiet">{t('rules.add_comma_separated')}</Form.Label>
              <Form.Control
                size="sm"
                value={add}
                onChange={(event) => {
                  again()
                  setAdd(event.target.value)
                }}
              />
            </Form.Group>
            <Form.Group controlId="remove-people">
              <Form.Label className="mb-0 small quiet">{t('shared.remove')}</Form.Label>
              <Form.Control
                size="sm"
                value={remove}
                onChange={(event) => {
                  again()
                  setRemove(event.target.value)
                }}
              />
            </Form.Group>
          </>
        )}
        {(act === 'HAND_OVER' || act === 'RECIPIENTS') && (
          <Form.Group controlId="act-reason">
            <Form.Label className="mb-0 small quiet">{t('shared.reason')}</Form.Label>
            <Form.Control size="sm" value={reason} onChange={(event) => setReason(event.target.value)} />
          </Form.Group>
        )}
        <Button size="sm" type="submit" variant="plain" disabled={look.isPending}>
          {t('shared.preview')}
        </Button>
        <Button size="sm" variant="plain" onClick={onClear}>
          {t('rules.clear_selection')}
        </Button>
      </Form>
      <div role="status">
        <Refusal error={look.error ?? really.error} />
        {look.data && <Listed list={look.data} />}
        {look.data && (
          <Button className="mt-2" disabled={really.isPending || willDo === 0} onClick={() => really.mutate()}>
            {willDo === 0 ? t('rules.none_of_these_rules_can') : t('rules.act_on_rules', { word, willDo })}
          </Button>
        )}
        {really.data && (
          <>
            <p className="callout mt-2">
              {t('rules.changed_rule', { really: really.data.filter((each) => each.refused === null).length })}
            </p>
            {really.data.some((each) => each.refused !== null) && (
              <Listed list={really.data.filter((each) => each.refused !== null)} />
            )}
          </>
        )}
      </div>
    </section>
  )
}

function Listed({ list }: { list: BulkActionResult[] }) {
  return (
    <Scroll label={t('rules.preview_of_the_changes')}>
      <Table size="sm">
        <thead>
          <tr>
            <th>{t('shared.rule')}</th>
            <th>{t('rules.what')}</th>
          </tr>
        </thead>
        <tbody>
          {list.map((each) => (
            <tr key={each.rule}>
              <td>{each.title}</td>
              <td>
                {each.refused === null ? (
                  each.result
                ) : (
                  <span className="problem-text">{t('rules.not_changed', { refused: each.refused })}</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  )
}
