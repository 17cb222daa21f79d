/** Where the caret is in a definition file: the fields around it, and what is being typed. */
export type Caret = {
  /** Names of fields from the outside in; `[]` for an entry of a list. */
  path: string[]
  /** `key`: the name of a field; `value`: what it says; `entry`: an entry of a list, which may be either. */
  at: 'key' | 'value' | 'entry'
  /** Where what is being typed begins, from 0. */
  from: number
  /** Fields that the same part has already. */
  present: string[]
}

/** A line of block style: `  - key: value` has a dash at 2 and its content at 4. */
type Line = { dashes: number[]; content: number; key: string | null; value: string; blank: boolean }

const named = /^("[^"]*"|'[^']*'|[^\s:#,[\]{}][^:#]*?)\s*:(?=\s|$)\s*(.*)$/

function lineOf(text: string): Line {
  const dashes: number[] = []
  let content = text.length - text.trimStart().length
  while (/^-(\s|$)/.test(text.slice(content))) {
    dashes.push(content)
    const rest = text.slice(content + 1)
    content += 1 + (rest.length - rest.trimStart().length)
  }
  const said = text.slice(content)
  const found = named.exec(said)
  return {
    dashes,
    content,
    key: found ? (found[1] ?? '').replace(/^["']|["']$/g, '') : null,
    value: found?.[2] ?? said,
    blank: said.trim() === '' ? dashes.length === 0 : said.startsWith('#'),
  }
}

/** The column at which a line begins, its dashes included. */
const startOf = (line: Line) => line.dashes[0] ?? line.content

const isText = (value: string) => /^[|>][-+0-9]*(\s|$)/.test(value)

/**
 * The place at `offset` of `text`, read from its indentation, so that it is known while the file is not yet right.
 * Null inside a comment and inside a text of several lines, where nothing can be completed.
 */
export function caretAt(text: string, offset: number): Caret | null {
  const lineStart = text.lastIndexOf('\n', offset - 1) + 1
  const before = text.slice(lineStart, offset)
  if (/(^|\s)#/.test(before)) return null
  const above = text.slice(0, lineStart).split('\n').slice(0, -1).map(lineOf)
  const lineEnd = text.indexOf('\n', offset)
  const below =
    lineEnd < 0
      ? []
      : text
          .slice(lineEnd + 1)
          .split('\n')
          .map(lineOf)
  const here = lineOf(before)

  const path: string[] = here.dashes.map(() => '[]')
  const present = here.dashes.length > 0 ? [] : siblingsAbove(above, here.content)
  present.push(...siblingsBelow(below, here.content))
  let limit = startOf(here)
  let isEntry = here.dashes.length > 0
  for (const line of above.toReversed()) {
    if (line.blank) continue
    if (line.content === limit && !isEntry && line.dashes.length > 0) {
      // The first field of the same entry, behind the dash.
      path.unshift(...line.dashes.map(() => '[]'))
      limit = startOf(line)
      isEntry = true
      continue
    }
    const isParent = line.content < limit || (isEntry && line.content === limit && line.dashes.length === 0)
    if (!isParent) continue
    if (line.key === null || isText(line.value)) return null
    if (line.value.trim() !== '' && !line.value.startsWith('#')) return null
    path.unshift(...line.dashes.map(() => '[]'), line.key)
    limit = startOf(line)
    isEntry = line.dashes.length > 0
  }
  if (here.key === null) {
    const typed = before.slice(here.content)
    if (/^[[{]/.test(typed)) return inFlow(typed, lineStart + here.content, path)
    return { path, at: here.dashes.length > 0 ? 'entry' : 'key', from: lineStart + here.content, present }
  }
  const value = before.length - here.value.length
  const known = [...path, here.key]
  if (/^[[{]/.test(here.value)) return inFlow(before.slice(value), lineStart + value, known)
  // A space ends the name: `zone:` alone is not yet followed by a value.
  if (here.value === '' && !/\s$/.test(before)) return null
  return { path: known, at: 'value', from: lineStart + (here.value === '' ? before.length : value), present: [] }
}

/** The fields of the same part before the caret: up to the dash that begins it, or to a line further out. */
function siblingsAbove(lines: Line[], column: number): string[] {
  const found: string[] = []
  for (const line of lines.toReversed()) {
    if (line.blank) continue
    if (line.content === column && line.key !== null) found.push(line.key)
    if (startOf(line) < column) break
  }
  return found
}

/** The fields of the same part behind the caret: up to the next dash, or to a line further out. */
function siblingsBelow(lines: Line[], column: number): string[] {
  const found: string[] = []
  for (const line of lines) {
    if (line.blank) continue
    if (startOf(line) < column) break
    if (line.content === column && line.key !== null) found.push(line.key)
  }
  return found
}

/** Inside `[…]` or `{…}` on one line. */
function inFlow(typed: string, start: number, outer: string[]): Caret | null {
  const open: { list: boolean; key: string | null; present: string[] }[] = []
  let from = 0
  let quote = ''
  for (let at = 0; at < typed.length; at++) {
    const sign = typed.charAt(at)
    if (quote) {
      if (sign === quote) quote = ''
      continue
    }
    const inner = open.at(-1)
    if (sign === '"' || sign === "'") quote = sign
    else if (sign === '[' || sign === '{') open.push({ list: sign === '[', key: null, present: [] })
    else if (sign === ']' || sign === '}') open.pop()
    else if (sign === ',' && inner) inner.key = null
    else if (sign === ':' && inner && !inner.list && inner.key === null) {
      inner.key = typed.slice(from, at).trim()
      inner.present.push(inner.key)
    } else continue
    if (!quote) from = at + 1
  }
  const inner = open.at(-1)
  if (quote || !inner) return null
  const path = [...outer]
  for (const each of open) {
    if (each.list) path.push('[]')
    else if (each.key !== null) path.push(each.key)
  }
  const rest = typed.slice(from)
  const at = inner.list ? 'entry' : inner.key === null ? 'key' : 'value'
  return { path, at, from: start + from + (rest.length - rest.trimStart().length), present: inner.present }
}

/** What kind of definition the file is; null where it does not say. */
export const kindOf = (text: string) => /^kind:[ \t]*["']?([a-z-]+)/m.exec(text)?.[1] ?? null
