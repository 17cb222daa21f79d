import type { AuditEntry } from './api'

/** `save rule`, `log in refused`. */
export const actWords = (act: AuditEntry['act']) => act.toLowerCase().replaceAll('_', ' ')

const places: Partial<Record<AuditEntry['act'], string>> = {
  SAVE_RULE: 'rules',
  ACTIVATE_RULE: 'rules',
  PAUSE_RULE: 'rules',
  PREVIEW_RULE: 'rules',
  SAVE_DRAFT: 'rules',
  DISCARD_DRAFT: 'rules',
  BACK_TEST: 'rules',
  EXPORT_FINDINGS: 'rules',
  EXPLAIN_FINDING: 'rules',
  SET_FILE_PASSWORD: 'rules',
  SAVE_QUERY: 'queries',
  RUN_QUERY: 'queries',
  SAVE_THRESHOLD: 'thresholds',
  SET_THRESHOLD: 'thresholds',
  SAVE_CALENDAR: 'calendars',
  SAVE_LAYOUT: 'layouts',
  SAVE_RECIPIENT_LIST: 'recipient-lists',
  SAVE_ROUND_UP: 'round-ups',
  PAUSE_ROUND_UP: 'round-ups',
  RESUME_ROUND_UP: 'round-ups',
  SEND_ROUND_UP: 'round-ups',
}

/** Where what an act is about is seen, as far as it has not been renamed; null where there is no such page. */
export function addressOf({ act, subject }: Pick<AuditEntry, 'act' | 'subject'>): string | null {
  const place = places[act]
  return place && /^[a-z0-9][a-z0-9_-]*$/.test(subject) ? `/${place}/${subject}` : null
}
