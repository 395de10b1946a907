import { writeDb, writeQuantity } from '#core/quantity/write'
import type { RemedyFacts } from './remedy'

const W = (watts: number) => writeQuantity(watts, 'W')

/** A remedy in words: what it does, and what is then. */
export function remedyWords(facts: RemedyFacts): { does: string, then: string } {
  switch (facts.code) {
    case 'tap-down': return {
      does: facts.labels.length === 1 ? `Speaker ${facts.labels[0]} down to ${W(facts.tapW)}` : `${list(facts.labels)} down one tap each`,
      then: `${W(facts.tapsW)} of taps then.`,
    }
    case 'move-away': return {
      does: `Move ${list(facts.labels)} to ${facts.to}`,
      then: `${W(facts.hereW)} here, ${W(facts.thereW)} of ${W(facts.thereAllowedW)} there. It needs its cable.`,
    }
    case 'thicker-cable': return { does: `Pull ${facts.cable} on this line`, then: `Far end then ${writeDb(facts.lossDb)}.` }
    case 'pair-in-series': return { does: 'Wire neighbours in series, two and two', then: `${writeQuantity(facts.loadOhm, 'Ω')} then; all still share alike.` }
    case 'right-scale': return { does: `Speaker ${facts.label} to its ${W(facts.tapW)} tap`, then: `It then takes ${W(facts.takesW)} on this line.` }
  }
}

/** "07", "07 and 08", "05 to 08". */
function list(labels: string[]): string {
  if (labels.length <= 2) return labels.join(' and ')
  return `${labels[0]} to ${labels.at(-1)}`
}
