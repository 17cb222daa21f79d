import type { Parameter, ParameterType, Table } from './api'

/**
 * What can be chosen without SQL: a table with those its keys lead to, columns, filters and an order. Its SQL is read back
 * exactly; what has more than that is left to the SQL alone.
 */
export type TableQuery = {
  /** The table that gives the rows first; each of the others is reached from one before it. */
  tables: [UsedTable, ...UsedTable[]]
  columns: Chosen[]
  filters: Filter[]
  order: (Place & { descending: boolean })[]
}
export type UsedTable = { schema: string; name: string; as: string; on: [Place, Place][] }
/** A column of one of the tables, which go by the names after `as`. */
export type Place = { of: string; column: string }
export type Chosen = Place & { as: string }
export type Filter = Place & { operator: FilterOperator; values: Value[] }
/** A parameter, or the text of a constant. */
export type Value = { parameter: string } | { constant: string; isText: boolean }

export const filterOperators = ['=', '<>', '>', '>=', '<', '<=', 'in', 'not in', 'is null', 'is not null'] as const
export type FilterOperator = (typeof filterOperators)[number]

/** Why SQL has no fields: what it has that they have not. */
export type Unfit = { unfit: string }

const reserved = new Set(
  `all analyse analyze and any array as asc asymmetric authorization between binary both case cast check collate collation column
  concurrently constraint create cross current_catalog current_date current_role current_schema current_time current_timestamp
  current_user default deferrable desc distinct do else end except false fetch for foreign freeze from full grant group having
  ilike in initially inner intersect into is isnull join lateral leading left like limit localtime localtimestamp natural not
  notnull null offset on only or order outer overlaps placing primary references returning right select session_user similar some
  symmetric table tablesample then to trailing true union unique user using variadic verbose when where window with`.split(
    /\s+/,
  ),
)

const written = (name: string) =>
  /^[a-z_][a-z0-9_]*$/.test(name) && !reserved.has(name) ? name : `"${name.replaceAll('"', '""')}"`

const valueWritten = (value: Value) => {
  if ('parameter' in value) return `:${value.parameter}`
  return value.isText ? `'${value.constant.replaceAll("'", "''")}'` : value.constant
}

const tableWritten = ({ schema, name, as }: UsedTable) => {
  const whole = schema === 'public' ? written(name) : `${written(schema)}.${written(name)}`
  return as === name ? whole : `${whole} as ${written(as)}`
}

/** The SQL of what was chosen. One table needs no names before its columns. */
export function sqlOf({ tables, columns, filters, order }: TableQuery): string {
  const alone = tables.length === 1
  const place = ({ of, column }: Place) => (alone ? written(column) : `${written(of)}.${written(column)}`)
  const [first, ...joined] = tables
  const filter = ({ operator, values, ...at }: Filter) => {
    if (operator === 'is null' || operator === 'is not null') return `${place(at)} ${operator}`
    const all = values.map(valueWritten).join(', ')
    return operator === 'in' || operator === 'not in'
      ? `${place(at)} ${operator} (${all})`
      : `${place(at)} ${operator} ${all}`
  }
  const lines = [
    `select ${columns.map((each) => (each.as === each.column ? place(each) : `${place(each)} as ${written(each.as)}`)).join(',\n       ') || '*'}`,
    `from ${tableWritten(first)}`,
    ...joined.map((each) => {
      const on = each.on.map(([left, right]) => `${place(left)} = ${place(right)}`).join(' and ')
      return `left join ${tableWritten(each)} on ${on}`
    }),
    ...filters.map((each, index) => `${index === 0 ? 'where' : '  and'} ${filter(each)}`),
    ...(order.length > 0
      ? [`order by ${order.map((each) => `${place(each)}${each.descending ? ' desc' : ''}`).join(', ')}`]
      : []),
  ]
  return lines.join('\n')
}

type Token = { kind: 'word' | 'name' | 'text' | 'number' | 'parameter' | 'sign'; text: string }

const token =
  /\s*(?:([A-Za-z_][A-Za-z0-9_]*)(?![A-Za-z0-9_$]|[^\x00-\x7F])|"((?:[^"]|"")+)"|'((?:[^']|'')*)'|(-?\d+(?:\.\d+)?)(?![\w.])|:([A-Za-z_]\w*)|(<>|<=|>=|!=|[=<>(),.*;]))/y

class UnfitSql extends Error {}

function tokensOf(sql: string): Token[] {
  const tokens: Token[] = []
  const text = sql.trimEnd().replace(/;$/, '').trimEnd()
  token.lastIndex = 0
  while (token.lastIndex < text.length) {
    const at = token.lastIndex
    const found = token.exec(text)
    if (!found) throw new UnfitSql(/\S+/.exec(text.slice(at))?.[0] ?? '')
    const [, word, name, quoted, number, parameter, sign] = found
    if (word !== undefined) tokens.push({ kind: 'word', text: word.toLowerCase() })
    else if (name !== undefined) tokens.push({ kind: 'name', text: name.replaceAll('""', '"') })
    else if (quoted !== undefined) tokens.push({ kind: 'text', text: quoted.replaceAll("''", "'") })
    else if (number !== undefined) tokens.push({ kind: 'number', text: number })
    else if (parameter !== undefined) tokens.push({ kind: 'parameter', text: parameter })
    else if (sign !== undefined) tokens.push({ kind: 'sign', text: sign === '!=' ? '<>' : sign })
  }
  return tokens
}

