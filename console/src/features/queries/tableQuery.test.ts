import type { Table } from './api'
import {
  parameterFor,
  parameterTypeOf,
  reachedFrom,
  sqlOf,
  startingWith,
  tableQueryOf,
  withColumn,
  withoutTable,
  type TableQuery,
} from './tableQuery'

const columns = (...names: string[]) => names.map((name) => ({ name, type: 'text' }))
const terminal: Table = { schema: 'public', name: 'terminal', columns: columns('code', 'name'), references: [] }
const route: Table = {
  schema: 'public',
  name: 'route',
  columns: columns('code', 'from_terminal', 'to_terminal'),
  references: [
    { columns: ['from_terminal'], schema: 'public', table: 'terminal', otherColumns: ['code'] },
    { columns: ['to_terminal'], schema: 'public', table: 'terminal', otherColumns: ['code'] },
  ],
}
const sailing: Table = {
  schema: 'public',
  name: 'sailing',
  columns: columns('number', 'route', 'planned', 'order', 'Kaptein Å'),
  references: [{ columns: ['route'], schema: 'public', table: 'route', otherColumns: ['code'] }],
}
const elsewhere: Table = { schema: 'old times', name: 'sailing', columns: columns('number'), references: [] }
const known = [terminal, route, sailing, elsewhere]

const shown = (sql: string): TableQuery => {
  const query = tableQueryOf(sql, known)
  if ('unfit' in query) throw new Error(`unfit: ${query.unfit}`)
  return query
}
const unfit = (sql: string) => {
  const query = tableQueryOf(sql, known)
  return 'unfit' in query ? query.unfit : null
}

test('a table gives all its columns, names in quotes where SQL needs them', () => {
  expect(sqlOf(startingWith(sailing))).toBe(
    'select number,\n       route,\n       planned,\n       "order",\n       "Kaptein Å"\nfrom sailing',
  )
  expect(sqlOf(startingWith(elsewhere))).toBe('select number\nfrom "old times".sailing')
})

test('related tables are joined by their keys, two by the same table under names of their own', () => {
  let query = startingWith(sailing)
  expect(reachedFrom(query, known).map(({ table }) => table.as)).toEqual(['route'])
  for (let joined = 0; joined < 3; joined++) {
    const [next] = reachedFrom(query, known)
    if (next) query = { ...query, tables: [...query.tables, next.table] }
  }
  expect(reachedFrom(query, known)).toEqual([])
  query = withColumn({ ...query, columns: [] }, { of: 'terminal', column: 'name' }, true)
  query = withColumn(query, { of: 'to_terminal_terminal', column: 'name' }, true)
  expect(sqlOf(query)).toBe(
    [
      'select terminal.name,',
      '       to_terminal_terminal.name as to_terminal_terminal_name',
      'from sailing',
      'left join route on sailing.route = route.code',
      'left join terminal on route.from_terminal = terminal.code',
      'left join terminal as to_terminal_terminal on route.to_terminal = to_terminal_terminal.code',
    ].join('\n'),
  )
  expect(shown(sqlOf(query))).toEqual(query)
  expect(withoutTable(query, 'route').tables).toHaveLength(1)
  expect(withoutTable(query, 'route').columns).toEqual([])
})

test('SQL that a person wrote is shown if it has no more than the fields', () => {
  const query = shown(`SELECT Number AS "Sailing No", planned
    FROM public.sailing WHERE planned >= :since AND route IN ('A', 'it''s') and number != 5
    and "order" IS NOT NULL ORDER BY planned DESC, number ASC;`)
  expect(query.columns).toEqual([
    { of: 'sailing', column: 'number', as: 'Sailing No' },
    { of: 'sailing', column: 'planned', as: 'planned' },
  ])
  expect(query.filters.map(({ operator, values }) => [operator, values])).toEqual([
    ['>=', [{ parameter: 'since' }]],
    [
      'in',
      [
        { constant: 'A', isText: true },
        { constant: "it's", isText: true },
      ],
    ],
    ['<>', [{ constant: '5', isText: false }]],
    ['is not null', []],
  ])
  expect(query.order.map(({ column, descending }) => [column, descending])).toEqual([
    ['planned', true],
    ['number', false],
  ])
  expect(shown('select * from sailing').columns).toHaveLength(5)
})

