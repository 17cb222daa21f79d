import { useEffect } from 'react'
import { useQueryClient } from '@tanstack/react-query'

/** What is asked again when the service says that this has moved. A person's own typing is in none of these. */
const moved: Record<string, string[]> = {
  checks: ['rules', 'checks', 'day', 'status', 'findings'],
  findings: ['rules', 'findings', 'day'],
  mail: ['outbox', 'true', 'day', 'Recipients', 'status'],
  definitions: [
    'rules',
    'queries',
    'revisions',
    'thresholds',
    'calendars',
    'round-ups',
    'sources',
    'true',
    'blocked-addresses',
    'filters',
    'teams',
    'people',
  ],
}

/** Keeps what is shown up to date, by the service's own word (server-sent events). A page that nobody sees lets go of the line, since a browser has few. */
export function useChanges() {
  const client = useQueryClient()
  useEffect(() => {
    const renew = (what: string[]) => {
      const keys = new Set(what.flatMap((each) => moved[each] ?? []))
      void client.invalidateQueries({
        predicate: ({ queryKey }) => typeof queryKey[0] === 'string' && keys.has(queryKey[0]),
      })
    }
    let source: EventSource | null = null
    const listen = () => {
      source = new EventSource('/api/changes')
      source.addEventListener('changed', (event: MessageEvent<string>) => renew(event.data.split(' ')))
    }
    const look = () => {
      source?.close()
      source = null
      if (document.visibilityState === 'hidden') return
      listen()
      renew(Object.keys(moved))
    }
    if (document.visibilityState !== 'hidden') listen()
    document.addEventListener('visibilitychange', look)
    return () => {
      document.removeEventListener('visibilitychange', look)
      source?.close()
    }
  }, [client])
}
