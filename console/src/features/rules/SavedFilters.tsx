import { useState } from 'react'
import { Button, Form } from 'react-bootstrap'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { filters, keepFilter, removeFilter } from './api'
import { t } from '../../messages'

/** Filters that a person has kept by a name of their own. */
export function SavedFilters({ now, onChoose }: { now: string; onChoose: (filter: string) => void }) {
  const kept = useQuery(filters)
  const client = useQueryClient()
  const [name, setName] = useState('')
  const keep = useMutation({
    mutationFn: () => keepFilter(name.trim(), now),
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
        <span key={each.name} className="d-inline-flex">
          <Button
            size="sm"
            variant={each.filter === now ? 'primary' : 'plain'}
            aria-pressed={each.filter === now}
            onClick={() => onChoose(each.filter === now ? '' : each.filter)}
          >
            {each.name}
          </Button>
          {each.filter === now && (
            <Button
              size="sm"
              variant="plain"
              className="ms-1"
              aria-label={t('rules.remove_the_filter', { name: each.name })}
              onClick={() => remove.mutate(each.name)}
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
