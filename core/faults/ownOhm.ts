import type { WiringNode } from '#core/network/tree'
import type { Fault } from './fault'
import { labelOhm, withNode, withSeriesOhm } from './changeTree'

/**
 * How many times its own load a failing joint or coil adds: a 4 Ω unit then reads six to a hundred. Common practice, no source; the sizes between lie
 * between.
 */
export const WAYS_OF_A_JOINT = [0.5, 1.5, 4, 12] as const

/** The tree with so many times its own load (`amount`) in series with one speaker: behind a transformer it shows as so many times the tap's. */
export function withOwnOhm(wiring: WiringNode, { nodeId, amount }: Fault): WiringNode {
  let ohm: number | null = null
  withNode(wiring, nodeId!, (node) => {
    if (node.kind === 'speaker') ohm = labelOhm(node.load)
    return node
  })
  return ohm === null ? wiring : withSeriesOhm(wiring, nodeId!, ohm * (amount ?? WAYS_OF_A_JOINT[2]))
}
