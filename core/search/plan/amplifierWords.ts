import type { AmplifierModel } from '#core/gear/amplifier'
import { writeQuantity } from '#core/quantity/write'
import type { AmplifierSet, FoundAmplifiers, Rank } from './amplifierFinder'
import type { SetApplied } from './amplifiersEdit'

/** The words of the amplifier finder. */

export const RANK_WORDS: Record<Rank, string> = { price: 'least money', units: 'fewest units', spare: 'most to spare' }

/** "Least money and fewest units". */
export function leadsWords({ leads }: Pick<AmplifierSet, 'leads'>): string {
  const words = leads.map(rank => RANK_WORDS[rank])
  const text = words.length > 2 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words.join(' and ')
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** "2 × Line amplifier 2 × 240 W, Line amplifier 120 W". */
export const modelsText = (models: AmplifierSet['models']) => models.map(({ name, count }) => count > 1 ? `${count} × ${name}` : name).join(', ')

/** What a set is proven to be, and among what. */
const PROVEN = 'Every line is fed. Proven: no other set does it for less money, with fewer units, or, for up to a quarter more, with more to spare. '
  + 'Two outputs are bridged for loads of ohms, not for a line of constant volts.'

export function finderWords({ sets, refused, left, lacks }: FoundAmplifiers, offered: number): string {
  if (offered === 0) return 'The library has no amplifier yet.'
  if (lacks !== null) return `No set of these amplifiers feeds every line and has ${lacks}, as far as their inputs and zones are stated. A mixer before them, or fewer asked for.`
  if (sets.length > 0) return left.length > 0 ? 'Lines of which not enough is known are left as they are; the others are fed, and proven:' : PROVEN
  if (left.some(l => l.isUnfed)) return 'No set of these amplifiers feeds every line.'
  return left.length > 0 || refused.length > 0 ? 'Nothing can be asked for yet: of no line enough is known.' : 'No line with speakers yet.'
}

const few = (names: readonly string[]) => [...new Set(names)].map(name => names.filter(n => n === name).length > 1 ? `${names.filter(n => n === name).length} × ${name}` : name).join(', ')
/** What came in, what went. */
export function appliedWords({ added, removed, moved, unplaced }: SetApplied): string {
  const parts = [added.length > 0 ? `${few(added)} in` : '', removed.length > 0 ? `${removed.join(', ')} out` : '', moved > 0 ? `${moved} ${moved === 1 ? 'line' : 'lines'} moved over` : '',
    unplaced.length > 0 ? `say anew where ${unplaced.join(', ')} ${unplaced.length === 1 ? 'comes' : 'come'} in` : ''].filter(p => p !== '')
  return parts.length > 0 ? parts.join('; ') : 'outputs rated as the models are'
}

/**
 * "Mixing amplifier 120 W, no. 2"; of several outputs "Line amplifier 2 × 240 W, output 2", "outputs 1 and 2 bridged". `output` counts from 1 through all
 * units.
 */
export function outputText(model: AmplifierModel, count: number, output: number, isBridged = false): string {
  const each = model.outputs.reduce((n, g) => n + g.count, 0)
  const no = count > 1 ? `, no. ${Math.floor((output - 1) / each) + 1}` : ''
  const at = (output - 1) % each + 1
  return `${model.name}${no}${isBridged ? `, outputs ${at} and ${at + 1} bridged` : each > 1 ? `, output ${at}` : ''}`
}

export const spareText = (set: Pick<AmplifierSet, 'spareW'>) => writeQuantity(set.spareW, 'W')
