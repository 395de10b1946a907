import { faultAt, type FaultDefinition } from './fault'
import { withOwnOhm, WAYS_OF_A_JOINT } from './ownOhm'

/** A coil that fails reads far above its nominal, otherwise each day. */
export const coilHigh: FaultDefinition = {
  kind: 'coil-high',
  isOfUnit: true,
  prior: 1,
  why: 'a lead-out or a solder point inside the unit, as rare as an open coil is before it opens',
  candidates: (_, speakers) => speakers.flatMap(s => WAYS_OF_A_JOINT.map(amount => faultAt('coil-high', s.id, { amount }))),
  change: withOwnOhm,
  coil: { high: 1 },
  isUnsteady: true,
}
