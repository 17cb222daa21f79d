import { isMap, isPair, isScalar, parseDocument, visit, type Node } from 'yaml'
import { caretAt } from './caret'
import { optionsAt } from './completion'
import { schemasAt, valuesOf, type Schema } from './schema'
import contract from '../../../../../contract/definition.schema.json'

const schema = contract as unknown as Schema
const names = { query: ['late-sailings', 'bunkering'], rule: ['certificates'], 'recipient-list': ['technical-desk'] }

/** What is offered at the mark `¦` of a text. */
const offeredAt = (marked: string) => {
  const offset = marked.indexOf('¦')
  const text = marked.replace('¦', '')
  const caret = caretAt(text, offset)
  return caret ? optionsAt(schema, names, text, caret).map((option) => option.label) : []
}

const files = import.meta.glob<string>('../../../../../demo/definitions/*.yaml', {
  query: '?raw',
  import: 'default',
  eager: true,
})

type Found = { path: string[]; from: number; to: number; end: number; key: boolean; text: string }

/** Each field and each plain value of a text, as another reader of YAML finds them. */
function everything(text: string): Found[] {
  const found: Found[] = []
  visit(parseDocument(text), {
    Scalar(_, node, ancestors) {
      const [from, to] = node.range ?? [0, 0]
      const path: string[] = []
      ancestors.forEach((each, at) => {
        const child = ancestors[at + 1] ?? node
        if (isPair(each) && child === each.value && isScalar(each.key)) path.push(String(each.key.value))
        if (!isMap(each) && 'items' in each) path.push('[]')
      })
      const pair = ancestors.at(-1)
      const key = isPair(pair) && pair.key === node
      const end = key ? (((pair.value as Node | null)?.range ?? [])[1] ?? to) : to
      found.push({ path, from, to, end, key, text: String(node.value) })
    },
  })
  return found
}

describe.each(Object.entries(files))('%s', (file, text) => {
  const kind = file.split('.').at(-2) ?? ''

  test('each field is offered in its place when only its first letter is typed', () => {
    const fields = everything(text).filter((each) => each.key && schemasAt(schema, kind, each.path).some(hasFields))
    expect(fields.length).toBeGreaterThan(2)
    for (const { path, from, end, text: name } of fields) {
      const typed = `${text.slice(0, from)}${name[0] ?? ''}¦${text.slice(end)}`
      if (path.length > 0 || name !== 'kind') expect(offeredAt(typed), `${path.join('.')}.${name}`).toContain(name)
    }
  })

  test('each value of a closed set is offered in its place', () => {
    for (const { path, from, to, text: value } of everything(text).filter((each) => !each.key)) {
      const allowed = schemasAt(schema, kind, path).flatMap(valuesOf)
      if (!allowed.includes(value) || path[0] === 'kind') continue
      expect(offeredAt(`${text.slice(0, from)}${value[0] ?? ''}¦${text.slice(to)}`), path.join('.')).toContain(value)
    }
  })
})

const hasFields = (each: Schema) => each.properties !== undefined

describe('what is offered', () => {
  test('kinds first, and nothing else while there is none', () => {
    expect(offeredAt('k¦')).toEqual(['kind'])
    expect(offeredAt('kind: ¦')).toContain('recipient-list')
  })

  test('fields that are there already are not offered again, above or below the caret', () => {
    const offered = offeredAt('kind: rule\nname: late\n¦\nquery: bunkering\n')
    expect(offered).toContain('owner')
    expect(offered).not.toContain('query')
    expect(offered).not.toContain('name')
    expect(offeredAt('kind: rule\ndelivery:\n  attach:\n    - format: csv\n      ¦\n    - file: x\n')).toContain('file')
  })

  test('names that are saved, for the fields that hold one', () => {
    expect(offeredAt('kind: rule\nquery: ¦')).toEqual(names.query)
    expect(offeredAt('kind: rule\nschedule:\n  after: [c¦]')).toContain('certificates')
  })

  test('on a line of brackets, the fields of the part that is open', () => {
    expect(offeredAt('kind: rule\nmemory: { key: [sailing], m¦ }')).toContain('mode')
    expect(offeredAt('kind: rule\nmemory: { key: [sailing], mode: ¦ }')).toContain('full')
    expect(offeredAt('kind: rule\nmemory: { key: [sailing] } ¦')).toEqual([])
  })

  test('nothing in comments, in texts of several lines, and below what is no part', () => {
    expect(offeredAt('kind: rule\n# o¦')).toEqual([])
    expect(offeredAt('kind: query\nsql: |\n  select na¦')).toEqual([])
    expect(offeredAt('kind: rule\nname: late\n  o¦')).toEqual([])
    expect(offeredAt('kind: rule\nnobody_knows:\n  o¦')).toEqual([])
    expect(offeredAt('kind: nonsense\no¦')).toEqual([])
  })
})
