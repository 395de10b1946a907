import { readTable } from '#core/gear/csv'
import { InputError } from '#core/quantity/inputError'
import { NUMBER, numberOf } from '#core/quantity/number'

/** Columns of a table by their names, in any order; others are left alone. */
export function columnsIn(text: string, names: readonly string[]): { cells: string[], line: number }[] {
  const { heads, rows } = readTable(text)
  const at = names.map(name => heads.findIndex(head => head.toLowerCase() === name))
  const missing = names.filter((_, k) => at[k] === -1)
  if (missing.length > 0) throw new InputError(`There is no column ${missing.map(m => `“${m}”`).join(' and ')}: the first line names them.`, 0, [names.join(',')])
  return rows.map(({ cells, line }) => ({ cells: at.map(k => cells[k] ?? ''), line }))
}

const SIGNED = new RegExp(`^([-\u2212])?(${NUMBER})$`)

/** The same in numbers. @throws InputError with the line */
export function numbersIn(text: string, names: readonly string[]): number[][] {
  return columnsIn(text, names).map(({ cells, line }) => cells.map((cell, k) => {
    // A cold garage has a sign.
    const [, sign, digits] = SIGNED.exec(cell) ?? []
    if (digits === undefined) throw new InputError(`Line ${line}: “${cell}” is no number of ${names[k]}.`, 0, [])
    return (sign ? -1 : 1) * numberOf(digits)
  }))
}
