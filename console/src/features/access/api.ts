import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api, ApiError } from '../../api/client'
import type { Person } from '../../api/types'

/** The person who is logged in; null for nobody. */
export const session = queryOptions({
  queryKey: ['session'],
  queryFn: async (): Promise<Person | null> => {
    try {
      return await api.get<Person>('/api/session')
    } catch (error) {
      if (error instanceof ApiError && error.status === 401) return null
      throw error
    }
  },
  staleTime: 60_000,
})

export const logIn = (login: string, password: string) =>
  api.post<Person>('/api/session', { login, password } satisfies Schemas['LogInBody'])

export const logOut = () => api.delete('/api/session')

/** Says nothing of whether there is such a person. */
export const requestPasswordLink = (login: string) =>
  api.post('/api/password-links', { login } satisfies Schemas['ForgottenPasswordBody'])

export const setPassword = (token: string, password: string) =>
  api.post('/api/password-links/use', { token, password } satisfies Schemas['SetPasswordBody'])

export const changePassword = (present: string, password: string) =>
  api.put('/api/session/password', { present, password } satisfies Schemas['ChangePasswordBody'])
