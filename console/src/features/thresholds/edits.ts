import type { NewValue, Value } from './api'
import { t } from '../../messages'

/** One line of the table while it is edited: every cell as it was typed. */
export type Line = { id: number; key: string[]; from: string; number: string }

const place = (key: string[], from: string | null) => JSON.stringify([key, from])

const keyOf = (line: Line) => (line.key.every((part) => part.trim() === '') ? [] : line.key)

export const linesOf = (values: Value[], width: number): Line[] =>
  values.map((value, id) => ({
    id,
    key: value.key.length === 0 ? Array<string>(width).fill('') : value.key,
    from: value.from ?? '',
    number: String(value.number),
  }))

/** What has to be given and taken back to make the table say what the lines say; untouched values are not given again. */
export function changes(values: Value[], lines: Line[]): NewValue[] {
  const before = new Map(values.map((value) => [place(value.key, value.from), value]))
  const after = lines.map((line): NewValue => ({
    key: keyOf(line),
    from: line.from || null,
    number: line.number.trim(),
  }))
  const kept = new Set(after.map((value) => place(value.key, value.from)))
  const given = after.filter((value) => {
    const was = before.get(place(value.key, value.from))
    return was === undefined || String(was.number) !== value.number
  })
  const takenBack = values.filter((value) => !kept.has(place(value.key, value.from)))
  return [...given, ...takenBack.map((value) => ({ key: value.key, from: value.from, number: null }))]
}

/** What keeps the lines from being saved, in words; null if nothing does. */
export function hindrance(lines: Line[], names: string[]): string | null {
  if (lines.some((line) => line.number.trim() === '')) return t('thresholds.a_line_has_no_value')
  const places = lines.map((line) => place(keyOf(line), line.from || null))
  const twice = lines.find((_, index) => places.indexOf(places[index] ?? '') !== index)
  if (twice)
    return t('thresholds.two_lines_are_for_from', {
      twice: keyOf(twice).join(', ') || t('thresholds.default'),
      from: twice.from || t('thresholds.always'),
    })
  const partly = lines.find((line) => keyOf(line).some((part) => part.trim() === ''))
  return partly ? t('thresholds.a_line_has_only_some', { names: names.join(', ') }) : null
}

/** A value that a person was led here with. */
export type Suggested = { number: string; reason: string }

/** The lines with a suggested value from today on; a threshold by key has no single value to suggest. */
export function withSuggested(lines: Line[], number: string, today: string, width: number): Line[] {
  if (width > 0) return lines
  if (lines.some(({ from }) => from === today))
    return lines.map((line) => (line.from === today ? { ...line, number } : line))
  return [...lines, { id: Math.max(-1, ...lines.map(({ id }) => id)) + 1, key: [], from: today, number }]
}
