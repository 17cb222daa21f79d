import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser'
import { render, screen } from '@testing-library/react'
import ts from 'typescript'
import en from './en.json'
import { rich, t, type MessageKey } from '.'

const texts: Record<string, string> = en
const sources = import.meta.glob<string>(['../**/*.ts', '../**/*.tsx', '!../**/*.test*', '!../api/generated/**'], {
  query: '?raw',
  import: 'default',
  eager: true,
})

/** A use of a text in the source: where, and the names of the values it gets. */
type Use = { file: string; key: string; values: string[] }

function usesIn(file: string, source: string): Use[] {
  const found: Use[] = []
  const visit = (node: ts.Node) => {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && /^(t|rich)$/.test(node.expression.text)) {
      const [key, values] = node.arguments
      const names =
        values && ts.isObjectLiteralExpression(values)
          ? values.properties.map((each) => (each.name && ts.isIdentifier(each.name) ? each.name.text : ''))
          : []
      // One of two texts may be chosen in place.
      const keys = key && ts.isConditionalExpression(key) ? [key.whenTrue, key.whenFalse] : [key]
      for (const each of keys) if (each && ts.isStringLiteral(each)) found.push({ file, key: each.text, values: names })
    }
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX))
  return found
}

/** The names that a text has places for. */
const namesIn = (elements: MessageFormatElement[]): string[] =>
  elements.flatMap((each) => [
    ...('value' in each && each.type !== TYPE.literal ? [each.value] : []),
    ...('children' in each ? namesIn(each.children) : []),
    ...('options' in each ? Object.values(each.options).flatMap((option) => namesIn(option.value)) : []),
  ])

const uses = Object.entries(sources).flatMap(([file, source]) => usesIn(file, source))

test('every text has the values that its places ask for', () => {
  expect(uses.length).toBeGreaterThan(800)
  const wrong = uses.filter(({ key, values }) => {
    const asked = new Set(namesIn(parse(texts[key] ?? '')))
    return asked.size !== values.length || values.some((name) => !asked.has(name))
  })
  expect(wrong).toEqual([])
})

test('every text is used, and the file is in order', () => {
  const used = new Set(uses.map(({ key }) => key))
  const byCode = /^(state|handling)\.|^editor\.period_/
  expect(Object.keys(en).filter((key) => !used.has(key) && !byCode.test(key))).toEqual([])
  expect(Object.keys(en)).toEqual(Object.keys(en).toSorted())
})

test.each<[number, string]>([
  [0, '0 rows'],
  [1, '1 row'],
  [2, '2 rows'],
])('%i has its form', (count, words) => expect(t('shared.count_rows', { count })).toBe(words))

test.each<[MessageKey, Record<string, string>, string]>([
  ['thresholds.as_written', { name: 'load_limit', key: '' }, "threshold('load_limit')"],
  ['shared.warning_sentence', { warning: "a {name} <b> of '{}'" }, "Warning: a {name} <b> of '{}'."],
])('%s leaves braces, quotes and marks of its values alone', (key, values, words) => expect(t(key, values)).toBe(words))

test('a value that is not there leaves nothing', () =>
  expect(t('documents.with', { files: undefined })).toBe(', with '))

test('elements stand where the text has them', () => {
  render(
    <p>
      {rich('missing.no_page_at_check_the', {
        code: (inner) => <code>{inner}</code>,
        pathname: '/wharf/<i>',
        link: (inner) => <a href="/today">{inner}</a>,
        link2: (inner) => <a href="/rules">{inner}</a>,
      })}
    </p>,
  )
  expect(screen.getByText('/wharf/<i>').tagName).toBe('CODE')
  expect(screen.getByRole('link', { name: 'Rules' })).toHaveAttribute('href', '/rules')
  expect(screen.getByText(/^No page at/)).toHaveTextContent(
    'No page at /wharf/<i>. Check the address, or go to Today or Rules.',
  )
})