/** Reads the tokens from left to right; whatever does not fit ends the reading with its text. */
class Reader {
  private at = 0
  constructor(private readonly tokens: Token[]) {}

  private get next() {
    return this.tokens[this.at]
  }

  fail(): never {
    throw new UnfitSql(this.next?.text ?? '')
  }

  /** Whether these words or signs come next; they are read then. */
  takes(...texts: string[]) {
    const fits = texts.every((text, index) => {
      const found = this.tokens[this.at + index]
      return found !== undefined && (found.kind === 'word' || found.kind === 'sign') && found.text === text
    })
    if (fits) this.at += texts.length
    return fits
  }

  needs(...texts: string[]) {
    if (!this.takes(...texts)) this.fail()
  }

  name() {
    const found = this.next
    if (found?.kind === 'name' || (found?.kind === 'word' && !reserved.has(found.text))) {
      this.at++
      return found.text
    }
    return this.fail()
  }

  /** One name, or two with a point between. */
  names(): [string | null, string] {
    const first = this.name()
    return this.takes('.') ? [first, this.name()] : [null, first]
  }

  value(): Value {
    const found = this.next
    if (found?.kind !== 'parameter' && found?.kind !== 'text' && found?.kind !== 'number') return this.fail()
    this.at++
    return found.kind === 'parameter'
      ? { parameter: found.text }
      : { constant: found.text, isText: found.kind === 'text' }
  }

  list<T>(one: () => T): T[] {
    const all = [one()]
    while (this.takes(',')) all.push(one())
    return all
  }

  ended() {
    return this.next === undefined
  }
}

/** What the fields would show for a text, by the tables that the source lists. */
export function tableQueryOf(sql: string, known: Table[]): TableQuery | Unfit {
  try {
    return read(new Reader(tokensOf(sql)), known)
  } catch (error) {
    if (error instanceof UnfitSql) return { unfit: error.message }
    throw error
  }
}

type Named = [string | null, string]

function read(reader: Reader, known: Table[]): TableQuery {
  reader.needs('select')
  const chosen = reader.takes('*')
    ? null
    : reader.list((): { place: Named; as: string | null } => {
        const place = reader.names()
        return { place, as: reader.takes('as') ? reader.name() : null }
      })
  reader.needs('from')
  const tables: [UsedTable, ...UsedTable[]] = [tableRead(reader, known)]
  const placed = ([of, column]: Named): Place => {
    const [only] = tables
    const table = of === null && tables.length === 1 ? only : tables.find((each) => each.as === of)
    if (!table || !columnsOf(table, known).some((each) => each.name === column)) {
      throw new UnfitSql(of === null ? column : `${of}.${column}`)
    }
    return { of: table.as, column }
  }
  while (reader.takes('left', 'join') || reader.takes('left', 'outer', 'join')) {
    const table = tableRead(reader, known)
    if (tables.some((each) => each.as === table.as)) throw new UnfitSql(table.as)
    tables.push(table)
    reader.needs('on')
    do {
      const left = placed(reader.names())
      reader.needs('=')
      const right = placed(reader.names())
      table.on.push(left.of === table.as ? [right, left] : [left, right])
    } while (reader.takes('and'))
  }
  if (chosen === null && tables.length > 1) throw new UnfitSql('*')
  const columns =
    chosen === null
      ? columnsOf(tables[0], known).map(({ name }) => ({ of: tables[0].as, column: name, as: name }))
      : chosen.map(({ place, as }) => ({ ...placed(place), as: as ?? place[1] }))
  const filters: Filter[] = []
  if (reader.takes('where')) {
    do filters.push({ ...placed(reader.names()), ...filterRead(reader) })
    while (reader.takes('and'))
  }
  const order = reader.takes('order', 'by')
    ? reader.list(() => ({
        ...placed(reader.names()),
        descending: reader.takes('desc') || (reader.takes('asc'), false),
      }))
    : []
  if (!reader.ended()) reader.fail()
  return { tables, columns, filters, order }
}

function tableRead(reader: Reader, known: Table[]): UsedTable {
  const [schema, name] = reader.names()
  const found = known.filter((each) => each.name === name && each.schema === (schema ?? 'public'))[0]
  if (!found) throw new UnfitSql(schema === null ? name : `${schema}.${name}`)
  return { schema: found.schema, name, as: reader.takes('as') ? reader.name() : name, on: [] }
}

const comparisons = ['=', '<>', '>', '>=', '<', '<='] as const

