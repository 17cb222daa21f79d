import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'
import type { Schemas } from '../../api/types'

export type Week = Schemas['WeekView']
export type Hour = Schemas['WeekHour']

export const ownZone = () => Intl.DateTimeFormat().resolvedOptions().timeZone

/** @param first the first of the seven days, as `2026-11-23` */
export const weekOf = (first: string, zone: string) =>
  queryOptions({
    queryKey: ['rules', 'week', first, zone],
    queryFn: () => api.get<Week>(`/api/week?${new URLSearchParams({ first, zone })}`),
  })
