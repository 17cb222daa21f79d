import { useQuery } from '@tanstack/react-query'
import { useMay } from '../../shared/may'
import { archive, type Retired } from './api'

/** What is known of its retirement; undefined of what is in use, and for those who do not see the archive. */
export function useRetired(kind: string, name: string): Retired | undefined {
  const may = useMay()
  const all = useQuery({ ...archive, enabled: may('look') })
  return all.data?.find((each) => each.kind === kind && each.name === name)
}

const pages: Record<string, string> = {
  rule: '/rules',
  query: '/queries',
  threshold: '/thresholds',
  calendar: '/calendars',
  layout: '/layouts',
  'recipient-list': '/recipient-lists',
  'round-up': '/round-ups',
}

/** Where a definition is seen. */
export const pageOf = (kind: string, name: string) => `${pages[kind] ?? `/documents/${kind}`}/${name}`