function filterRead(reader: Reader): { operator: FilterOperator; values: Value[] } {
  if (reader.takes('is', 'not', 'null')) return { operator: 'is not null', values: [] }
  if (reader.takes('is', 'null')) return { operator: 'is null', values: [] }
  const many = reader.takes('in') ? 'in' : reader.takes('not', 'in') ? 'not in' : null
  if (many) {
    reader.needs('(')
    const values = reader.list(() => reader.value())
    reader.needs(')')
    return { operator: many, values }
  }
  const operator = comparisons.find((each) => reader.takes(each)) ?? reader.fail()
  return { operator, values: [reader.value()] }
}

const tableOf = (used: UsedTable, known: Table[]) =>
  known.find((each) => each.schema === used.schema && each.name === used.name)

export const columnsOf = (used: UsedTable, known: Table[]) => tableOf(used, known)?.columns ?? []

/** All columns of the tables in use, for a choice of one. */
export const places = (query: TableQuery, known: Table[]) =>
  query.tables.flatMap((used) => columnsOf(used, known).map(({ name, type }) => ({ of: used.as, column: name, type })))

/** How a choice names a column: with its table where there are several. */
export const placeName = ({ tables }: TableQuery, { of, column }: Place) =>
  tables.length === 1 ? column : `${of}.${column}`

/** All columns of one table. */
export function startingWith({ schema, name, columns }: Table): TableQuery {
  return {
    tables: [{ schema, name, as: name, on: [] }],
    columns: columns.map((column) => ({ of: name, column: column.name, as: column.name })),
    filters: [],
    order: [],
  }
}

/** A name that nothing has yet. */
export function unused(wanted: string, taken: string[]) {
  if (!taken.includes(wanted)) return wanted
  let number = 2
  while (taken.includes(`${wanted}_${number}`)) number++
  return `${wanted}_${number}`
}

export type Reached = { from: string; columns: string[]; table: UsedTable }

/** The tables that keys of those in use lead to and that are not joined by that key already. */
export function reachedFrom({ tables }: TableQuery, known: Table[]): Reached[] {
  const taken = tables.map((each) => each.as)
  return tables.flatMap((used) =>
    (tableOf(used, known)?.references ?? []).flatMap((reference): Reached[] => {
      const target = known.find((each) => each.schema === reference.schema && each.name === reference.table)
      const isJoined = tables.some(({ on }) =>
        on.some(([left]) => left.of === used.as && left.column === reference.columns[0]),
      )
      if (!target || isJoined) return []
      const wanted = taken.includes(target.name) ? `${reference.columns[0] ?? ''}_${target.name}` : target.name
      const as = unused(wanted, taken)
      const on = reference.columns.map((column, index): [Place, Place] => [
        { of: used.as, column },
        { of: as, column: reference.otherColumns[index] ?? '' },
      ])
      return [
        { from: used.as, columns: reference.columns, table: { schema: target.schema, name: target.name, as, on } },
      ]
    }),
  )
}

/** With a column more or less; a name that another column has is told apart by the table's. */
export function withColumn(query: TableQuery, place: Place, isChosen: boolean): TableQuery {
  const others = query.columns.filter((each) => !(each.of === place.of && each.column === place.column))
  if (!isChosen) return { ...query, columns: others }
  const taken = others.map((each) => each.as)
  const as = taken.includes(place.column) ? unused(`${place.of}_${place.column}`, taken) : place.column
  return { ...query, columns: [...query.columns, { ...place, as }] }
}

/** Without a table, those reached through it, and all that is of them. */
export function withoutTable(query: TableQuery, as: string): TableQuery {
  const gone = new Set([as])
  const [first, ...joined] = query.tables
  for (const table of joined) if (table.on.some(([left]) => gone.has(left.of))) gone.add(table.as)
  const stays = ({ of }: Place) => !gone.has(of)
  return {
    tables: [first, ...joined.filter((each) => !gone.has(each.as))],
    columns: query.columns.filter(stays),
    filters: query.filters.filter(stays),
    order: query.order.filter(stays),
  }
}

/** The type of a parameter that is compared with a column. */
export function parameterTypeOf(columnType: string): ParameterType {
  const type = columnType.toLowerCase()
  if (/^(small|big)?(int(?!erval)|serial)|^numeric|^decimal|^float|^double|^real|^money/.test(type)) return 'number'
  if (type.startsWith('bool')) return 'truth'
  if (type === 'date') return 'date'
  if (/^timestamptz|^timestamp.*with time zone/.test(type)) return 'instant'
  return type.startsWith('timestamp') || type.startsWith('datetime') ? 'timestamp' : 'text'
}

const suffix: Partial<Record<FilterOperator, string>> = { '>': '_from', '>=': '_from', '<': '_until', '<=': '_until' }

/** A parameter for the value of a filter, so that each rule may give its own. */
export function parameterFor(filter: Filter, columnType: string, parameters: Record<string, Parameter>) {
  const wanted = `${filter.column}${suffix[filter.operator] ?? ''}`
    .toLowerCase()
    .replaceAll(/\W/g, '_')
    .replace(/^(?=\d)/, '_')
  const name = unused(wanted, Object.keys(parameters))
  const type = parameterTypeOf(columnType)
  const parameter: Parameter = {
    ...(type === 'text' ? {} : { type }),
    ...(filter.operator.endsWith('in') ? { multiple: true } : {}),
  }
  return { name, parameter }
}
