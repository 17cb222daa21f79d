import { useEffect } from 'react'
import { useQueryClient } from '@tanstack/react-query'

/** What is read again when the service says that it changed. Unsaved input is in none of these. */
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

/** Keeps pages up to date with server-sent events. A hidden page closes the connection, since a browser has few. */
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
