import { useEffect } from 'react'
import { useQueryClient } from '@tanstack/react-query'

/** What is asked anew when the service says that this has moved. A person's own typing is in none of these. */
const moved: Record<string, string[]> = {
  checks: ['rules', 'checks', 'day', 'status', 'findings'],
  findings: ['rules', 'findings', 'day'],
  mail: ['outbox', 'holds', 'day', 'readers', 'status'],
  definitions: ['rules', 'queries', 'revisions', 'thresholds', 'calendars', 'round-ups', 'sources', 'holds', 'bad-addresses', 'filters', 'teams', 'people'],
}

/** Keeps what is shown up to date, by the service's own word (server-sent events). */
export function useChanges() {
  const client = useQueryClient()
  useEffect(() => {
    const source = new EventSource('/api/changes')
    const hear = (event: MessageEvent<string>) => {
      const keys = new Set(event.data.split(' ').flatMap((what) => moved[what] ?? []))
      void client.invalidateQueries({ predicate: ({ queryKey }) => typeof queryKey[0] === 'string' && keys.has(queryKey[0]) })
    }
    source.addEventListener('changed', hear)
    return () => source.close()
  }, [client])
}
