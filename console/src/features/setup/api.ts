import type { Definitions, Schemas, Written } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type Calendar = Schemas['CalendarView']
export type Dates = Schemas['SlotList']
export type Asked = { recur: string; start: string; zone: string; calendar: string; onHoliday: string }
export type Source = Schemas['SourceView']
/** Warnings say what the role may do that reading does not need. */
export type SourceTest = Schemas['SourceTestOutcome']
export type Team = Schemas['Team']
export type Status = Schemas['StatusView']

export const calendars = queryOptions({ queryKey: ['calendars'], queryFn: () => api.get<Calendar[]>('/api/calendars') })
export const sources = queryOptions({ queryKey: ['sources'], queryFn: () => api.get<Source[]>('/api/sources') })
export const teams = queryOptions({ queryKey: ['teams'], queryFn: () => api.get<Team[]>('/api/teams') })
export const events = queryOptions({ queryKey: ['events'], queryFn: () => api.get<string[]>('/api/events') })
export const status = queryOptions({
  queryKey: ['status'],
  queryFn: () => api.get<Status>('/api/status'),
  refetchInterval: 10_000,
})
export type RoundUp = Schemas['RoundUpView']
export const roundUps = queryOptions({ queryKey: ['round-ups'], queryFn: () => api.get<RoundUp[]>('/api/round-ups') })
export const roundUpNow = (name: string) =>
  api.get<Schemas['RoundUpPreviewView']>(`/api/round-ups/${encodeURIComponent(name)}/preview`)
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
export type HandRun = Schemas['QueryRunView']
export const handRuns = queryOptions({
  queryKey: ['query-runs'],
  queryFn: () => api.get<HandRun[]>('/api/query-runs'),
  refetchInterval: 5_000,
})
export const stopRun = (id: string) => api.delete(`/api/query-runs/${id}`)

export const report = (event: string, requestKey: string) =>
  api.post<Schemas['EventReceipt']>(`/api/events/${encodeURIComponent(event)}`, {} satisfies Schemas['EventBody'], {
    'Idempotency-Key': requestKey,
  })

export const giveFeed = () => api.post<Schemas['FeedAddress']>('/api/feed')
export const stopFeed = () => api.delete('/api/feed')

export type RecipientLanguage = Schemas['RecipientLanguage']

export const recipientLanguages = queryOptions({
  queryKey: ['languages'],
  queryFn: () => api.get<RecipientLanguage[]>('/api/languages'),
})
export const setRecipientLanguage = (address: string, language: string | null) =>
  api.put<RecipientLanguage[]>(`/api/languages/${encodeURIComponent(address)}`, {
    language,
  } satisfies Schemas['LanguageBody'])

export type Schedule = Written<Definitions['times']>

/** The next dates of a schedule that is being written. */
export const datesOfSchedule = (schedule: Schedule, zone: string, count = 40) => {
  const asked = new URLSearchParams({ zone, count: String(count) })
  for (const each of schedule.recur ?? []) asked.append('recur', each)
  for (const each of schedule['working_days'] ?? []) asked.append('workingDay', String(each))
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

export type Somebody = Schemas['UserView']
export type Role = Somebody['role']
export const people = queryOptions({ queryKey: ['people'], queryFn: () => api.get<Somebody[]>('/api/people') })

/** Also those who have been disabled, for whom the key of the list differs. */
export const everybody = queryOptions({
  queryKey: ['people', 'disabled too'],
  queryFn: () => api.get<Somebody[]>('/api/people?disabled=true'),
})
export const addPerson = (person: Schemas['NewPersonBody']) => api.post<Somebody>('/api/people', person)
const personAt = (login: string) => `/api/people/${encodeURIComponent(login)}`
export const changePerson = (login: string, person: Schemas['PersonBody']) => api.put<Somebody>(personAt(login), person)
export const invite = (login: string) => api.post(`${personAt(login)}/invitation`)
export const setActive = (login: string, active: boolean) =>
  api.post<Somebody>(`${personAt(login)}/${active ? 'enable' : 'disable'}`)
/** What depends on a user. */
export type Belongings = Schemas['UserBelongings']
export const belongings = (login: string) =>
  queryOptions({
    queryKey: ['people', login, 'belongings'],
    queryFn: () => api.get<Belongings>(`${personAt(login)}/belongings`),
  })
export const handOverUser = (login: string, to: string, reason: string) =>
  api.post<Schemas['HandedOver']>(`${personAt(login)}/hand-over`, { to, reason })
export const saveMembers = (team: string, members: string[]) =>
  api.put<string[]>(`/api/teams/${encodeURIComponent(team)}/members`, { members } satisfies Schemas['MembersBody'])
export const saveAccessPolicy = (policy: Schemas['AccessPolicyBody']) =>
  api.put<Schemas['AccessPolicyView']>('/api/access-policy', policy)
export const saveTeam = (name: string, addresses: string[], signature: string) =>
  api.put<Team>(`/api/teams/${encodeURIComponent(name)}`, { addresses, signature } satisfies Schemas['TeamBody'])
export const logoOf = (team: string) => `/api/teams/${encodeURIComponent(team)}/logo`
export const saveLogo = (team: string, picture: File) => api.file('PUT', logoOf(team), picture)
export const removeLogo = (team: string) => api.delete(logoOf(team))

export type SourceAsk = Schemas['SourceBody']
export const saveSource = (name: string, source: SourceAsk) =>
  api.put<Schemas['SavedSource']>(`/api/sources/${encodeURIComponent(name)}`, source)

/** Tries each mail server; sends nothing. */
export const testMail = () => api.post<Schemas['MailServerTest'][]>('/api/mail/test')

export type TeamDefinition = Schemas['TeamDefinition']

const teamPath = (name: string) => `/api/teams/${encodeURIComponent(name)}`

export const definitionsOfTeam = (name: string) =>
  queryOptions({
    queryKey: ['teams', name, 'definitions'],
    queryFn: () => api.get<TeamDefinition[]>(`${teamPath(name)}/definitions`),
  })

export const handOver = (name: string, to: string, reason: string) =>
  api.post<TeamDefinition[]>(`${teamPath(name)}/hand-over`, { to, reason })

export const renameTeam = (name: string, to: string) => api.post<Team>(`${teamPath(name)}/rename`, { name: to })

export const removeTeam = (name: string) => api.delete(teamPath(name))
