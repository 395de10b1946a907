import { faultAt, type FaultDefinition } from './fault'
import { withLoadTimes } from './changeTree'

/** Turns of a coil or a winding that touch each other leave about this part of the load. Common practice, no source. */
const LEFT = 0.5

export const shortedTurns: FaultDefinition = {
  kind: 'shorted-turns',
  prior: 2,
  candidates: (_, speakers) => speakers.map(s => faultAt('shorted-turns', s.id)),
  change: (chain, { nodeId }) => withLoadTimes(chain, nodeId!, LEFT),
  // Of a transformer they are not seen at the coil.
  coil: { low: 0.6, short: 0.1, right: 0.3 },
}
