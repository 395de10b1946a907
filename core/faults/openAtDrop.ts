import { faultAt, type FaultDefinition } from './fault'
import { withNode } from './changeTree'

/** Nothing gets to one speaker: an open joint, its plug out, a lead off its terminal. */
export const openAtDrop: FaultDefinition = {
  kind: 'open-at-drop',
  looks: 0.7,
  prior: 7,
  why: 'every speaker has two joints made by hand, and the terminal that was not snug is the commonest call',
  candidates: (_, speakers) => speakers.map(s => faultAt('open-at-drop', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, () => ({ kind: 'open', id: nodeId! })),
  // Read at the unit with its leads off the coil is right; read before the open joint it is open.
  coil: { right: 0.8, open: 0.2 },
}
