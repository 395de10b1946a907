import { faultAt, type FaultDefinition } from '../fault'
import { rewire } from '../rewire'

/** Turns of a coil or a winding that touch each other leave about this part of the load. Common practice, no source. */
const LEFT = 0.5

export const shortedTurns: FaultDefinition = {
  kind: 'shorted-turns',
  prior: 2,
  candidates: (_, speakers) => speakers.map(s => faultAt('shorted-turns', s.id)),
  change: (chain, { nodeId }) => rewire(chain, nodeId!, (branch) => {
    const { node } = branch
    if (node.kind !== 'speaker') return branch
    const load = node.load.kind === 'tap' ? { ...node.load, tapW: node.load.tapW / LEFT } : { kind: 'nominal' as const, nominalOhm: node.load.nominalOhm * LEFT }
    return { ...branch, node: { ...node, load } }
  }),
  // Of a transformer they are not seen at the coil.
  coil: { low: 0.6, short: 0.1, right: 0.3 },
}
