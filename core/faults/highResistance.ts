import { faultAt, type FaultDefinition } from './fault'
import { withLoadTimes } from './changeTree'

/**
 * A joint or coil that has begun to fail stands in series with a speaker, as a second load of this many times its own.
 * Common practice, no source: a 4 Ω unit then reads tens of ohms.
 */
const TIMES_OWN_LOAD = 4

export const highResistance: FaultDefinition = {
  kind: 'high-resistance',
  prior: 2,
  candidates: (_, speakers) => speakers.map(s => faultAt('high-resistance', s.id)),
  // Behind a transformer a joint of k times the driver's impedance shows as k times the tap's.
  change: (chain, { nodeId }) => withLoadTimes(chain, nodeId!, 1 + TIMES_OWN_LOAD),
  coil: { high: 0.6, right: 0.4 },
  // One current through both: the joint takes its share of the watts at the place.
  ownPart: 1 / (1 + TIMES_OWN_LOAD),
}
