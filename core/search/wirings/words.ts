import { writeNumber, writeQuantity } from '#core/quantity/write'
import { BESIDE_SCHOOL, type PowerSchool } from '#core/schools/power'
import type { Wiring, Wirings } from './finder'

/** The words of the wiring finder. */

const inWatts = (watts: number) => writeQuantity(watts, 'W')

/** What each speaker gets: "45 W each", "12 to 48 W"; parts of all where the output is not known. */
export function powerText({ powerW, amplifierW }: Pick<Wiring, 'powerW' | 'amplifierW'>): string {
  const [least, most] = [Math.min(...powerW), Math.max(...powerW)]
  const isEven = most - least <= 1e-6 * most
  if (amplifierW === null) return isEven ? 'all the same' : `the most gets ${writeNumber(most / least, 3)} times the least`
  return isEven ? `${inWatts(most)}${powerW.length > 1 ? ' each' : ''}` : `${writeNumber(least, 3)} to ${inWatts(most)}`
}

/** Of speakers whose rating is stated, how many get more than the chosen school lets them: where the sheet says so, too. */
export function overRated({ powerW, amplifierW }: Pick<Wiring, 'powerW' | 'amplifierW'>, ratings: readonly (number | null)[], school: PowerSchool): number {
  const most = school.toC * (1 + BESIDE_SCHOOL)
  return amplifierW === null ? 0 : powerW.filter((watts, k) => ratings[k] != null && watts > ratings[k]! * most * (1 + 1e-9)).length
}

/** "2 are too low a load; 6 match none of its taps": what of them is refused; empty where none is. */
export function refusedWords(refused: Wirings['refused']): string {
  const low = refused.filter(r => r.isTooLow).length
  const unmatched = refused.length - low
  const many = (count: number, one: string, several: string) => count === 0 ? '' : `${count >= 60 ? 'many' : count} ${count === 1 ? one : several}`
  return [many(low, 'is too low a load', 'are too low a load'), many(unmatched, 'matches none of its taps', 'match none of its taps')].filter(p => p !== '').join('; ')
}

/** How many there are, and what became of them. */
export function wiringsWords({ wirings, refused, distinct, unfair, isWhole }: Wirings): string {
  const parts = [
    distinct === null ? 'More different wirings than can be counted' : `${distinct} different ${distinct === 1 ? 'wiring' : 'wirings'}`,
    unfair !== null && unfair > 0 ? `in ${unfair} the power falls otherwise` : '',
    refusedWords(refused),
  ].filter(p => p !== '')
  const shown = wirings.length === 0 ? 'None is left.' : wirings.length >= 200 ? 'The 200 simplest of what is left:' : 'What is left, the simplest first:'
  return `${parts.join('; ')}. ${isWhole ? '' : 'Of so many only those of equal groups are gone through. '}${shown}`
}
