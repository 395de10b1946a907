import { faultAt, type FaultDefinition } from './fault'
import { withNode } from './changeTree'

/** The coil itself is broken, or its lead-out: nothing flows in the unit. Behind a transformer the line then sees next to no load. */
export const coilOpen: FaultDefinition = {
  kind: 'coil-open',
  isOfUnit: true,
  prior: 3,
  why: 'heat and travel break a lead-out; rarer than a joint',
  candidates: (_, speakers) => speakers.map(s => faultAt('coil-open', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, () => ({ kind: 'open', id: nodeId! })),
  coil: { open: 1 },
}
