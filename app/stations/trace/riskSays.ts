import { leastToRead } from '#core/check/overload'
import { KIND_NAMES } from '#core/check/gradeWords'
import { valueWords } from '#core/check/words'
import type { Output } from '#core/job/schema'
import { writeQuantity } from '#core/quantity/write'
import type { SwitchOnRisk } from '#core/trace/switchOn'
import { faultsSay, type NameOf } from '#core/trace/words'
import { shareText } from './shown'

/** Why an amplifier must not be switched on to a line, in a sentence. */
export function riskSays(risk: SwitchOnRisk, output: Pick<Output, 'rating' | 'label'>, nameOf: NameOf): string {
  const least = leastToRead(output)
  if (risk.why === 'suspects') {
    const does = least === null ? 'load this output with more than twice what is planned, and what it stands is not known' : 'overload this output'
    return `${shareText(risk.share)} of what may be here would ${does}; likeliest of that: ${faultsSay(risk.likeliest.faults, nameOf)}.`
  }
  const { reading, verdict } = risk.judged
  const limit = verdict.code === 'far-low' && least === null
    ? ': less than half of what it should, and what this output stands is not known'
    : reading.nodeId === null && reading.value.is === 'ohm' && least !== null ? `: this output stands ${writeQuantity(least, 'Ω')} and more` : ''
  return `${reading.nodeId === null ? output.label : nameOf(reading.nodeId)} ${KIND_NAMES[reading.kind]} reads ${valueWords(reading.value)}${limit}.`
}
