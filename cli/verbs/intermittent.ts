import { intermittent as judged, intermittentSchema } from '#core/bench/intermittent'
import { tidy } from '#core/line/report'
import { InputError } from '#core/quantity/inputError'
import { readQuantity } from '#core/quantity/read'
import { columnsIn } from '../columns'
import { defineVerb } from '../verb'

function ohmIn(cell: string, line: number): number | null {
  if (/^open$/i.test(cell)) return null
  try {
    return readQuantity('resistance', cell)
  }
  catch (error) {
    if (!(error instanceof InputError)) throw error
    throw new InputError(`Line ${line}: ${error.message} Ohms as 3.4 or 2k2, or the word open.`, 0, [])
  }
}

export const intermittent = defineVerb({
  does: 'whether a coil comes and goes, by readings over days (columns at, ohm; open allowed), how sure, and how many readings more would settle it',
  words: ['FILE.csv'],
  flags: { 'nominal-ohm': '4' },
  example: 'intermittent megaphone.csv --nominal-ohm 4',
  answer: intermittentSchema,
  run: ({ words: [path], number }, { readText }) => tidy(judged(
    columnsIn(readText(path!), ['at', 'ohm']).map(({ cells: [at, ohm], line }) => ({ at: at!, ohm: ohmIn(ohm!, line) })),
    number('nominal-ohm', { least: 1, most: 1000 }),
  )),
})
