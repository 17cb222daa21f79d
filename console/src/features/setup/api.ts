import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Instant } from '../../api/types'

export type Calendar = {
  name: string
  title: string
  week: string[]
  knownUntil: string | null
  holidays: { date: string; name: string }[]
  worked: string[]
  periods: string[]
  rules: string[]
}
export type Dates = {
  words: string
  zone: string
  dates: { slot: Instant; local: string }[]
  ends: boolean
  warnings: string[]
}
export type Asked = { recur: string; start: string; zone: string; calendar: string; onHoliday: string }
export type Source = {
  name: string
  jdbcUrl: string
  username: string
  mostRows: number
  timeLimitSeconds: number
  mostConnections: number
  closed: string | null
  spreadSeconds: number
}
/** Warnings say what the role may do that reading does not need. */
export type SourceTest = { reached: boolean; words: string; warnings: string[] }
export type Team = { name: string; addresses: string[] }
export type Status = {
  running: number
  due: number
  latestSeconds: number
  keptBack: number
  waitingMessages: number
  problems: string[]
}

export const calendars = queryOptions({ queryKey: ['calendars'], queryFn: () => api.get<Calendar[]>('/api/calendars') })
export const sources = queryOptions({ queryKey: ['sources'], queryFn: () => api.get<Source[]>('/api/sources') })
export const teams = queryOptions({ queryKey: ['teams'], queryFn: () => api.get<Team[]>('/api/teams') })
export const events = queryOptions({ queryKey: ['events'], queryFn: () => api.get<string[]>('/api/events') })
export const status = queryOptions({
  queryKey: ['status'],
  queryFn: () => api.get<Status>('/api/status'),
  refetchInterval: 10_000,
})
export type RoundUp = {
  name: string
  title: string
  rules: string[]
  to: string[]
  atOnce: string | null
  when: string
  zone: string
  paused: boolean
  nextSlot: Instant | null
  lastSlot: Instant | null
}
export const roundUps = queryOptions({ queryKey: ['round-ups'], queryFn: () => api.get<RoundUp[]>('/api/round-ups') })
export const roundUpNow = (name: string) =>
  api.get<{ subject: string | null; text: string }>(`/api/round-ups/${encodeURIComponent(name)}/preview`)
export const actOnRoundUp = (name: string, act: 'send' | 'pause' | 'resume') =>
  api.post<{ message?: string | null }>(`/api/round-ups/${encodeURIComponent(name)}/${act}`)

const count = 10

/** The next dates of a recurrence that no rule has yet. */
export const datesOf = ({ recur, start, zone, calendar, onHoliday }: Asked) => {
  const asked = new URLSearchParams({ recur, zone, count: String(count) })
  if (start) asked.set('start', start)
  if (calendar) asked.set('calendar', calendar)
  if (onHoliday) asked.set('onHoliday', onHoliday)
  return api.get<Dates>(`/api/dates?${asked}`)
}

export const testSource = (name: string) => api.post<SourceTest>(`/api/sources/${encodeURIComponent(name)}/test`)

/** A query that runs because somebody waits for it. */
export type HandRun = { id: string; login: string; source: string; query: string; since: Instant; rows: number }
export const handRuns = queryOptions({
  queryKey: ['query-runs'],
  queryFn: () => api.get<HandRun[]>('/api/query-runs'),
  refetchInterval: 5_000,
})
export const stopRun = (id: string) => api.delete(`/api/query-runs/${id}`)

export const report = (event: string, requestKey: string) =>
  api.post<{ rules: string[] }>(`/api/events/${encodeURIComponent(event)}`, {}, { 'Idempotency-Key': requestKey })

export const giveFeed = () => api.post<{ address: string }>('/api/feed')
export const stopFeed = () => api.delete('/api/feed')

export type ReaderLanguage = { address: string; language: string; by: string; at: string }

export const readerLanguages = queryOptions({
  queryKey: ['reader-languages'],
  queryFn: () => api.get<ReaderLanguage[]>('/api/reader-languages'),
})
export const setReaderLanguage = (address: string, language: string | null) =>
  api.put<ReaderLanguage[]>(`/api/reader-languages/${encodeURIComponent(address)}`, { language })

export type Schedule = {
  start?: string
  recur?: string[]
  working_days?: string[]
  also?: string[]
  except?: string[]
  until?: string
  calendar?: string
  on_holidays?: string
}

/** The next dates of a schedule that is being written. */
export const datesOfSchedule = (schedule: Schedule, zone: string) => {
  const asked = new URLSearchParams({ zone, count: '40' })
  for (const each of schedule.recur ?? []) asked.append('recur', each)
  for (const each of schedule['working_days'] ?? []) asked.append('workingDay', each)
  for (const each of schedule.also ?? []) asked.append('also', each)
  for (const each of schedule.except ?? []) asked.append('except', each)
  if (schedule.start) asked.set('start', schedule.start)
  if (schedule.until) asked.set('until', schedule.until)
  if (schedule.calendar) asked.set('calendar', schedule.calendar)
  if (schedule['on_holidays']) asked.set('onHoliday', schedule['on_holidays'])
  return queryOptions({
    queryKey: ['dates', asked.toString()],
    queryFn: () => api.get<Dates>(`/api/dates?${asked}`),
    retry: false,
    placeholderData: (before: Dates | undefined) => before,
  })
}

export type Somebody = { login: string; name: string; email: string; role: 'ANALYST' | 'OPERATOR' }
export const people = queryOptions({ queryKey: ['people'], queryFn: () => api.get<Somebody[]>('/api/people') })

export const addPerson = (person: Somebody & { password: string }) => api.post<Somebody>('/api/people', person)
export const saveTeam = (name: string, addresses: string[]) =>
  api.put<Team>(`/api/teams/${encodeURIComponent(name)}`, { addresses })

export type SourceAsk = {
  jdbcUrl: string
  username: string
  password?: string
  mostRows?: number
  timeLimitSeconds?: number
  mostConnections?: number
  closed?: string
  spreadSeconds?: number
}
export const saveSource = (name: string, source: SourceAsk) =>
  api.put<{ source: Source; test: SourceTest }>(`/api/sources/${encodeURIComponent(name)}`, source)

/** Tries each mail server; sends nothing. */
export const testMail = () => api.post<{ server: string; reached: boolean; words: string }[]>('/api/mail/test')
