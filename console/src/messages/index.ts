import IntlMessageFormat, { type Formatters } from 'intl-messageformat'
import { createElement, Fragment, type ReactNode } from 'react'
import en from './en.json'

/** A text of the console, by what it says and where. */
export type MessageKey = keyof typeof en
type Texts = Record<MessageKey, string>

/** The languages there are. Another is a file with the same keys, in the message format of Unicode, and a line here. */
const languages: Record<string, Texts> = { en }
const fallback = 'en'

/** The language of the console in this browser. */
export const language =
  navigator.languages.map((each) => each.split('-')[0] ?? each).find((each) => each in languages) ?? fallback
const texts = languages[language] ?? en

// Plurals are the language's; numbers are written as the reader writes them, here and in tables alike.
const formatters: Formatters = {
  getNumberFormat: (_, options) => new Intl.NumberFormat(undefined, options),
  getDateTimeFormat: (_, options) => new Intl.DateTimeFormat(undefined, options),
  getPluralRules: (locale, options) => new Intl.PluralRules(locale, options),
}

const needsFormat = /[{<']/
const formats = new Map<MessageKey, IntlMessageFormat>()

function formatOf(key: MessageKey) {
  const known = formats.get(key)
  if (known) return known
  const made = new IntlMessageFormat(texts[key], language, undefined, { formatters })
  formats.set(key, made)
  return made
}

type Value = string | number | false | null | undefined

/** The text; a value that is not there leaves nothing. */
export function t(key: MessageKey, values: Record<string, Value> = {}): string {
  return needsFormat.test(texts[key]) ? String(formatOf(key).format(values)) : texts[key]
}

type Part = ReactNode | ((inner: ReactNode) => ReactNode)

/** A text with elements in it: as values, or as tags that get what the text has between them. */
export function rich(key: MessageKey, values: Record<string, Part>): ReactNode {
  const parts = formatOf(key).format<ReactNode>(
    Object.fromEntries(
      Object.entries(values).map(([name, value]) => [
        name,
        typeof value === 'function' ? (inner: ReactNode[]) => value(together(inner)) : value,
      ]),
    ) as Record<string, ReactNode>,
  )
  return Array.isArray(parts) ? together(parts) : parts
}

/** Text alone stays one text, so that it can be found and read as one. */
const together = (parts: ReactNode[]): ReactNode =>
  parts.every((part) => typeof part === 'string') ? parts.join('') : createElement(Fragment, null, ...parts)
