import { t } from '../../messages'

/** Recipients as they are typed or pasted, with commas or semicolons between; a name in quotes may have either. */
export const listOf = (text: string) =>
  text
    .split(/[,;\n](?=(?:[^"]*"[^"]*")*[^"]*$)/)
    .map((each) => each.trim())
    .filter(Boolean)

/** The service reads addresses with more care; this tells a name or a slip from an address while one types. */
const address = /^(?:[^<>]*<)?\s*[^\s@<>,;"]+@[^\s@<>,;"]+\s*>?$/
const reference = /^(team|person|list):\s*(.+)$/

export type Known = { teams: string[]; logins: string[]; lists: string[] }

/** What is wrong with a recipient; null for nothing. */
export function objection(text: string, known: Known): string | null {
  const [, kind, name] = reference.exec(text) ?? []
  if (kind === 'team' && name !== undefined)
    return known.teams.includes(name) ? null : t('editor.no_team_of_that_name', { name })
  if (kind === 'person' && name !== undefined)
    return known.logins.includes(name) ? null : t('editor.no_user_of_that_name', { name })
  if (kind === 'list' && name !== undefined)
    return known.lists.includes(name) ? null : t('editor.no_list_of_that_name', { name })
  return address.test(text) ? null : t('editor.not_an_address', { text })
}

/** The list with those that are not in it yet, whatever their case. */
export function withNew(list: string[], more: string[]): string[] {
  const seen = new Set(list.map((each) => each.toLowerCase()))
  return [...list, ...more.filter((each) => !seen.has(each.toLowerCase()) && seen.add(each.toLowerCase()))]
}
