import { distance } from 'fastest-levenshtein'
import { InputError } from '#core/quantity/inputError'

/** Words of a typed line that are worth mending; shorter ones are as near to each other as to a slip. */
const WORDS = [
  'parallel', 'series', 'speaker', 'speakers', 'loudspeaker', 'loudspeakers', 'ceiling', 'pendant', 'wall', 'horn', 'horns', 'driver', 'drivers', 'unit', 'units', 'cabinet',
  'cabinets', 'column', 'columns', 'amplifier', 'bridged', 'bridgeable', 'valve', 'tube', 'watts', 'watt', 'ohms', 'volts', 'volt', 'stable', 'with', 'into', 'each', 'from',
  'minimum', 'capacitor', 'inductor', 'choke', 'coil', 'dual', 'line', 'output', 'taps', 'times', 'pieces', 'continuous', 'three', 'four', 'five', 'seven', 'eight',
] as const

/** A line with a word in it that nobody knows and that is a slip or two from one that fits: `mended` is the line with it. */
export class MisspeltError extends InputError {
  override name = 'MisspeltError'
  constructor(error: InputError, readonly word: string, readonly meant: string, readonly mended: string) {
    super(`${error.message} Is “${meant}” meant?`, error.position, error.expected)
  }
}

/** Letters that may be wrong: one of four, two of more. */
const slipsOf = (word: string) => word.length < 4 ? 0 : word.length < 5 ? 1 : 2
/** Lines longer than this are not tried again with other words. */
const LONGEST_TRIED = 200

/**
 * The same error with the word that is meant, where the text reads further with it; else null. Of words equally near the first that reads furthest.
 * @param failsAt the place where a text cannot be read on; null where it is read
 */
export function misspelt(text: string, error: InputError, failsAt: (text: string) => number | null): MisspeltError | null {
  const word = /^\p{L}+/u.exec(text.slice(error.position))?.[0]
  if (word === undefined || text.length > LONGEST_TRIED) return null
  const near = WORDS.map(meant => ({ meant, slips: distance(word.toLowerCase(), meant) }))
    .filter(({ slips }) => slips > 0 && slips <= slipsOf(word))
    .sort((a, b) => a.slips - b.slips)
  const before = text.slice(0, error.position)
  for (const { meant } of near) {
    const mended = `${before}${meant}${text.slice(error.position + word.length)}`
    const at = failsAt(mended)
    if (at === null || at > error.position + meant.length) return new MisspeltError(error, word, meant, mended)
  }
  return null
}
