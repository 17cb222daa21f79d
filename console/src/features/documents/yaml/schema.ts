/** The part of JSON Schema that the schema of definition files uses. */
export type Schema = {
  $ref?: string
  $defs?: Record<string, Schema>
  description?: string
  type?: string | string[]
  enum?: string[]
  const?: string
  oneOf?: Schema[]
  properties?: Record<string, Schema>
  additionalProperties?: boolean | Schema
  items?: Schema
}

/** A schema and each of its alternatives, references followed. */
function alternatives(root: Schema, schema: Schema): Schema[] {
  if (schema.$ref) {
    const part = root.$defs?.[schema.$ref.slice('#/$defs/'.length)]
    return part ? alternatives(root, part) : []
  }
  return schema.oneOf ? schema.oneOf.flatMap((each) => alternatives(root, each)) : [schema]
}

function inside(schema: Schema, step: string): Schema[] {
  if (step === '[]') return schema.items ? [schema.items] : []
  const field = schema.properties?.[step]
  if (field) return [field]
  return typeof schema.additionalProperties === 'object' ? [schema.additionalProperties] : []
}

/** What may be at a path of a definition of a kind: one schema for each way to write it. */
export function schemasAt(root: Schema, kind: string, path: string[]): Schema[] {
  const start = root.$defs?.[kind]
  let here = start ? alternatives(root, start) : []
  for (const step of path) here = here.flatMap((each) => inside(each, step)).flatMap((each) => alternatives(root, each))
  return here
}

/** The kinds of definition, as the schema lists them. */
export const kindsOf = (root: Schema) => root.properties?.kind?.enum ?? []

export const valuesOf = (schema: Schema): string[] => {
  if (schema.enum) return schema.enum
  if (schema.const !== undefined) return [schema.const]
  return [schema.type].flat().includes('boolean') ? ['true', 'false'] : []
}

/** How a field's value goes on after its name: `block` on the next line, `list` as entries, else on the same line. */
export function shapeOf(root: Schema, field: Schema): 'line' | 'block' | 'list' {
  const ways = alternatives(root, field)
  if (ways.every((each) => each.type === 'object')) return 'block'
  if (ways.every((each) => each.type === 'array')) return 'list'
  return 'line'
}
