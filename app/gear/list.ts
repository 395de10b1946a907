import { writeCell } from '#core/gear/cells'
import { headOf } from '#core/gear/csv'
import { columnsOf, type Column, type GearKind } from '#core/gear/models'
import { LIST_KEYS, type GearRow } from '#core/gear/protocol'
import { writeNumber } from '#core/quantity/write'

/** What a table of gear shows: columns, order, and which of its rows; pure, so that ten thousand of them can be tried. */

export interface ListColumn { column: Column, head: string, at: number, isNumber: boolean }

export function listColumns(kind: GearKind): ListColumn[] {
  return LIST_KEYS[kind].map((key, at) => {
    const column = columnsOf(kind).find(c => c.key === key)!
    return { column, head: headOf(column), at, isNumber: column.cell === 'number' }
  })
}

/** A cell as it is read in a table: numbers with no more figures than matter. */
export function cellText({ column }: ListColumn, value: unknown): string {
  if (column.cell === 'choice' && typeof value === 'string') return value.replace('-', ' ')
  return column.cell === 'number' && typeof value === 'number' ? writeNumber(value, 4) : writeCell(column, value)
}

export interface Asked { search: string, sort: string, isDown: boolean, withRetired: boolean, choice: string | null }
export const USUAL_ASK: Asked = { search: '', sort: 'name', isDown: false, withRetired: false, choice: null }

/** Words as they are searched by: lower case, one space between them. */
const plainWords = (text: string): string => text.toLowerCase().replace(/[\s-]+/g, ' ')

/** The words of a row, for searching; made once a row. */
const searched = new WeakMap<GearRow, string>()
function wordsOf(row: GearRow, columns: readonly ListColumn[]): string {
  let words = searched.get(row)
  if (words === undefined) {
    words = ` ${plainWords(columns.map(c => `${writeCell(c.column, row.values[c.at])}${c.column.unit === '' ? '' : ` ${c.column.unit}`}`).join(' '))}`
    searched.set(row, words)
  }
  return words
}

/** Makes the words of all rows, a few hundred a step: the first letter typed then waits for none. */
export function* wordsInSteps(kind: GearKind, rows: readonly GearRow[]): Generator<void> {
  const columns = listColumns(kind)
  for (const [k, row] of rows.entries()) {
    wordsOf(row, columns)
    if (k % 300 === 299) yield
  }
}

const byText = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })
function compare(a: unknown, b: unknown, column: Column): number {
  if (typeof a === 'number' && typeof b === 'number') return a - b
  return byText.compare(writeCell(column, a), writeCell(column, b))
}
const isStated = (value: unknown) => value !== null && value !== '' && !(Array.isArray(value) && value.length === 0)

/** The rows that are asked for, in order. Every word typed has to begin a word of a row; what is not stated stands last, whichever way. */
export function shownRows(kind: GearKind, rows: readonly GearRow[], { search, sort, isDown, withRetired, choice }: Asked): GearRow[] {
  const columns = listColumns(kind)
  const words = plainWords(search).split(' ').filter(Boolean)
  const isFound = (row: GearRow) => words.length === 0 || words.every(word => wordsOf(row, columns).includes(` ${word}`))
  const found = rows.filter(row => (withRetired || !row.isRetired) && (choice === null || row.values[1] === choice) && isFound(row))
  const by = columns.find(c => c.column.key === sort)
  // The rows come by their names already.
  if (!by || (sort === 'name' && !isDown)) return found
  return found.sort((a, b) => {
    const [x, y] = [a.values[by.at], b.values[by.at]]
    if (isStated(x) !== isStated(y)) return isStated(x) ? -1 : 1
    return (isDown ? -1 : 1) * compare(x, y, by.column)
  })
}

/**
 * How far a row is from what was typed: a word of its name counts before one of its figures, a whole word before the beginning of a longer one ("70" is
 * 70 W before 70.71 V).
 */
function farness(row: GearRow, words: readonly string[], columns: readonly ListColumn[]): number {
  const name = ` ${plainWords(String(row.values[0]))} `
  const all = `${wordsOf(row, columns)} `
  return words.reduce((sum, word) => sum + (name.includes(` ${word} `) ? 0 : name.includes(` ${word}`) ? 1 : all.includes(` ${word} `) ? 2 : 3), 0)
}

/** Models for a few words typed, the nearest to them first; of equals those that the job has already, then those taken last, then all others by name. */
interface First { used: readonly string[], recent: readonly string[] }
export function offered(kind: GearKind, rows: readonly GearRow[], search: string, first: First, most = 8): GearRow[] {
  const found = shownRows(kind, rows, { ...USUAL_ASK, search })
  const rank = ({ id }: GearRow) => first.used.includes(id) ? 0 : first.recent.includes(id) ? 1 + first.recent.indexOf(id) : 1000
  const words = plainWords(search).split(' ').filter(Boolean)
  const columns = listColumns(kind)
  const far = new Map(found.map(row => [row, farness(row, words, columns)]))
  return found.sort((a, b) => far.get(a)! - far.get(b)! || rank(a) - rank(b)).slice(0, most)
}

/** The fields in which models differ, with what each says: first all that differs, then nothing more. */
export function differences(kind: GearKind, bodies: readonly object[]): { column: Column, says: string[] }[] {
  return columnsOf(kind).flatMap((column) => {
    const says = bodies.map(body => writeCell(column, (body as Record<string, unknown>)[column.key]))
    return new Set(says).size > 1 ? [{ column, says }] : []
  })
}

/** What a column takes at least, px, with the gap beside it: figures, lists of taps or outputs, words. */
export const columnPx = ({ isNumber, column }: ListColumn): number => 12 + (isNumber ? 72 : column.cell === 'scales' || column.cell === 'outputs' ? 150 : 96)
/** The name, the mark before it and the count of jobs behind it. */
const FIXED_PX = 210 + 44 + 56 + 36

/**
 * The columns that are shown: those chosen, else as many as the window has room for, in the order of the list; the name always.
 */
export function shownColumns(columns: readonly ListColumn[], widthPx: number, chosen: readonly string[] | null): ListColumn[] {
  const [name, ...others] = columns as [ListColumn, ...ListColumn[]]
  if (chosen) return [name, ...others.filter(c => chosen.includes(c.column.key))]
  let left = widthPx - FIXED_PX
  const fits = new Set<ListColumn>()
  for (const column of others) {
    left -= columnPx(column)
    if (left < 0) break
    fits.add(column)
  }
  return [name, ...others.filter(c => fits.has(c))]
}
