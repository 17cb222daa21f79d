import type { components } from './generated/contract'
import type { components as documents } from './generated/definitions'

export type Schemas = components['schemas']

export type Severity = 'CRITICAL' | 'WARNING' | 'NOTICE'
/** How a rule names and colours a severity. */
export type SeverityLook = Schemas['SeverityLook']
export type RuleState = 'DRAFT' | 'ACTIVE' | 'PAUSED'
export type CheckState =
  | 'RUNNING'
  | 'QUIET'
  | 'FIRED'
  | 'INCOMPLETE'
  | 'FAILED'
  | 'PARTLY_FAILED'
  | 'AWAITING_APPROVAL'
  | 'STOPPED'
  | 'RESTARTED'
  | 'SKIPPED'
export type FindingState = 'PENDING' | 'OPEN' | 'AGED_OUT' | 'CLEARED'
export type RecipientState =
  | 'QUEUED'
  | 'SENDING'
  | 'SENT'
  | 'UNSURE'
  | 'UNCONFIRMED'
  | 'REJECTED'
  | 'EXPIRED'
  | 'CANCELLED'
  | 'WAITING'
  | 'COLLECTED'

/** An instant in ISO 8601, as the API writes it. */
export type Instant = string

export type Person = Schemas['Person']

/** A row without several columns is counted for each of them in `unknown`, and once in `unknownRows`. */
export type PartCount = Schemas['PartCount']

/** The outcome of a personal copy; without addresses of its own, the rule's recipients got its messages. */
export type CheckCopy = Schemas['CopyView']

/** An unknown group, and why. */
export type UnevaluatedGroup = Schemas['UnevaluatedGroup']

export type Check = Schemas['CheckView']

/** A check as a dot in a strip. */
export type LatestCheck = Schemas['LatestCheck']

export type RuleSummary = Schemas['RuleSummary']

export type RulePage = Schemas['RulePage']

/** The edit that lies beside a rule; outdated where the rule was saved since. */
export type DraftNote = Schemas['DraftNote']

export type Finding = Schemas['FindingView']

export type HandlingKind = 'TAKE' | 'SNOOZE' | 'ACCEPT'
export type HandlingEntry = Schemas['HandlingEntry']

export type Verdict = 'TRUE' | 'FALSE' | 'UNKNOWN'

export type Explanation = Schemas['Explanation']

export type FindingColumn = Schemas['FindingColumn']

export type FindingList = Schemas['FindingList']

export type Recipient = Schemas['MessageRecipientView']

export type MessageSummary = Schemas['MessageSummary']

export type MessagePage = Schemas['MessagePage']

/** The parts of documents, as people may write them. */
export type Definitions = documents['schemas']

/** A document as the service writes it: where one value or several may be written, it writes a list. */
export type Written<T> = [Extract<T, unknown[]>] extends [never]
  ? T extends object
    ? { [K in keyof T]: Written<T[K]> }
    : T
  : Extract<T, unknown[] | undefined>
