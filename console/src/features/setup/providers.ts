import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schemas } from '../../api/types'

export type Provider = Schemas['IdentityProviderView']
export type ProviderAsk = Schemas['IdentityProviderBody']

export const identityProviders = queryOptions({
  queryKey: ['identity-providers'],
  queryFn: () => api.get<Provider[]>('/api/identity-providers'),
})

const providerAt = (name: string) => `/api/identity-providers/${encodeURIComponent(name)}`
export const saveProvider = (name: string, ask: ProviderAsk) => api.put<Provider>(providerAt(name), ask)
export const removeProvider = (name: string) => api.delete(providerAt(name))

/** Asks it what it says of itself; logs nobody in. */
export const testProvider = (name: string) => api.post<Schemas['ProviderFindings']>(`${providerAt(name)}/test`)
