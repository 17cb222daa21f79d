import type { Completion, CompletionContext, CompletionResult, CompletionSource } from '@codemirror/autocomplete'
import { caretAt, kindOf, type Caret } from './caret'
import { kindsOf, schemasAt, shapeOf, valuesOf, type Schema } from './schema'

/** Names that are saved, by the kind of definition. */
export type Names = Record<string, string[]>

/** Fields that name a definition, and of which kind. */
const naming: Record<string, string> = {
  query: 'query',
  layout: 'layout',
  calendar: 'calendar',
  rule: 'rule',
  rules: 'rule',
  after: 'rule',
  copied_from: 'rule',
  list: 'recipient-list',
}

/** Offers the fields and values that the schema allows at the caret, and names that are saved. */
export const yamlCompletion =
  (schema: Schema, names: Names): CompletionSource =>
  (context: CompletionContext): CompletionResult | null => {
    const text = context.state.doc.toString()
    const caret = caretAt(text, context.pos)
    if (!caret) return null
    // Not at each line end: names are offered once one has begun or is asked for, values where one is awaited.
    if (!context.explicit && caret.at !== 'value' && caret.from === context.pos) return null
    const options = optionsAt(schema, names, text, caret)
    return options.length === 0 ? null : { from: caret.from, options, validFor: /^[\w.-]*$/ }
  }

/** What may be typed at a caret. */
export function optionsAt(schema: Schema, names: Names, text: string, caret: Caret): Completion[] {
  const { path, at } = caret
  if (path.length === 1 && path[0] === 'kind') return kindsOf(schema).map(value)
  const kind = kindOf(text)
  if (!kind) return at === 'key' && path.length === 0 ? [field('kind', 'line', 'What is defined.')] : []
  const here = schemasAt(schema, kind, path)
  const fields = at === 'value' ? [] : here.flatMap((each) => fieldsOf(schema, each, caret.present))
  const values = at === 'key' ? [] : [...here.flatMap(valuesOf), ...namesAt(names, path)]
  const all = [...values.map(value), ...fields]
  return all.filter((option, index) => all.findIndex((other) => other.label === option.label) === index)
}

const fieldsOf = (root: Schema, part: Schema, present: string[]) =>
  Object.entries(part.properties ?? {})
    .filter(([name]) => !present.includes(name))
    .map(([name, schema]) => field(name, shapeOf(root, schema), schema.description))

/** The name that a field expects, where a list of names or an entry with a name is within it. */
function namesAt(names: Names, path: string[]): string[] {
  const own = path.filter((step) => step !== '[]').at(-1) ?? ''
  return names[naming[own] ?? ''] ?? []
}

const value = (label: string): Completion => ({ label, type: 'enum' })

function field(name: string, shape: ReturnType<typeof shapeOf>, description?: string): Completion {
  return {
    label: name,
    type: 'property',
    ...(description ? { info: description.replaceAll('`', '') } : {}),
    apply: (view, _, from, to) => {
      const line = view.state.doc.lineAt(from)
      const inner = ' '.repeat(from - line.from + 2)
      // Between brackets everything stays on the line.
      const flow = /[[{]/.test(line.text.slice(0, from - line.from))
      const next = flow || shape === 'line' ? ' ' : shape === 'block' ? `\n${inner}` : `\n${inner}- `
      const insert = `${name}:${next}`
      view.dispatch({ changes: { from, to, insert }, selection: { anchor: from + insert.length } })
    },
  }
}
