import { t } from '../../messages'
import type { RuleDocument } from './api'

/** What is calculated of the rows of a group. */
export type Measured = {
  kind: MeasureKind
  /** As conditions write it; nothing where the kind needs none. */
  column: string
  percent: string
  /** Only rows for which this is true are counted; the empty text for all. */
  where: string
}

export const measureKinds = [
  ['rows', t('editor.measure_rows')],
  ['sum', t('editor.measure_sum')],
  ['avg', t('editor.measure_average')],
  ['min', t('editor.measure_lowest')],
  ['max', t('editor.measure_highest')],
  ['median', t('editor.measure_median')],
  ['percentile', t('editor.measure_percentile')],
  ['stddev', t('editor.measure_deviation')],
  ['present', t('editor.measure_present')],
  ['different', t('editor.measure_different')],
  ['share', t('editor.measure_share')],
  ['formula', t('editor.measure_formula')],
] as const
export type MeasureKind = (typeof measureKinds)[number][0]

export const needsColumn = (kind: MeasureKind) => !['rows', 'share', 'formula'].includes(kind)
/** Of what other columns hold there is no sum and no mean. */
export const needsNumbers = (kind: MeasureKind) => ['sum', 'avg', 'median', 'percentile', 'stddev'].includes(kind)

const column = '([A-Za-z_][A-Za-z0-9_]*|"(?:[^"]|"")+")'
const ofColumn = new RegExp(`^(sum|avg|min|max|median|stddev)\\( *${column} *\\)$`, 'i')
const percentile = new RegExp(`^percentile\\( *${column} *, *([0-9.]+) *\\)$`, 'i')
const counted = new RegExp(`^count\\( *(distinct +)?${column} *\\)$`, 'i')

/** Where the bracket at `from` is closed; -1 where it is not. Brackets in texts and names are none. */
function closing(text: string, from: number) {
  let depth = 0
  let quote = ''
  for (let i = from; i < text.length; i++) {
    const sign = text.charAt(i)
    if (quote) quote = sign === quote ? '' : quote
    else if (sign === "'" || sign === '"') quote = sign
    else if (sign === '(') depth++
    else if (sign === ')' && --depth === 0) return i
  }
  return -1
}

/** The calculation and the condition in `calculation filter (where condition)`. */
function filtered(text: string): [string, string] {
  const [start, calculation] = /^([a-z_]+\(.*?\)) *filter *\( *where +/is.exec(text) ?? []
  if (start === undefined || calculation === undefined) return [text, '']
  const from = text.indexOf('(', calculation.length)
  return closing(text, from) === text.length - 1 ? [calculation, text.slice(start.length, -1).trim()] : [text, '']
}

/** A measure as its fields; one that they do not hold is a formula, which has its text in `where`. */
export function measureOf(text: string): Measured {
  const whole = text.trim()
  const formula: Measured = { kind: 'formula', column: '', percent: '', where: whole }
  const share = /^share\( *where +/i.exec(whole)
  if (share)
    return closing(whole, whole.indexOf('(')) === whole.length - 1
      ? { ...formula, kind: 'share', where: whole.slice(share[0].length, -1).trim() }
      : formula
  const [calculation, where] = filtered(whole)
  if (/^count\( *\)$/i.test(calculation)) return { ...formula, kind: 'rows', where }
  const [, distinct, of] = counted.exec(calculation) ?? []
  if (of !== undefined) return { ...formula, kind: distinct ? 'different' : 'present', column: of, where }
  const [, ranked, percent] = percentile.exec(calculation) ?? []
  if (ranked !== undefined && percent !== undefined) return { kind: 'percentile', column: ranked, percent, where }
  const [, name, one] = ofColumn.exec(calculation) ?? []
  const kind = measureKinds.find(([code]) => code === name?.toLowerCase())?.[0]
  return kind && one !== undefined ? { ...formula, kind, column: one, where } : formula
}

const calculation = ({ kind, column: of, percent }: Measured) => {
  switch (kind) {
    case 'rows':
      return 'count()'
    case 'present':
      return `count(${of})`
    case 'different':
      return `count(distinct ${of})`
    case 'percentile':
      return `percentile(${of}, ${percent})`
    default:
      return `${kind}(${of})`
  }
}

export function measureText(measured: Measured): string {
  const { kind, where } = measured
  if (kind === 'formula') return where
  if (kind === 'share') return `share(where ${where})`
  return where.trim() === '' ? calculation(measured) : `${calculation(measured)} filter (where ${where})`
}

/** The measure with another calculation: what it has no use for is left out, what it needs is filled in. */
export function withKind(measured: Measured, kind: MeasureKind, columns: { name: string; type: string }[]): Measured {
  if (kind === 'formula') return { kind, column: '', percent: '', where: measureText(measured) }
  const own = measured.kind === 'formula' ? '' : measured.where
  const fitting = columns.filter(({ type }) => !needsNumbers(kind) || type === 'number')
  const column = fitting.some(({ name }) => name === measured.column) ? measured.column : (fitting[0]?.name ?? '')
  return {
    kind,
    column: needsColumn(kind) ? column : '',
    percent: kind === 'percentile' ? measured.percent || '95' : '',
    where: kind === 'share' && own === '' ? `${columns[0]?.name ?? ''} is null` : own,
  }
}

/** A name that conditions can use and no other measure or column has. */
export function freshName(measured: Measured, taken: string[]): string {
  const plain = measured.column.replaceAll(/[^A-Za-z0-9_]+/g, '_').replace(/^_|_$/g, '')
  const base =
    measured.kind === 'rows'
      ? 'number_of_rows'
      : [measured.kind === 'formula' ? 'measure' : measured.kind, plain].filter(Boolean).join('_').toLowerCase()
  for (let number = 1; ; number++) {
    const name = number === 1 ? base : `${base}_${number}`
    if (!taken.includes(name)) return name
  }
}

/**
 * What is evaluated: `rows`, `groups` of them, or the `whole` result. Fields of groups would be refused where rows are evaluated; the whole result is one group that is always there.
 */
export function evaluating(
  how: string,
  columns: { name: string; type: string }[],
  document: RuleDocument,
): Partial<RuleDocument> {
  const byText = columns.find((column) => column.type === 'text')?.name ?? columns[0]?.name ?? ''
  const without = (...fields: ('per' | 'measures' | 'expected_groups')[]) =>
    Object.fromEntries(fields.map((field) => [field, undefined])) as Partial<RuleDocument>
  if (how === 'rows') return without('per', 'measures', 'expected_groups')
  const measures = Object.keys(document.measures ?? {}).length > 0 ? {} : { measures: { how_many: 'count()' } }
  return how === 'whole' ? { per: [], ...measures, ...without('expected_groups') } : { per: [byText], ...measures }
}
