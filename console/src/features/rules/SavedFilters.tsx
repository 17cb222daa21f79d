import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { teams } from '../setup/api'
import { filters, keepFilter, removeFilter } from './api'
import { t } from '../../messages'

/** Filters that a person has saved by name, and those that teams share. */
export function SavedFilters({ now, onChoose }: { now: string; onChoose: (filter: string) => void }) {
  const kept = useQuery(filters)
  const client = useQueryClient()
  const named = useQuery(teams)
  const [name, setName] = useState('')
  const [team, setTeam] = useState('')
  const keep = useMutation({
    mutationFn: () => keepFilter(name.trim(), now, team || null),
    onSuccess: (all) => {
      client.setQueryData(filters.queryKey, all)
      setName('')
    },
  })
  const remove = useMutation({
    mutationFn: removeFilter,
    onSuccess: (all) => client.setQueryData(filters.queryKey, all),
  })
  const list = kept.data ?? []
  if (list.length === 0 && now === '') return null
  return (
    <div className="d-flex flex-wrap gap-2 align-items-center mt-2">
      {list.map((each) => (
        <span key={`${each.team ?? ''}/${each.name}`} className="d-inline-flex">
          <Button
            size="sm"
            variant={each.filter === now ? 'primary' : 'plain'}
            aria-pressed={each.filter === now}
            onClick={() => onChoose(each.filter === now ? '' : each.filter)}
          >
            {each.team === null ? each.name : t('rules.filter_of_team', { name: each.name, team: each.team })}
          </Button>
          {each.filter === now && (
            <Button
              size="sm"
              variant="plain"
              className="ms-1"
              aria-label={t('rules.remove_the_filter', { name: each.name })}
              onClick={() => remove.mutate(each)}
            >
              {t('shared.remove')}
            </Button>
          )}
        </span>
      ))}
      {now !== '' && !list.some((each) => each.filter === now) && (
        <Form
          className="d-flex gap-1"
          onSubmit={(event) => {
            event.preventDefault()
            keep.mutate()
          }}
        >
          <Form.Control
            size="sm"
            aria-label={t('rules.name_for_this_filter')}
            placeholder={t('rules.save_filter_as')}
            maxLength={80}
            required
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
          {(named.data ?? []).length > 0 && (
            <Form.Select
              size="sm"
              className="w-auto"
              aria-label={t('rules.filter_for')}
              value={team}
              onChange={(event) => setTeam(event.target.value)}
            >
              <option value="">{t('rules.filter_for_me')}</option>
              {named.data?.map((each) => (
                <option key={each.name} value={each.name}>
                  {t('rules.filter_for_team', { team: each.name })}
                </option>
              ))}
            </Form.Select>
          )}
          <Button size="sm" type="submit" variant="plain" disabled={keep.isPending}>
            {t('shared.save')}
          </Button>
        </Form>
      )}
      {(keep.error ?? remove.error) && (
        <span className="small problem-text">{(keep.error ?? remove.error)?.message}</span>
      )}
    </div>
  )
}
