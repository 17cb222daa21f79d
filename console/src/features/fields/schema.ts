import { queryOptions } from '@tanstack/react-query'
import { api } from '../../api/client'

/** A field of a definition, as the JSON Schema has it. */
export type FieldSchema = {
  type?: string | string[]
  description?: string
  enum?: string[]
  oneOf?: FieldSchema[]
  items?: FieldSchema
  $ref?: string
  minimum?: number
  maximum?: number
  properties?: Record<string, FieldSchema>
  required?: string[]
  additionalProperties?: FieldSchema | boolean
}

export type DocumentSchema = { $defs: Record<string, FieldSchema> }

/** How a value is entered. */
export type Entry =
  | { is: 'choice'; options: string[] }
  | { is: 'check' }
  /** Yes or no, where neither is what leaving it out means. */
  | { is: 'truth' }
  | { is: 'number'; least?: number; most?: number }
  | { is: 'text' }
  | { is: 'list'; options?: string[] }
  | { is: 'part'; part: string }
  /** Several parts; one that says no more than its first field may be written as that alone. */
  | { is: 'parts'; part: string; alone: string | undefined }
  | { is: 'map' }

export const documentSchema = queryOptions({
  queryKey: ['document-schema'],
  queryFn: () => api.get<DocumentSchema>('/api/schemas/odd-document.schema.json'),
  staleTime: Infinity,
})

const partOf = (schema: FieldSchema) => schema.$ref?.replace('#/$defs/', '')

export function entryOf(schema: FieldSchema, all: DocumentSchema): Entry {
  const part = partOf(schema)
  if (part) return { is: 'part', part }
  if (schema.enum) return { is: 'choice', options: schema.enum }
  if (schema.oneOf) {
    const list = schema.oneOf.find(({ type }) => type === 'array')
    const named = schema.oneOf.map(partOf).find((each) => each !== undefined)
    return list ? entryOf(list, all) : named ? { is: 'part', part: named } : { is: 'text' }
  }
  if (schema.type === 'array') {
    const several = [schema.items, ...(schema.items?.oneOf ?? [])].map((each) => each && partOf(each)).find(Boolean)
    if (several) return { is: 'parts', part: several, alone: all.$defs[several]?.required?.[0] }
    return schema.items?.enum ? { is: 'list', options: schema.items.enum } : { is: 'list' }
  }
  if (schema.type === 'boolean')
    return /Default: `true`/.test(schema.description ?? '') ? { is: 'truth' } : { is: 'check' }
  if (schema.type === 'integer')
    return {
      is: 'number',
      ...(schema.minimum === undefined ? {} : { least: schema.minimum }),
      ...(schema.maximum === undefined ? {} : { most: schema.maximum }),
    }
  return schema.type === 'object' ? { is: 'map' } : { is: 'text' }
}

/** `confirm_after` as `Confirm after`. */
export const fieldWords = (name: string) => {
  const words = name.replaceAll('_', ' ')
  return words.charAt(0).toUpperCase() + words.slice(1)
}

export type Values = Record<string, unknown>

/**
 * The part with one field set; empty values are left out.
 *
 * @param keepsFalse whether `false` says something
 */
export function withField(part: Values, name: string, value: unknown, keepsFalse = false): Values {
  // No file at all is something that a person may want.
  if (name === 'attach' && Array.isArray(value)) return { ...part, attach: value }
  const nothing =
    value === '' ||
    value === undefined ||
    (value === false && !keepsFalse) ||
    (Array.isArray(value) && value.length === 0) ||
    (typeof value === 'object' && value !== null && !Array.isArray(value) && Object.keys(value).length === 0)
  return Object.fromEntries(Object.entries({ ...part, [name]: value }).filter(([each]) => each !== name || !nothing))
}

/** A list as it is typed: `a, "b, c"`. */
export const listText = (values: unknown) =>
  (Array.isArray(values) ? values : values === undefined ? [] : [values])
    .map((each) => (String(each).includes(',') ? `"${String(each)}"` : String(each)))
    .join(', ')

export const listOfText = (text: string) =>
  text
    .split(/,(?=(?:[^"]*"[^"]*")*[^"]*$)/)
    .map((each) => each.trim().replace(/^"(.*)"$/, '$1'))
    .filter(Boolean)
