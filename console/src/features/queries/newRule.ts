const prefix = 'value.'

/** The address of a new rule on a query, with values for its parameters that were tried. */
export const newRuleOf = (query: string, values: Record<string, string>) =>
  `/rules/new?${new URLSearchParams([
    ['query', query],
    ...Object.entries(values).flatMap(([name, value]) => (value === '' ? [] : [[prefix + name, value]])),
  ])}`

/** The values in such an address; none for an address without any. */
export function valuesIn(search: URLSearchParams): { parameters?: Record<string, string> } {
  const values = [...search].filter(([name]) => name.startsWith(prefix))
  return values.length === 0
    ? {}
    : { parameters: Object.fromEntries(values.map(([name, value]) => [name.slice(prefix.length), value])) }
}
