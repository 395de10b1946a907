import { faultAt, type FaultDefinition } from './fault'
import { withOwnOhm, WAYS_OF_A_JOINT } from './ownOhm'

/** A joint at one speaker stands in its way, with so many times its own load (`amount`). */
export const highResistance: FaultDefinition = {
  kind: 'high-resistance',
  looks: 0.35,
  prior: 1.5,
  why: 'a joint corrodes for years before it opens',
  candidates: (_, speakers) => speakers.flatMap(s => WAYS_OF_A_JOINT.map(amount => faultAt('high-resistance', s.id, { amount }))),
  change: withOwnOhm,
  // With the joint between the meter and the coil it reads high; with the leads off, right.
  coil: { right: 0.6, high: 0.4 },
  isUnsteady: true,
}
