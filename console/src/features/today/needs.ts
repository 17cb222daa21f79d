import type { MessageSummary, RuleSummary } from '../../api/types'
import { timeWords } from '../../shared/words'
import { heldWords, type BlockedAddress, type Hold } from '../outbox/api'
import type { DaySeen } from './api'
import { t } from '../../messages'

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
    const retry = last.retryAt ? t('today.next_try_at', { retryAt: timeWords(last.retryAt) }) : ''
    const why = t('today.earlier_reports_are_unchanged', {
      slot: timeWords(last.slot),
      reason: last.reason ?? '',
      retry,
    })
    if (same.length > 1)
      return [
        {
          sign: '✕',
          look: 'bad',
          what: t('today.rule_on_could_not_be', { same: same.length, source: first.source }),
          why,
          to: '/setup',
          verb: t('today.test_the_source'),
        },
      ]
    const what =
      last.state === 'FAILED'
        ? t('today.could_not_be_checked', { title: first.title })
        : t('today.some_personal_copies_of_could', { title: first.title })
    const again = first.state === 'ACTIVE' ? { check: first.name } : {}
    return [{ sign: '✕', look: 'bad', what, why, to: `/rules/${first.name}`, verb: t('shared.show'), ...again }]
  })
}

/** What needs attention, worst first: held mail, checks that failed or are late, critical findings that nobody has taken, mail that is stuck. */
export function needsOf({ rules, messages, holds, blockedAddresses, day }: Standing): Need[] {
  const held = holds.map((hold) => ({
    sign: '✉',
    look: 'warning',
    what: capital(t('today.is_held_message_queued', { hold: heldWords(hold), messages: hold.messages })),
    why: hold.reason,
    to: '/outbox',
    verb: t('shared.show'),
  }))
  const late = (day?.lanes ?? []).flatMap((lane) =>
    lane.lateSince
      ? [
          {
            sign: '✕',
            look: 'bad',
            what: t('today.is_late', { title: lane.title }),
            why: t('today.its_check_of_has_not', { lateSince: timeWords(lane.lateSince) }),
            to: '/setup',
            verb: t('today.show_status'),
          },
        ]
      : [],
  )
  const keptBack = rules
    .filter((rule) => rule.latest[0]?.state === 'AWAITING_APPROVAL')
    .map((rule) => ({
      sign: '✕',
      look: 'warning',
      what: t('today.a_check_of_awaits_approval', { title: rule.title }),
      why: rule.latest[0]?.reason ?? '',
      to: `/rules/${rule.name}`,
      verb: t('shared.show'),
    }))
  const critical = (day?.open ?? [])
    .filter((each) => each.criticalUnhandled > 0)
    .map((each) => ({
      sign: '▲',
      look: 'bad',
      what: t('today.critical_finding_not_taken', { criticalUnhandled: each.criticalUnhandled }),
      why: `${each.title}${each.lastReported ? t('today.reported_to_person', { lastReported: timeWords(each.lastReported), lastRecipients: each.lastRecipients }) : ''}`,
      to: `/findings?rule=${each.rule}&severity=CRITICAL&handling=BY_NOBODY`,
      verb: t('shared.take'),
    }))
  const mail = messages.flatMap((message) =>
    message.recipients
      .filter((recipient) => stuck.includes(recipient.state) && recipient.tries > 0 && !recipient.settledAt)
      .map((recipient) => ({
        sign: '✉',
        look: recipient.state === 'UNCONFIRMED' ? 'bad' : 'warning',
        what:
          recipient.state === 'UNCONFIRMED'
            ? t('today.a_message_to_may_not', { address: recipient.address })
            : t('today.a_message_to_is', { address: recipient.address, state: recipient.state.toLowerCase() }),
        why: `${recipient.detail ?? ''}${recipient.nextTry ? t('today.try_so_far_next_try', { tries: recipient.tries, nextTry: timeWords(recipient.nextTry) }) : ''}`,
        to: `/outbox/${message.id}`,
        verb: t('shared.show'),
      })),
  )
  const bad = blockedAddresses.map((each) => ({
    sign: '✉',
    look: 'warning',
    what: t('today.is_blocked', { address: each.address }),
    why: each.reason,
    to: '/outbox',
    verb: t('shared.show'),
  }))
  return [...held, ...failures(rules), ...late, ...keptBack, ...critical, ...mail, ...bad]
}

const numerals = [
  t('today.nothing'),
  t('today.one_thing'),
  t('today.two_things'),
  t('today.three_things'),
  t('today.four_things'),
  t('today.five_things'),
  t('today.six_things'),
  t('today.seven_things'),
]

export function headline(needs: Need[]): string {
  const count = numerals[needs.length] ?? t('today.things', { needs: needs.length })
  return needs.length === 0
    ? t('today.nothing_needs_attention')
    : t('today.count_need_attention', { count, needs: needs.length })
}
