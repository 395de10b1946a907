import { guessMapping, headOf, type BadCell, type Mapping } from '#core/gear/csv'
import { columnsOf, type GearKind } from '#core/gear/models'

/** Which columns of a file are which, guessed and remembered; and what to do with its rows. */

/** What was chosen before for heads of these names; '' for one that was left out. */
export type Remembered = Record<string, string>

/** The guess, with what was chosen before for the same heads. */
export function mappingFor(kind: GearKind, heads: readonly string[], remembered: Remembered): Mapping {
  const known = new Set(columnsOf(kind).map(c => c.key))
  const guess = guessMapping(kind, heads)
  const chosen = heads.map((head, k) => head in remembered ? (known.has(remembered[head]!) ? remembered[head]! : null) : guess[k]!)
  // What was chosen counts before what is guessed: no column is meant twice.
  const taken = new Set(heads.flatMap((head, k) => head in remembered && chosen[k] !== null ? [chosen[k]] : []))
  return chosen.map((key, k) => key !== null && !(heads[k]! in remembered) && taken.has(key) ? null : key)
}

/** One column of the file is another now; whichever was it before is left out, but for taps: several columns may be a dial’s. */
export function remapped(mapping: Mapping, at: number, key: string | null): Mapping {
  return mapping.map((before, k) => k === at ? key : before === key && key !== 'scales' ? null : before)
}

/** The same complaint of many rows is one, with how many and an example. */
export interface Complaint { column: string, message: string, rows: number[] }
export function complaintsOf(bad: readonly BadCell[]): Complaint[] {
  const found = new Map<string, Complaint>()
  for (const { row, column, message } of bad) {
    const key = `${column} ${message.replace(/“[^”]*”/, '')}`
    const known = found.get(key)
    if (known) known.rows.push(row)
    else found.set(key, { column, message, rows: [row] })
  }
  return [...found.values()].sort((a, b) => b.rows.length - a.rows.length)
}
/** "rows 3, 5 and 28 more" */
export function rowsText(rows: readonly number[]): string {
  if (rows.length === 1) return `row ${rows[0]}`
  return rows.length <= 4 ? `rows ${rows.join(', ')}` : `rows ${rows.slice(0, 3).join(', ')} and ${rows.length - 3} more`
}

export const remember = (heads: readonly string[], mapping: Mapping): Remembered => Object.fromEntries(heads.map((head, k) => [head, mapping[k] ?? '']))

/** "taken as weight (kg)", for the list of a column's choices. */
export const mappingChoices = (kind: GearKind): { value: string, label: string }[] =>
  [{ value: '', label: 'left out' }, ...columnsOf(kind).map(c => ({ value: c.key, label: headOf(c) }))]
