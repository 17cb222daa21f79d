import { textOf, type Part } from './builder'
import type { Variant } from './api'

/** What a rule should come to: at most so many messages or findings in each week or month. */
export type Goal = { most: number; of: 'messages' | 'findings'; each: 'week' | 'month' }

/** A number of the condition that can be varied: a value of a part, or a threshold. */
export type Varied =
  | { is: 'number'; index: number; column: string; operator: string; value: number }
  | { is: 'threshold'; name: string; value: number | null }

const ordered = ['>', '>=', '<', '<=']

/** The numbers that decide, in the order of the condition. */
export function variedOf(parts: Part[], thresholds: { name: string; number: number | null }[]): Varied[] {
  return parts.flatMap((part, index): Varied[] => {
    if (part.is !== 'compare' || !ordered.includes(part.operator)) return []
    if (part.operand.kind === 'threshold') {
      const { name } = part.operand
      return [{ is: 'threshold', name, value: thresholds.find((each) => each.name === name)?.number ?? null }]
    }
    const value = part.operand.kind === 'value' ? Number(part.operand.text) : NaN
    if (!Number.isFinite(value)) return []
    return [{ is: 'number', index, column: part.column, operator: part.operator, value }]
  })
}

const factors = [0.25, 0.5, 0.7, 0.8, 0.9, 1.1, 1.25, 1.5, 2, 3, 4, 6]
const fromNothing = [1, 2, 3, 5, 8, 10, 15, 20, 30, 50, 75, 100]

/** Values around the present one to try, as many as one back-test takes. */
export function valuesAround(value: number): number[] {
  if (value === 0) return fromNothing
  const whole = Number.isInteger(value) && Math.abs(value) >= 4
  const digits = whole ? 0 : Math.max(0, 2 - Math.floor(Math.log10(Math.abs(value))))
  const rounded = factors.map((factor) => Number((value * factor).toFixed(digits)))
  return [...new Set(rounded)].filter((each) => each !== value && each !== 0)
}

/** The condition with another value in one of its parts. */
export const withValue = (parts: Part[], index: number, value: number): string =>
  textOf(
    parts.map((part, i) =>
      i === index && part.is === 'compare' ? { ...part, operand: { kind: 'value', text: String(value) } } : part,
    ),
  )

/** The Monday of a slot's week, or the first of its month, in the rule's zone. */
function periodOf(slot: string, each: Goal['each'], zone: string): string {
  const day = new Intl.DateTimeFormat('en-CA', { timeZone: zone }).format(new Date(slot))
  if (each === 'month') return day.slice(0, 7)
  const date = new Date(`${day}T00:00:00Z`)
  date.setUTCDate(date.getUTCDate() - ((date.getUTCDay() + 6) % 7))
  return date.toISOString().slice(0, 10)
}

/** The highest number of messages or findings that any week or month would have had. */
export function highestOf(variant: Pick<Variant, 'slots'>, goal: Pick<Goal, 'of' | 'each'>, zone: string): number {
  const counts = new Map<string, number>()
  for (const { slot, updates } of variant.slots) {
    if (updates === 0) continue
    const period = periodOf(slot, goal.each, zone)
    counts.set(period, (counts.get(period) ?? 0) + (goal.of === 'messages' ? 1 : updates))
  }
  return Math.max(0, ...counts.values())
}

export type Outcome = {
  value: number
  highest: number
  messages: number
  findings: number
  meets: boolean
  /** From the rule as it is; null of itself. */
  difference: Variant['difference']
}

/** What each value would have come to, lowest value first. */
export function outcomesOf(
  variants: Pick<Variant, 'slots' | 'messages' | 'updates' | 'difference'>[],
  values: number[],
  goal: Goal,
  zone: string,
): Outcome[] {
  return variants
    .flatMap((variant, index): Outcome[] => {
      const value = values[index]
      if (value === undefined) return []
      const highest = highestOf(variant, goal, zone)
      const { messages, updates: findings, difference } = variant
      return [{ value, highest, messages, findings, meets: highest <= goal.most, difference }]
    })
    .sort((a, b) => a.value - b.value)
}

/** Of the values that meet the goal, the one nearest to the present. */
export const nearest = (outcomes: Outcome[], present: number): Outcome | null =>
  outcomes
    .filter(({ meets }) => meets)
    .reduce<Outcome | null>(
      (best, each) => (best === null || Math.abs(each.value - present) < Math.abs(best.value - present) ? each : best),
      null,
    )

/** The value next to the best one, towards the present, which does not meet the goal; null where the present one meets it. */
export function edgeOf(outcomes: Outcome[], best: Outcome, present: number): Outcome | null {
  const nearer = outcomes.filter(
    ({ value }) => (best.value > present ? value < best.value : value > best.value) && best.value !== present,
  )
  return nearer.reduce<Outcome | null>(
    (edge, each) =>
      edge === null || Math.abs(each.value - best.value) < Math.abs(edge.value - best.value) ? each : edge,
    null,
  )
}

const mostValues = 12

/** Values between two that were tried, as many as one back-test takes; none where nothing lies between. */
export function valuesBetween(best: Outcome, edge: Outcome | null): number[] {
  if (edge === null) return []
  const low = Math.min(best.value, edge.value)
  const high = Math.max(best.value, edge.value)
  const whole = Number.isInteger(low) && Number.isInteger(high)
  if (!whole && high - low < Math.abs(high) / 1000) return []
  const steps = whole ? Math.min(mostValues + 1, high - low) : mostValues + 1
  const digits = whole ? 0 : Math.max(0, 3 - Math.floor(Math.log10(high - low)))
  const values = Array.from({ length: Math.max(0, steps - 1) }, (_, i) =>
    Number((low + ((i + 1) * (high - low)) / steps).toFixed(digits)),
  )
  return [...new Set(values)].filter((each) => each > low && each < high)
}
