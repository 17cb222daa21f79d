export type Severity = 'CRITICAL' | 'WARNING' | 'NOTICE'
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
  'QUEUED' | 'SENDING' | 'SENT' | 'UNSURE' | 'UNCONFIRMED' | 'REJECTED' | 'EXPIRED' | 'CANCELLED'

/** An instant in ISO 8601, as the API writes it. */
export type Instant = string

export type Person = { login: string; name: string; email: string; role: 'ANALYST' | 'OPERATOR' }

/** A row without several columns is counted for each of them in `unknown`, and once in `unknownRows`. */
export type PartCount = { text: string; rowsLeft: number; unknown: Record<string, number>; unknownRows?: number | null }

/** How a personal copy of a check went; without addresses of its own, the rule's heard. */
export type CopyOfCheck = {
  copy: string
  state: CheckState
  to: string[]
  reason: string | null
  exceptions: number | null
  news: number | null
}

/** An unknown group, and why. */
export type NotJudged = { group: string; reason: string }

export type Check = {
  id: string
  slot: Instant
  origin: 'SCHEDULED' | 'ON_DEMAND' | 'EVENT' | 'CHAINED'
  state: CheckState
  standsFor: number
  startedAt: Instant
  finishedAt: Instant | null
  rowsRead: number | null
  exceptions: number | null
  unknownRows: number | null
  notJudged: number | null
  notJudgedGroups: NotJudged[]
  parts: PartCount[]
  news: number | null
  messages: number | null
  reason: string | null
  rowsSoFar: number | null
  retryAt: Instant | null
  waitingFor: 'SOURCE_OPEN' | 'READY' | null
  event: string | null
}

/** A check as a dot in a strip. */
export type StripCheck = {
  id: string
  slot: Instant
  state: CheckState
  news: number | null
  worst: Severity | null
  exceptions: number | null
  reason: string | null
  retryAt: Instant | null
}

export type RuleSummary = {
  name: string
  title: string
  owner: string
  state: RuleState
  revision: number
  zone: string
  open: Partial<Record<Severity, number>>
  nextSlot: Instant | null
  /** Active, and its schedule has no more dates. */
  ended: boolean
  to: string[]
  named: string[]
  labels: string[]
  copiedFrom: string | null
  query: string
  source: string
  columns: string[]
  thresholds: string[]
  draft: boolean
  latest: StripCheck[]
}

export type RulePage = {
  rule: RuleSummary
  text: {
    query: string
    queryTitle: string
    source: string
    sql: string
    parameters: Record<string, string>
    per: string[]
    grouped: boolean
    exceptions: string | null
    sentence: string
    fireWhen: string | null
    fireSentence: string | null
    hold: string | null
    misses: string | null
    thresholds: string[]
    severity: { severity: Severity; condition: string | null; sentence: string | null }[]
    mode: 'incremental' | 'full'
    key: string[]
    report: string[]
    schedule: string
    split: { by: string; to: Record<string, string[]>; from: string | null } | null
    copies: { from: string; key: string; address: string } | null
  }
  nextDates: Instant[]
  draft: DraftNote | null
}

/** The edit that lies beside a rule; outdated where the rule was saved since. */
export type DraftNote = { version: number; author: string; at: Instant; outdated: boolean }

export type Finding = {
  id: number
  copy: string | null
  identity: string
  state: FindingState
  severity: Severity
  openedAt: Instant
  changedAt: Instant
  reportedAt: Instant | null
  noData: boolean
  standing: boolean
  marks: MarkOfPerson[]
  row: Record<string, string | null>
}

export type MarkKind = 'TAKE' | 'SNOOZE' | 'ACCEPT'
export type MarkOfPerson = { kind: MarkKind; by: string; at: Instant; note: string; until: Instant | null }

export type Verdict = 'TRUE' | 'FALSE' | 'UNKNOWN'

export type Story = {
  rule: string
  zone: string
  identity: string
  why: string
  now: {
    finding: number
    state: FindingState
    severity: Severity
    openedAt: Instant
    changedAt: Instant
    lastConfirmed: Instant | null
    standing: boolean
    reportedAt: Instant | null
    toldAt: Instant | null
    marks: MarkOfPerson[]
  } | null
  present: {
    at: Instant
    verdict: Verdict | null
    severity: Severity | null
    parts: { text: string; verdict: Verdict }[]
    row: Record<string, string | null>
    failure: string | null
  }
  events: {
    at: Instant
    about: 'FINDING' | 'MESSAGE' | 'MARK' | 'EDIT' | 'THRESHOLD'
    words: string
    check: string | null
    message: string | null
  }[]
}

export type FindingColumn = { name: string; label: string; type: string }

export type FindingList = { total: number; columns: FindingColumn[]; findings: Finding[] }

export type Recipient = {
  address: string
  state: RecipientState
  tries: number
  nextTry: Instant | null
  words: string | null
  settledAt?: Instant | null
}

export type MessageSummary = {
  id: string
  rule: string | null
  roundUp: string | null
  preview: boolean
  repeat: boolean
  held: boolean
  subject: string
  slot: Instant
  createdAt: Instant
  recipients: Recipient[]
}

export type MessagePage = {
  message: MessageSummary
  messageId: string
  text: string
  attachments: string[]
  tries: { address: string; at: Instant; outcome: RecipientState; words: string }[]
}
