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
    'archive',
  ],
}

/** A browser gives a connection up for good when the answer is an error, as from a service that is just being started. */
const ASK_AGAIN_MS = 5000

/**
 * Keeps pages up to date with server-sent events. A hidden page closes the connection, since a browser has few. What a page read before
 * the connection stood may have changed since, so each connection begins with reading again.
 */
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
    let again: ReturnType<typeof setTimeout> | undefined
    const listen = () => {
      const opened = new EventSource('/api/changes')
      source = opened
      opened.addEventListener('open', () => renew(Object.keys(moved)))
      opened.addEventListener('changed', (event: MessageEvent<string>) => renew(event.data.split(' ')))
      opened.addEventListener('error', () => {
        if (opened.readyState === EventSource.CLOSED && source === opened) again = setTimeout(listen, ASK_AGAIN_MS)
      })
    }
    const close = () => {
      clearTimeout(again)
      source?.close()
      source = null
    }
    const look = () => {
      close()
      if (document.visibilityState !== 'hidden') listen()
    }
    look()
    document.addEventListener('visibilitychange', look)
    return () => {
      document.removeEventListener('visibilitychange', look)
      close()
    }
  }, [client])
}
