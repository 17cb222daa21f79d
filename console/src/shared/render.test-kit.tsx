import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { vi } from 'vitest'
import { PersonContext } from './person'
import type { Check, Person, RuleSummary, LatestCheck } from '../api/types'

export const operator: Person = {
  id: 'p1',
  login: 'operator',
  name: 'Operator',
  email: 'operator@skerryline.example',
  role: 'OPERATOR',
  teams: [],
}

/** Renders at an address, with an API that answers as given: `GET /api/rules` to a body, or to a function that makes one of what was sent. */
export function renderAt(
  address: string,
  node: ReactNode,
  answers: Record<string, unknown> = {},
  person: Person = operator,
) {
  const calls: string[] = []
  vi.stubGlobal('fetch', (path: string, options: RequestInit) => {
    const call = `${options.method ?? 'GET'} ${path}`
    calls.push(call)
    const answer = answers[call]
    const body: unknown = typeof answer === 'function' ? (answer as (sent: unknown) => unknown)(options.body) : answer
    if (body === undefined) return Promise.resolve(Response.json({ detail: `no answer to ${call}` }, { status: 404 }))
    if (body instanceof Response) return Promise.resolve(body)
    return Promise.resolve(Response.json(body))
  })
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  render(
    <QueryClientProvider client={client}>
      <PersonContext value={person}>
        <MemoryRouter initialEntries={[address]}>{node}</MemoryRouter>
      </PersonContext>
    </QueryClientProvider>,
  )
  return calls
}

export function check(state: Check['state'], more: Partial<Check> = {}): Check {
  return {
    id: crypto.randomUUID(),
    slot: '2026-11-24T04:40:00Z',
    origin: 'SCHEDULED',
    state,
    attempt: 1,
    node: 'holm-1',
    slotsCovered: 1,
    startedAt: '2026-11-24T04:40:00Z',
    finishedAt: null,
    rowsRead: 743,
    exceptions: 20,
    unknownRows: 0,
    unevaluated: 0,
    unevaluatedGroups: [],
    parts: [],
    updates: 0,
    messages: 0,
    failure: null,
    reason: null,
    rowsSoFar: null,
    tookMillis: null,
    timeLimitMillis: null,
    failures: 0,
    readAt: null,
    ruleRevision: null,
    queryRevision: null,
    opened: null,
    cleared: null,
    parameters: {},
    thresholds: {},
    parentId: null,
    retryAt: null,
    waitingFor: null,
    event: null,
    ...more,
  }
}

/** A check as strips have it. */
export function dot(state: Check['state'], more: Partial<LatestCheck> = {}): LatestCheck {
  return {
    id: crypto.randomUUID(),
    slot: '2026-11-24T04:40:00Z',
    state,
    updates: 0,
    worst: null,
    exceptions: 20,
    reason: null,
    retryAt: null,
    ...more,
  }
}

export function lateSailings(more: Partial<RuleSummary> = {}): RuleSummary {
  return {
    name: 'late-sailings',
    title: 'Late sailings without a reason',
    owner: 'Traffic reporting',
    state: 'ACTIVE',
    revision: 7,
    mode: 'INCREMENTAL',
    zone: 'Europe/Oslo',
    open: { CRITICAL: 2, WARNING: 18 },
    looks: {},
    nextSlot: '2026-11-25T04:40:00Z',
    ended: false,
    to: ['ines.holm@skerryline.example'],
    named: ['ines.holm@skerryline.example'],
    labels: [],
    copiedFrom: null,
    query: 'sailings-lately',
    source: 'ferry',
    columns: ['sailing', 'delay_min', 'reason'],
    thresholds: ['late_minutes'],
    draft: false,
    schedule: 'Monday to Friday at 05:40',
    formats: ['csv'],
    splitBy: null,
    latest: [],
    ...more,
  }
}
