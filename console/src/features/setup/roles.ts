import { t } from '../../messages'
import type { Role } from './api'

/** From least to most. */
export const roles: Role[] = ['READER', 'ANALYST', 'LEAD', 'OPERATOR', 'AUDITOR']

const words: Record<Role, string> = {
  READER: t('setup.reader'),
  ANALYST: t('setup.analyst'),
  LEAD: t('setup.lead'),
  OPERATOR: t('setup.operator'),
  AUDITOR: t('setup.auditor'),
}
export const roleWords = (role: Role) => words[role]

const may: Record<Role, string> = {
  READER: t('setup.reader_may'),
  ANALYST: t('setup.analyst_may'),
  LEAD: t('setup.lead_may'),
  OPERATOR: t('setup.operator_may'),
  AUDITOR: t('setup.auditor_may'),
}
/** What the role may do, in a sentence. */
export const roleHelp = (role: Role) => may[role]
