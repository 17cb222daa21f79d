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
export type Dates = { words: string; zone: string; dates: { slot: Instant; local: string }[]; ends: boolean; warnings: string[] }
export type Asked = { recur: string; start: string; zone: string; calendar: string; onHoliday: string }
export type Source = { name: string; jdbcUrl: string; username: string; mostRows: number; timeLimitSeconds: number; mostConnections: number; closed: string | null; spreadSeconds: number }
export type Team = { name: string; addresses: string[] }
export type Status = { running: number; due: number; latestSeconds: number; keptBack: number; waitingMessages: number; problems: string[] }

export const calendars = queryOptions({ queryKey: ['calendars'], queryFn: () => api.get<Calendar[]>('/api/calendars') })
export const sources = queryOptions({ queryKey: ['sources'], queryFn: () => api.get<Source[]>('/api/sources') })
export const teams = queryOptions({ queryKey: ['teams'], queryFn: () => api.get<Team[]>('/api/teams') })
export const events = queryOptions({ queryKey: ['events'], queryFn: () => api.get<string[]>('/api/events') })
export const status = queryOptions({ queryKey: ['status'], queryFn: () => api.get<Status>('/api/status'), refetchInterval: 10_000 })
export type RoundUp = { name: string; title: string; rules: string[]; to: string[]; atOnce: string | null; when: string; zone: string; paused: boolean; nextSlot: Instant | null; lastSlot: Instant | null }
export const roundUps = queryOptions({ queryKey: ['round-ups'], queryFn: () => api.get<RoundUp[]>('/api/round-ups') })
export const roundUpNow = (name: string) => api.get<{ subject: string | null; text: string }>(`/api/round-ups/${encodeURIComponent(name)}/preview`)
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

export const testSource = (name: string) => api.post<{ reached: boolean; words: string }>(`/api/sources/${encodeURIComponent(name)}/test`)

export const report = (event: string, requestKey: string) =>
  api.post<{ rules: string[] }>(`/api/events/${encodeURIComponent(event)}`, {}, { 'Idempotency-Key': requestKey })

export const giveFeed = () => api.post<{ address: string }>('/api/feed')
export const stopFeed = () => api.delete('/api/feed')

export type ReaderLanguage = { address: string; language: string; by: string; at: string }

export const readerLanguages = queryOptions({ queryKey: ['reader-languages'], queryFn: () => api.get<ReaderLanguage[]>('/api/reader-languages') })
export const setReaderLanguage = (address: string, language: string | null) => api.put<ReaderLanguage[]>(`/api/reader-languages/${encodeURIComponent(address)}`, { language })
