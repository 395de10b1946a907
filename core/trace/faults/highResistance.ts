import { faultAt, type FaultDefinition } from '../fault'
import { rewire } from '../rewire'

/**
 * A joint or coil that has begun to fail stands in series with a speaker, as a second load of this many times its own.
 * Common practice, no source: a 4 Ω unit then reads tens of ohms.
 */
const TIMES_OWN_LOAD = 4

export const highResistance: FaultDefinition = {
  kind: 'high-resistance',
  prior: 2,
  candidates: (_, speakers) => speakers.map(s => faultAt('high-resistance', s.id)),
  change: (chain, { nodeId }) => rewire(chain, nodeId!, (branch) => {
    const { node } = branch
    if (node.kind !== 'speaker') return branch
    // Behind a transformer a joint of k times the driver's impedance shows as k times the tap's.
    const load = node.load.kind === 'tap'
      ? { ...node.load, tapW: node.load.tapW / (1 + TIMES_OWN_LOAD) }
      : { kind: 'nominal' as const, nominalOhm: node.load.nominalOhm * (1 + TIMES_OWN_LOAD) }
    return { ...branch, node: { ...node, load } }
  }),
  coil: { high: 0.6, right: 0.4 },
  // One current through both: the joint takes its share of the watts at the place.
  ownPart: 1 / (1 + TIMES_OWN_LOAD),
}
