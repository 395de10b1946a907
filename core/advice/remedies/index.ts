import { acrossTheLine } from './acrossTheLine'
import { behindControl } from './behindControl'
import { highPass } from './highPass'
import { moveAway } from './moveAway'
import { numberAnew } from './numberAnew'
import { ontoTap } from './ontoTap'
import { pairInSeries } from './pairInSeries'
import { broughtBy } from './brought'
import type { OfferedRemedy, RemedyMaker, RemedyQuestion } from './remedy'
import { rightScale } from './rightScale'
import { tapDown } from './tapDown'
import { splitHere } from './splitHere'
import { thickFirst } from './thickFirst'
import { withCan } from './withCan'
import { thickerCable } from './thickerCable'
import { valveTap } from './valveTap'

export type { OfferedRemedy, RemedyFacts } from './remedy'
export { remedyWords } from './words'

const MAKERS: readonly RemedyMaker[] = [
  tapDown, moveAway, splitHere, thickerCable, pairInSeries, rightScale, acrossTheLine, behindControl, ontoTap, highPass, thickFirst, withCan, valveTap,
  numberAnew,
]

/**
 * What the program can do about a finding; worked out when asked for, since it tries other wirings. Each is put in and judged by the sheet: what it brings is
 * said with it, and one that brings a stop is none.
 */
export function remediesFor(question: RemedyQuestion): OfferedRemedy[] {
  return MAKERS.flatMap(make => make(question)).flatMap((remedy) => {
    const brings = broughtBy(question.job, remedy.edit, question.line)
    return brings.some(({ finding }) => finding.grade === 'stop') ? [] : [{ ...remedy, brings }]
  })
}
