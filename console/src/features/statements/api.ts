import type { Schemas } from '../../api/types'
import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

export type Statement = Schemas['StatementView']
export type StatementList = Schemas['StatementList']

/** Which days a statement is about; months are those of this browser's zone. */
export type Period = 'week' | 'thirty_days' | 'this_month' | 'last_month'

const days = (count: number, now: Date) => new Date(now.getTime() - count * 86_400_000)

/** The instants from which and until which a period reaches, the latter exclusive. */
export function within(period: Period, now: Date): { from: Date; to: Date } {
  const month = (offset: number) => new Date(now.getFullYear(), now.getMonth() + offset, 1)
  switch (period) {
    case 'week':
      return { from: days(7, now), to: now }
    case 'thirty_days':
      return { from: days(30, now), to: now }
    case 'this_month':
      return { from: month(0), to: now }
    case 'last_month':
      return { from: month(-1), to: month(0) }
  }
}

/** @param rules empty for all rules but drafts */
export const statementsOf = (period: Period, rules: string[] = []) =>
  queryOptions({
    queryKey: ['rules', 'statements', period, ...rules],
    queryFn: () => {
      const { from, to } = within(period, new Date())
      const asked = new URLSearchParams({ from: from.toISOString(), to: to.toISOString() })
      rules.forEach((rule) => asked.append('rule', rule))
      return api.get<StatementList>(`/api/statements?${asked}`)
    },
  })
