import { queryOptions } from '@tanstack/react-query'
import { api, ApiError } from '../../api/client'
import type { Person, Schemas } from '../../api/types'

const who = ['session']

/** The person who is logged in; null for nobody. Once there was somebody, it is an error that there is nobody: the page stays. */
export const session = queryOptions({
  queryKey: who,
  queryFn: async ({ client }): Promise<Person | null> => {
    try {
      return await api.get<Person>('/api/session')
    } catch (error) {
      const wasThere = client.getQueryData(who)
      if (error instanceof ApiError && error.status === 401 && !wasThere) return null
      throw error
    }
  },
  staleTime: 60_000,
})

export const logIn = (login: string, password: string) =>
  api.post<Person>('/api/session', { login, password } satisfies Schemas['LogInBody'])

/** Ends the session; where to go on to, if an identity provider has one too. */
export const logOut = () => api.delete<Schemas['LoggedOut']>('/api/session')

export type LogInOptions = Schemas['LogInOptions']

export const logInOptions = queryOptions({
  queryKey: ['log-in-options'],
  queryFn: () => api.get<LogInOptions>('/api/log-in-options'),
  staleTime: 60_000,
  retry: false,
})

const deviceAt = (code: string) => `/api/device-log-ins/${encodeURIComponent(code.trim())}`
export const askingProgram = (code: string) => api.get<Schemas['AskingProgram']>(deviceAt(code))
export const answerDevice = (code: string, allow: boolean) =>
  api.post(`${deviceAt(code)}/answer`, { allow } satisfies Schemas['DeviceAnswerBody'])

/** Says nothing of whether there is such a person. */
export const requestPasswordLink = (login: string) =>
  api.post('/api/password-links', { login } satisfies Schemas['ForgottenPasswordBody'])

export const setPassword = (token: string, password: string) =>
  api.post('/api/password-links/use', { token, password } satisfies Schemas['SetPasswordBody'])

export const changePassword = (present: string, password: string) =>
  api.put('/api/session/password', { present, password } satisfies Schemas['ChangePasswordBody'])

export type Token = Schemas['TokenView']

export const tokens = queryOptions({ queryKey: ['tokens'], queryFn: () => api.get<Token[]>('/api/tokens') })

/** For operators. */
export const everybodysTokens = queryOptions({
  queryKey: ['tokens', 'everybody'],
  queryFn: () => api.get<Token[]>('/api/tokens?everybody=true'),
})

/** @param user the service account that it is for; none for one's own */
export const createToken = (token: Schemas['TokenBody'], user?: string) =>
  api.post<Schemas['IssuedToken']>(user ? `/api/tokens/of/${encodeURIComponent(user)}` : '/api/tokens/named', token)

export const revokeToken = (id: string) => api.delete(`/api/tokens/${id}`)

export const sessions = queryOptions({
  queryKey: ['sessions'],
  queryFn: () => api.get<Schemas['ConsoleSession'][]>('/api/sessions'),
})

export const endSession = (id: string) => api.delete(`/api/sessions/${id}`)

export const endOtherSessions = () => api.delete<Schemas['EndedSessions']>('/api/sessions')