test.each([
  ['select count(*) from sailing', '('],
  ['select number from sailing s', 's'],
  ['select number from sailing where planned >= :since or route is null', 'or'],
  ['select number from sailing -- the ones that left', '--'],
  ['select number from sailing /* all */', '/*'],
  ['select distinct number from sailing', 'distinct'],
  ['select number from sailing limit 5', 'limit'],
  ['select number::text from sailing', '::text'],
  ['select nothing from sailing', 'nothing'],
  ['select number from ferry', 'ferry'],
  ['select number from sailing union select code from route', 'union'],
  ['select number from sailing where lower(route) = :route', 'lower'],
  ['select number from sailing where planned > date :since', 'date'],
  ['select * from sailing left join route on sailing.route = route.code', '*'],
  ['select number from sailing left join sailing on sailing.number = sailing.number', 'sailing'],
  ["select number from sailing where route = e'\\n'", 'e'],
  ['select number from sailing; select 1', ';'],
  ['select number, from sailing', 'from'],
  ['select number', ''],
])('%s has no fields because of %s', (sql, because) => {
  expect(unfit(sql)).toBe(because)
})

/** A small generator, so that a failure can be repeated. */
function draws(seed: number) {
  let state = seed
  return (below: number) => {
    state = (state * 1103515245 + 12345) % 2147483648
    return Math.floor((state / 2147483648) * below)
  }
}

test('whatever is chosen is read back from its SQL as it was', () => {
  for (let seed = 1; seed <= 500; seed++) {
    const draw = draws(seed)
    let query: TableQuery = { ...startingWith([sailing, route, elsewhere][draw(3)] ?? sailing), columns: [] }
    for (let step = 0; step < 12; step++) {
      const at = query.tables[draw(query.tables.length)] ?? query.tables[0]
      const table = known.find(({ schema, name }) => schema === at.schema && name === at.name)
      const place = { of: at.as, column: table?.columns[draw(table.columns.length)]?.name ?? '' }
      const what = draw(5)
      if (what === 0) {
        const reached = reachedFrom(query, known)
        const next = reached[draw(reached.length)]
        if (next) query = { ...query, tables: [...query.tables, next.table] }
      } else if (what === 1) query = { ...query, order: [...query.order, { ...place, descending: draw(2) === 0 }] }
      else if (what === 2) {
        const values = [
          { parameter: `p${step}` },
          { constant: ["it's", '-- no', 'Å'][draw(3)] ?? '', isText: true },
          { constant: '-3.5', isText: false },
        ]
        const operator = (['=', '<', 'in', 'not in', 'is null'] as const)[draw(5)] ?? '='
        const given = operator === 'is null' ? [] : operator.endsWith('in') ? values : values.slice(draw(3)).slice(0, 1)
        query = { ...query, filters: [...query.filters, { ...place, operator, values: given }] }
      } else if (what === 3 && query.tables.length > 1) query = withoutTable(query, query.tables.at(-1)?.as ?? '')
      else query = withColumn(query, place, draw(4) > 0)
    }
    if (query.columns.length === 0) continue
    expect(shown(sqlOf(query))).toEqual(query)
  }
})

test('the value of a filter is a parameter of the type of its column', () => {
  expect(
    ['int8', 'numeric', 'bool', 'date', 'timestamptz', 'timestamp', 'varchar', 'interval', 'DATETIME'].map(
      parameterTypeOf,
    ),
  ).toEqual(['number', 'number', 'truth', 'date', 'instant', 'timestamp', 'text', 'text', 'timestamp'])
  const filter = { of: 'sailing', column: 'Kaptein Å', operator: '>=' as const, values: [] }
  expect(parameterFor(filter, 'timestamptz', { kaptein___from: {} })).toEqual({
    name: 'kaptein___from_2',
    parameter: { type: 'instant' },
  })
  expect(parameterFor({ ...filter, column: 'route', operator: 'not in' }, 'text', {})).toEqual({
    name: 'route',
    parameter: { multiple: true },
  })
})
