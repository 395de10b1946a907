import type { Job, Output, Splice, SpliceFields, Turn } from '#core/job/schema'
import { UNSTATED_SPLICE } from '#core/job/sections/splices/schema'
import { coilCount } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import type { Branch, Group, Speaker } from '#core/job/sections/wiring/schema'

/**
 * Every place where a pair can be crossed, as a tree of its own: what is crossed there turns all behind it. Along a chain the beginning of a lead
 * turns all that follows, the terminals of a speaker that speaker alone.
 */

export interface Joint {
  at: 'start' | 'end' | 'coil'
  /** The node whose lead or terminals it is. */
  nodeId: string
  /** Which of its coils, from 0; null where it is none. */
  coil: number | null
  /** As it is drawn; null is not known. */
  turn: Turn | null
  /** The joint before it, by its place in the list; null at the amplifier. Always an earlier one. */
  before: number | null
}

/** One end of the copper: a speaker, or one of its coils where those are stated. */
export interface Leaf { speaker: Speaker, coil: number | null, before: number }

export interface Joints { output: Output, joints: Joint[], leaves: Leaf[] }

/** What is said of the lead to each node. */
export function splicesBy(job: Pick<Job, 'splices'>): (nodeId: string) => SpliceFields {
  const by = new Map(job.splices.map((splice: Splice) => [splice.nodeId, splice]))
  return nodeId => by.get(nodeId) ?? UNSTATED_SPLICE
}

/** The joints of a line, those before others first. */
export function jointsOf(output: Output, spliceOf: (nodeId: string) => SpliceFields): Joints {
  const joints: Joint[] = []
  const leaves: Leaf[] = []
  const put = (joint: Joint): number => joints.push(joint) - 1
  const visit = (group: Group, before: number | null): void => {
    let along = before
    for (const branch of group.children) {
      const start = put({ at: 'start', nodeId: branch.node.id, coil: null, turn: spliceOf(branch.node.id).start, before: group.kind === 'chain' ? along : before })
      along = start
      hang(branch, start)
    }
  }
  const hang = ({ node }: Branch, start: number): void => {
    const { end, coils } = spliceOf(node.id)
    if (isGroup(node)) return visit(node, node.through ? put({ at: 'end', nodeId: node.id, coil: null, turn: end, before: start }) : start)
    const terminals = put({ at: 'end', nodeId: node.id, coil: null, turn: end, before: start })
    if (coils === null || node.load.kind === 'coil' || coils.length !== coilCount(node.load)) leaves.push({ speaker: node, coil: null, before: terminals })
    else coils.forEach((turn, coil) => leaves.push({ speaker: node, coil, before: put({ at: 'coil', nodeId: node.id, coil, turn, before: terminals }) }))
  }
  visit(output.wiring, null)
  return { output, joints, leaves }
}

/** The joints that lead to one, from it back to the amplifier. */
export function* wayBack({ joints }: Pick<Joints, 'joints'>, from: number | null): Generator<Joint> {
  for (let k = from; k !== null; k = joints[k]!.before) yield joints[k]!
}

/** Which way round an end is as it is drawn: two crossings cancel. Not known where one joint on the way is not. */
export function drawnParity(line: Pick<Joints, 'joints'>, before: number): 0 | 1 | null {
  let parity: 0 | 1 = 0
  for (const { turn } of wayBack(line, before)) {
    if (turn === null) return null
    if (turn === 'crossed') parity = parity === 0 ? 1 : 0
  }
  return parity
}
