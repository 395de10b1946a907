import { lineVoltageName } from '#core/amplifier/index'
import { writeDb, writeQuantity } from '#core/quantity/write'
import { findingWords } from '#core/line/words'
import type { OfferedRemedy, RemedyFacts } from './remedy'

const W = (watts: number) => writeQuantity(watts, 'W')
const Ohm = (ohm: number | null) => ohm === null ? 'not known' : writeQuantity(ohm, 'Ω')

/** A remedy in words: what it does, and what is then, also what is tight then and was not before. */
export function remedyWords({ facts, brings }: Pick<OfferedRemedy, 'facts' | 'brings'>): { does: string, then: string } {
  const areAlike = !brings.some(({ finding }) => finding.code === 'unequal-shares')
  const { does, then } = doneWords(facts, areAlike)
  const brought = brings.map(({ label, finding }) => `${label}: ${findingWords(finding).what}`)
  return { does, then: brought.length === 0 ? then : `${then} Tight then: ${brought.join(' ')}` }
}

function doneWords(facts: RemedyFacts, areAlike: boolean): { does: string, then: string } {
  switch (facts.code) {
    case 'tap-down': return {
      does: `${who(facts)} down ${facts.tapW === null ? 'one tap' : `to ${W(facts.tapW)}`}`,
      then: `${W(facts.drawW)} of taps then.${facts.isAlone ? ' It is then quieter than its neighbours.' : ''}`,
    }
    case 'split-here': return {
      does: `Add an output like this one, and move ${list(facts.labels)} to it`,
      then: facts.hereW !== null && facts.thereW !== null
        ? `${W(facts.hereW)} here, ${W(facts.thereW)} on ${facts.to}. It needs that output, and a cable from it.`
        : `${Ohm(facts.hereOhm)} here, ${Ohm(facts.thereOhm)} on ${facts.to}. It needs that output, and a cable from it.`,
    }
    case 'move-away': return {
      does: `Move ${list(facts.labels)} to ${facts.to}`,
      then: `${W(facts.hereW)} here, ${W(facts.thereW)} of ${W(facts.thereAllowedW)} there. It needs its cable.`,
    }
    case 'thicker-cable': return { does: `Pull ${facts.cable} on this line`, then: `Far end then ${writeDb(facts.lossDb)}.` }
    case 'pair-in-series': return { does: 'Wire neighbours in series, two and two', then: `${writeQuantity(facts.loadOhm, 'Ω')} then${areAlike ? '; all still share alike' : ''}.` }
    case 'across-the-line': return { does: `Hang ${list(facts.labels)} each across the line`, then: `They draw ${W(facts.drawW)} then, as they are set.` }
    case 'behind-down': return { does: `Taps behind it down: ${list(facts.labels)}`, then: `${W(facts.behindW)} then, of ${W(facts.ratingW)}.` }
    case 'larger-control': return { does: `A control of ${W(facts.ratingW)} in place of ${facts.label}`, then: 'It has to be one of that size; which one is not chosen yet.' }
    case 'onto-tap': return { does: `${facts.labels.length === 1 ? `Speaker ${facts.labels[0]}` : list(facts.labels)} on the ${W(facts.tapW)} tap`, then: `${W(facts.drawW)} of taps on this line then.` }
    case 'high-pass': return { does: `A high-pass of ${writeQuantity(facts.hz, 'Hz')} for ${facts.amplifier}`, then: 'Noted in the plan: switch it on, or put one before the amplifier.' }
    case 'valve-tap': return { does: `The ${Ohm(facts.tapOhm)} tap for this line`, then: `${Ohm(facts.loadOhm)} on it; off before the plug is moved.` }
    case 'thick-first': return { does: `${facts.thick} from the amplifier to there`, then: `Far end then ${writeDb(facts.lossDb)}.` }
    case 'with-can': return { does: `${list(facts.labels)} as ${facts.kind}`, then: 'On the taps that they stand on; that they fit the ceiling is to be looked at.' }
    case 'number-anew': return {
      does: facts.renumbered.length === 1 ? `Call the second ${facts.renumbered[0]!.from} ${facts.renumbered[0]!.to}` : `Number ${facts.renumbered.length} of them anew`,
      then: facts.renumbered.map(r => `${r.from} becomes ${r.to}`).slice(0, 6).join(', ') + (facts.renumbered.length > 6 ? ' and more.' : '.'),
    }
    case 'right-scale': return {
      does: `${facts.labels.length === 1 ? `Speaker ${facts.labels[0]} to its` : `${list(facts.labels)} to their`} ${W(facts.tapW)} tap of the ${lineVoltageName(facts.ratedV)} scale`,
      then: `${facts.labels.length === 1 ? 'It then takes' : 'Each then takes'} ${W(facts.takesW)} on this line, and is written so.`,
    }
  }
}

function who({ labels, name, isAll, isAlone }: { labels: string[], name: string, isAll: boolean, isAlone: boolean }): string {
  if (isAlone) return `Speaker ${labels[0]} alone`
  if (isAll && labels.length > 1) return labels.length === 2 ? 'Both speakers' : `All ${labels.length} speakers`
  if (labels.length === 1) return `Speaker ${labels[0]}`
  return name === '' ? list(labels) : `${labels.length} × ${name} (${list(labels)})`
}

/** "07", "07 and 08", "05 to 08", "03, 05 and 09": a run is named by its ends, where it is one. */
function list(labels: string[]): string {
  if (labels.length <= 2) return labels.join(' and ')
  const numbers = labels.map(Number)
  const isRun = numbers.every((n, k) => k === 0 || n === numbers[k - 1]! + 1)
  return isRun ? `${labels[0]} to ${labels.at(-1)}` : `${labels.slice(0, -1).join(', ')} and ${labels.at(-1)}`
}
