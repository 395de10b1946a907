import { writeNumber, writeQuantity } from '#core/quantity/write'
import type { Wiring, Wirings } from './finder'

/** The words of the wiring finder. */

const W = (watts: number) => writeQuantity(watts, 'W')

/** What each speaker gets: "45 W each", "12 to 48 W"; parts of all where the output is not known. */
export function powerText({ powerW, amplifierW }: Pick<Wiring, 'powerW' | 'amplifierW'>): string {
  const [least, most] = [Math.min(...powerW), Math.max(...powerW)]
  const isEven = most - least <= 1e-6 * most
  if (amplifierW === null) return isEven ? 'all the same' : `the most gets ${writeNumber(most / least, 3)} times the least`
  return isEven ? `${W(most)}${powerW.length > 1 ? ' each' : ''}` : `${writeNumber(least, 3)} to ${W(most)}`
}

/** Of speakers whose rating is stated, how many get more than it. */
export function overRated({ powerW, amplifierW }: Pick<Wiring, 'powerW' | 'amplifierW'>, ratings: readonly (number | null)[]): number {
  return amplifierW === null ? 0 : powerW.filter((watts, k) => ratings[k] != null && watts > ratings[k]! * (1 + 1e-9)).length
}

/** How many there are, and what became of them. */
export function wiringsWords({ wirings, refused, distinct, unfair, isWhole }: Wirings): string {
  const parts = [
    distinct === null ? 'More different wirings than can be counted' : `${distinct} different ${distinct === 1 ? 'wiring' : 'wirings'}`,
    unfair !== null && unfair > 0 ? `in ${unfair} the power falls otherwise` : '',
    refused.length > 0 ? `${refused.length >= 60 ? 'many are' : refused.length === 1 ? '1 is' : `${refused.length} are`} too low a load` : '',
  ].filter(p => p !== '')
  const shown = wirings.length === 0 ? 'None is left.' : wirings.length >= 200 ? 'The 200 simplest of what is left:' : 'What is left, the simplest first:'
  return `${parts.join('; ')}. ${isWhole ? '' : 'Of so many only those of equal groups are gone through. '}${shown}`
}
