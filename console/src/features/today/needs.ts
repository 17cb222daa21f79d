import type { MessageSummary, RuleSummary } from '../../api/types'
import { plural, timeWords } from '../../shared/words'
import { heldWords, type BlockedAddress, type Hold } from '../outbox/api'
import type { DaySeen } from './api'

/** One thing that needs a person now: its verb leads on, or checks a rule again where it stands. */
export type Need = { sign: string; look: string; what: string; why: string; to: string; verb: string; check?: string }

export type Standing = {
  rules: RuleSummary[]
  messages: MessageSummary[]
  holds: Hold[]
  blockedAddresses: BlockedAddress[]
  day: DaySeen | null
}

const stuck = ['QUEUED', 'UNSURE', 'UNCONFIRMED', 'REJECTED', 'EXPIRED']

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

/** Rules that failed of one cause are one need, since one act puts them right. */
function failures(rules: RuleSummary[]): Need[] {
  const byCause = new Map<string, RuleSummary[]>()
  for (const rule of rules) {
    const last = rule.latest[0]
    if (last?.state !== 'FAILED' && last?.state !== 'PARTLY_FAILED') continue
    const cause = `${rule.source}\n${last.reason ?? rule.name}`
    byCause.set(cause, [...(byCause.get(cause) ?? []), rule])
  }
  return [...byCause.values()].flatMap((same) => {
    const first = same[0]
    const last = first?.latest[0]
    if (!first || !last) return []
    const retry = last.retryAt ? ` Next try at ${timeWords(last.retryAt)}.` : ''
    const why = `${timeWords(last.slot)}: ${last.reason ?? ''}${retry} Earlier reports are unchanged.`
    if (same.length > 1)
      return [
        {
          sign: '✕',
          look: 'bad',
          what: `${plural(same.length, 'rule')} on ${first.source} could not be checked`,
          why,
          to: '/setup',
          verb: 'Test the source',
        },
      ]
    const what =
      last.state === 'FAILED'
        ? `${first.title} could not be checked`
        : `Some personal copies of ${first.title} could not be checked`
    const again = first.state === 'ACTIVE' ? { check: first.name } : {}
    return [{ sign: '✕', look: 'bad', what, why, to: `/rules/${first.name}`, verb: 'Show', ...again }]
  })
}

/** What needs attention, worst first: held mail, checks that failed or are late, critical findings that nobody has taken, mail that is stuck. */
export function needsOf({ rules, messages, holds, blockedAddresses, day }: Standing): Need[] {
  const held = holds.map((hold) => ({
    sign: '✉',
    look: 'warning',
    what: capital(`${heldWords(hold)} is held, ${plural(hold.messages, 'message')} queued`),
    why: hold.reason,
    to: '/outbox',
    verb: 'Show',
  }))
  const late = (day?.lanes ?? []).flatMap((lane) =>
    lane.lateSince
      ? [
          {
            sign: '✕',
            look: 'bad',
            what: `${lane.title} is late`,
            why: `Its check of ${timeWords(lane.lateSince)} has not started.`,
            to: '/setup',
            verb: 'Show status',
          },
        ]
      : [],
  )
  const keptBack = rules
    .filter((rule) => rule.latest[0]?.state === 'AWAITING_APPROVAL')
    .map((rule) => ({
      sign: '✕',
      look: 'warning',
      what: `A check of ${rule.title} awaits approval`,
      why: rule.latest[0]?.reason ?? '',
      to: `/rules/${rule.name}`,
      verb: 'Show',
    }))
  const critical = (day?.open ?? [])
    .filter((each) => each.criticalUnhandled > 0)
    .map((each) => ({
      sign: '▲',
      look: 'bad',
      what: `${plural(each.criticalUnhandled, 'critical finding')} not taken`,
      why: `${each.title}${each.lastReported ? `. Reported ${timeWords(each.lastReported)} to ${plural(each.lastRecipients, 'person', 'people')}.` : ''}`,
      to: `/findings?rule=${each.rule}&severity=CRITICAL&handling=BY_NOBODY`,
      verb: 'Take',
    }))
  const mail = messages.flatMap((message) =>
    message.recipients
      .filter((recipient) => stuck.includes(recipient.state) && recipient.tries > 0 && !recipient.settledAt)
      .map((recipient) => ({
        sign: '✉',
        look: recipient.state === 'UNCONFIRMED' ? 'bad' : 'warning',
        what:
          recipient.state === 'UNCONFIRMED'
            ? `A message to ${recipient.address} may not have arrived`
            : `A message to ${recipient.address} is ${recipient.state.toLowerCase()}`,
        why: `${recipient.detail ?? ''}${recipient.nextTry ? ` ${plural(recipient.tries, 'try', 'tries')} so far; next try ${timeWords(recipient.nextTry)}.` : ''}`,
        to: `/outbox/${message.id}`,
        verb: 'Show',
      })),
  )
  const bad = blockedAddresses.map((each) => ({
    sign: '✉',
    look: 'warning',
    what: `${each.address} is blocked`,
    why: each.reason,
    to: '/outbox',
    verb: 'Show',
  }))
  return [...held, ...failures(rules), ...late, ...keptBack, ...critical, ...mail, ...bad]
}

const numerals = [
  'Nothing',
  'One thing',
  'Two things',
  'Three things',
  'Four things',
  'Five things',
  'Six things',
  'Seven things',
]

export function headline(needs: Need[]): string {
  const count = numerals[needs.length] ?? `${needs.length} things`
  return needs.length === 0 ? 'Nothing needs attention' : `${count} ${needs.length === 1 ? 'needs' : 'need'} attention`
}
