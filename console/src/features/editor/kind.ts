import type { DeliveryPart } from '../fields/parts'
import type { RuleDocument } from './api'

/** What a rule sends: updates, all open findings each time, or its rows as they are. */
export type Kind = 'incremental' | 'full' | 'plain'

export const kindOf = (document: RuleDocument): Kind => document.memory?.mode ?? 'incremental'

export const isPlain = (document: RuleDocument) => kindOf(document) === 'plain'

const updates = ['new', 'returned', 'worsened'] as const

const without = <T extends object>(part: T, names: readonly string[]): T =>
  Object.fromEntries(Object.entries(part).filter(([name]) => !names.includes(name))) as T

/** The same rule of another kind. A plain report keeps nothing that is about findings. */
export function ofKind(document: RuleDocument, kind: Kind): RuleDocument {
  if (kind === kindOf(document)) return document
  const { memory, severity } = document
  if (kind === 'plain')
    return {
      ...without(document, ['severity']),
      memory: { mode: kind },
      delivery: withoutFindings(document.delivery ?? {}),
    }
  return isPlain(document)
    ? { ...document, severity: severity ?? ['warning'], memory: { mode: kind, report: [...updates] } }
    : { ...document, memory: { ...memory, mode: kind } }
}

function withoutFindings(delivery: DeliveryPart): DeliveryPart {
  const rest = without(delivery, ['escalate'])
  return typeof rest.layout === 'object'
    ? { ...rest, layout: without(rest.layout, ['still_open', 'whole_report']) }
    : rest
}
