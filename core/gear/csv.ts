import Papa from 'papaparse'
import { z } from 'zod'
import { InputError } from '#core/quantity/inputError'
import { drained } from '#core/quantity/steps'
import { readCell, unitInHead, voltsInHead, writeCell } from './cells'
import { columnsOf, GEAR_KINDS, MODEL_SCHEMAS, unstatedModel, type Column, type GearKind, type Models } from './models'

/** Gear as a table of text, out and in: RFC 4180 by a library; cells that a spreadsheet would run are kept from it. */

/** A cell that begins so would be run as a formula; an apostrophe before it keeps it text. Source: OWASP, CSV injection. */
const RUNS = /^'*[=+\-@\t\r\n＝＋－＠]/
const guard = (text: string) => RUNS.test(text) ? `'${text}` : text
const unguard = (text: string) => text.startsWith('\'') && RUNS.test(text) ? text.slice(1) : text

export const headOf = ({ label, unit }: Pick<Column, 'label' | 'unit'>) => unit === '' ? label : `${label} (${unit})`

export function writeCsv<K extends GearKind>(kind: K, models: readonly Models[K][]): string {
  const columns = columnsOf(kind)
  const rows = models.map(model => columns.map(column => guard(writeCell(column, model[column.key as keyof Models[K]]))))
  return Papa.unparse([columns.map(c => guard(headOf(c))), ...rows], { newline: '\r\n' }) + '\r\n'
}

const DELIMITERS = [',', ';', '\t', '|'] as const
/** Rows that are looked at for it. */
const LOOKED_AT = 6

/**
 * What parts the cells: what gives most heads by which the library knows a column; of those that give none, what gives the most columns that all rows have. (A
 * guess by the rows alone took a comma for it, or a letter, where a row has texts with commas, or a table but one row.)
 */
function delimiterOf(text: string): string {
  const scored = DELIMITERS.map((delimiter) => {
    const rows = Papa.parse<string[]>(text, { delimiter, preview: LOOKED_AT }).data.filter(cells => cells.some(cell => cell.trim() !== ''))
    const heads = (rows[0] ?? []).map(cell => unguard(cell).trim())
    const known = Math.max(...GEAR_KINDS.map(kind => guessMapping(kind, heads).filter(key => key !== null).length))
    const isEven = rows.every(cells => cells.length === heads.length)
    return { delimiter, known: heads.length > 1 ? known : 0, columns: isEven ? heads.length : 1 }
  })
  return scored.sort((a, b) => b.known - a.known || b.columns - a.columns)[0]!.delimiter
}

/** A file as it is read: its heads, and rows of text as wide as they are. */
export interface Table { heads: string[], rows: { line: number, cells: string[] }[] }

/** @throws InputError for what is no table at all */
export function readTable(text: string): Table {
  const plain = text.replace(/^\uFEFF/, '')
  const { data, errors } = Papa.parse<string[]>(plain, { delimiter: delimiterOf(plain) })
  const broken = errors.find(e => e.type === 'Quotes')
  if (broken) throw new InputError(`Row ${(broken.row ?? 0) + 1}: a quotation mark is not closed.`, 0, [])
  const rows = data.map((cells, k) => ({ line: k + 1, cells: cells.map(cell => unguard(cell).trim()) })).filter(({ cells }) => cells.some(cell => cell !== ''))
  const [head, ...rest] = rows
  if (!head) throw new InputError('There is nothing in it.', 0, [])
  if (rest.length === 0) throw new InputError('It has column names and no rows.', 0, [])
  return { heads: head.cells, rows: rest }
}

/** Which column of the library each column of a file is; null for one that is left out. */
export type Mapping = (string | null)[]

