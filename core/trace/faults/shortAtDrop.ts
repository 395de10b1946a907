import type { FaultDefinition } from '../fault'
import { rewire } from '../rewire'

/** Both conductors joined where a speaker hangs: a whisker of strand, a pinched cable, the 8 Ω position left on. */
export const shortAtDrop: FaultDefinition = {
  kind: 'short-at-drop',
  prior: 4,
  candidates: (_, speakers) => speakers.map(s => ({ kind: 'short-at-drop', nodeId: s.id, tapW: null })),
  change: (chain, { nodeId }) => rewire(chain, nodeId, branch => ({ ...branch, node: { kind: 'short', id: nodeId } })),
  coil: { right: 1 },
}
