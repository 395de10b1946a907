import { acrossTheLine } from './acrossTheLine'
import { behindControl } from './behindControl'
import { highPass } from './highPass'
import { moveAway } from './moveAway'
import { ontoTap } from './ontoTap'
import { pairInSeries } from './pairInSeries'
import type { Remedy, RemedyMaker, RemedyQuestion } from './remedy'
import { rightScale } from './rightScale'
import { tapDown } from './tapDown'
import { splitHere } from './splitHere'
import { thickFirst } from './thickFirst'
import { withCan } from './withCan'
import { thickerCable } from './thickerCable'
import { valveTap } from './valveTap'

export type { Remedy, RemedyFacts } from './remedy'
export { remedyWords } from './words'

const MAKERS: readonly RemedyMaker[] = [
  tapDown, moveAway, splitHere, thickerCable, pairInSeries, rightScale, acrossTheLine, behindControl, ontoTap, highPass, thickFirst, withCan, valveTap,
]

/** What the program can do about a finding; worked out when asked for, since it tries other wirings. */
export function remediesFor(question: RemedyQuestion): Remedy[] {
  return MAKERS.flatMap(make => make(question))
}
