import { guessMapping, headOf, type Mapping } from '#core/gear/csv'
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

/** One column of the file is another now; whichever was it before is left out. */
export function remapped(mapping: Mapping, at: number, key: string | null): Mapping {
  return mapping.map((before, k) => k === at ? key : before === key ? null : before)
}

export const remember = (heads: readonly string[], mapping: Mapping): Remembered => Object.fromEntries(heads.map((head, k) => [head, mapping[k] ?? '']))

/** "taken as weight (kg)", for the list of a column's choices. */
export const mappingChoices = (kind: GearKind): { value: string, label: string }[] =>
  [{ value: '', label: 'left out' }, ...columnsOf(kind).map(c => ({ value: c.key, label: headOf(c) }))]
