import type { MessageSummary, RuleSummary } from '../../api/types'
import { plural } from '../../shared/words'
import { heldWords, type Hold } from '../outbox/api'

/** One thing that needs a person now. */
export type Need = { sign: string; look: string; what: string; why: string; to: string; verb: string }

const stuck = ['WAITING', 'UNSURE', 'REFUSED', 'EXPIRED']

/** What needs a person, worst first: mail that is held, failed checks, critical findings, mail that is stuck. */
export function needsOf(rules: RuleSummary[], messages: MessageSummary[], holds: Hold[] = []): Need[] {
  const held = holds.map((hold) => ({ sign: '✉', look: 'warning', what: `${heldWords(hold)} is held, ${plural(hold.messages, 'mail')} waiting`.replace(/^a/, 'A').replace(/^m/, 'M'), why: hold.why, to: '/outbox', verb: 'Look at it' }))
  const failed = rules
    .filter((rule) => rule.latest[0]?.state === 'FAILED')
    .map((rule) => ({ sign: '✕', look: 'bad', what: `${rule.title} could not be checked`, why: rule.latest[0]?.reason ?? '', to: `/rules/${rule.name}`, verb: 'Look at it' }))
  const partly = rules
    .filter((rule) => rule.latest[0]?.state === 'PARTLY_FAILED')
    .map((rule) => ({ sign: '✕', look: 'bad', what: `Some personal copies of ${rule.title} could not be checked`, why: rule.latest[0]?.reason ?? '', to: `/rules/${rule.name}`, verb: 'Look at it' }))
  const keptBack = rules
    .filter((rule) => rule.latest[0]?.state === 'KEPT_BACK')
    .map((rule) => ({ sign: '✕', look: 'warning', what: `A check of ${rule.title} was kept back`, why: rule.latest[0]?.reason ?? '', to: `/rules/${rule.name}`, verb: 'Look at it' }))
  const critical = rules
    .filter((rule) => rule.open.CRITICAL)
    .map((rule) => ({ sign: '▲', look: 'bad', what: plural(rule.open.CRITICAL ?? 0, 'critical finding'), why: rule.title, to: `/rules/${rule.name}#findings`, verb: 'Show' }))
  const mail = messages.flatMap((message) =>
    message.recipients
      .filter((recipient) => stuck.includes(recipient.state) && recipient.tries > 0)
      .map((recipient) => ({ sign: '✉', look: 'warning', what: `A mail to ${recipient.address} is ${recipient.state.toLowerCase()}`, why: recipient.words ?? '', to: `/outbox/${message.id}`, verb: 'Show' })),
  )
  return [...held, ...failed, ...partly, ...keptBack, ...critical, ...mail]
}

const numerals = ['Nothing', 'One thing', 'Two things', 'Three things', 'Four things', 'Five things', 'Six things', 'Seven things']

export function headline(needs: Need[]): string {
  const count = numerals[needs.length] ?? `${needs.length} things`
  return needs.length === 0 ? 'Nothing needs a person' : `${count} ${needs.length === 1 ? 'needs' : 'need'} a person`
}