/** Guessed by the names of the heads; of two that fit, the one that names it whole is taken, and none twice. */
export function guessMapping(kind: GearKind, heads: readonly string[]): Mapping {
  const columns = columnsOf(kind)
  const plain = heads.map(h => h.toLowerCase().replace(/[_()[\]]+/g, ' ').replace(/\s+/g, ' ').trim())
  const taken = new Set<string>()
  const mapping: Mapping = heads.map(() => null)
  const pass = (fits: (head: string, column: Column, k: number) => boolean) => plain.forEach((head, k) => {
    if (mapping[k] !== null || head === '') return
    // A dial for each line: several columns are its taps.
    const column = columns.find(c => (!taken.has(c.key) || (c.cell === 'scales' && voltsInHead(heads[k]!) !== null)) && fits(head, c, k))
    if (!column) return
    taken.add(column.key)
    mapping[k] = column.key
  })
  pass((_, c, k) => heads[k] === headOf(c))
  pass((head, c) => head === c.label.toLowerCase() || head === c.key.toLowerCase())
  pass((head, c) => c.also !== '' && new RegExp(c.also).test(head))
  return mapping
}

const badCell = z.strictObject({ row: z.int(), column: z.string(), message: z.string() })
export type BadCell = z.infer<typeof badCell>
/** What a check of a file says. */
export const gearCheckSchema = z.strictObject({ rows: z.int(), good: z.int(), bad: z.array(badCell) })
export type GearCheck = z.infer<typeof gearCheckSchema>
export interface GearRead<K extends GearKind> {
  /** Every row that can be taken, whole. */
  good: { row: number, model: Models[K] }[]
  /** Rows with something that cannot be read: nothing of them is taken. */
  bad: BadCell[]
}

function headUnitOf({ cell, unit }: Column, head: string): string {
  if (cell === 'cable') return /awg|mm2|mm²/i.exec(head)?.[0] ?? ''
  return cell === 'scales' ? String(voltsInHead(head) ?? '') : unitInHead(head, unit)
}

/** Reads the rows of a table by a mapping. */
export function readGear<K extends GearKind>(kind: K, table: Table, mapping: Mapping): GearRead<K> {
  return drained(readGearInSteps(kind, table, mapping))
}

/** The same, a row a step: ten thousand of them hold a page for half a second. */
export function* readGearInSteps<K extends GearKind>(kind: K, { heads, rows }: Table, mapping: Mapping): Generator<void, GearRead<K>> {
  const columns = columnsOf(kind)
  const used = mapping.flatMap((key, k) => {
    const column = columns.find(c => c.key === key)
    return column ? [{ column, k, headUnit: headUnitOf(column, heads[k]!) }] : []
  })
  const read: GearRead<K> = { good: [], bad: [] }
  if (!used.some(u => u.column.key === 'name')) return { good: [], bad: rows.map(({ line }) => ({ row: line, column: 'name', message: 'No column is the name.' })) }
  for (const { line, cells } of rows) {
    yield
    const model: Record<string, unknown> = { ...unstatedModel(kind, '') }
    const bad: BadCell[] = []
    for (const { column, k, headUnit } of used) {
      try {
        const value = readCell(column, cells[k] ?? '', headUnit)
        model[column.key] = column.cell === 'scales' ? [...model[column.key] as unknown[], ...value as unknown[]] : value
      }
      catch (error) {
        if (!(error instanceof InputError)) throw error
        bad.push({ row: line, column: heads[k]!, message: error.message })
      }
    }
    const whole = bad.length === 0 ? MODEL_SCHEMAS[kind].safeParse(model) : null
    if (whole?.success) read.good.push({ row: line, model: whole.data as Models[K] })
    else read.bad.push(...(bad.length > 0 ? bad : whole!.error!.issues.slice(0, 1).map(i => ({ row: line, column: String(i.path[0] ?? ''), message: `${i.message}.` }))))
  }
  return read
}

/** The bad rows as they came, with what is wrong with each: to be mended and taken in again. */
export function writeBadRows({ heads, rows }: Table, bad: readonly BadCell[]): string {
  const reasons = new Map<number, string[]>()
  for (const { row, column, message } of bad) reasons.set(row, [...reasons.get(row) ?? [], `${column}: ${message}`])
  const kept = rows.filter(({ line }) => reasons.has(line)).map(({ line, cells }) => [...heads.map((_, k) => guard(cells[k] ?? '')), guard(reasons.get(line)!.join(' '))])
  return Papa.unparse([[...heads.map(guard), 'what is wrong'], ...kept], { newline: '\r\n' }) + '\r\n'
}
