import { faultAt, type FaultDefinition } from './fault'
import { withNode } from './changeTree'

/** Both conductors joined where a speaker hangs: a whisker of strand, a pinched cable. */
export const shortAtDrop: FaultDefinition = {
  kind: 'short-at-drop',
  looks: 0.6,
  prior: 4,
  why: 'strands at a terminal, or a screw through the cable, at every place that was worked on',
  candidates: (_, speakers) => speakers.map(s => faultAt('short-at-drop', s.id)),
  change: (wiring, { nodeId }) => withNode(wiring, nodeId!, () => ({ kind: 'short', id: nodeId! })),
  coil: { right: 1 },
}
