import { leadOhm } from './cable'
import type { View } from './element'
import { isGroup, type Child, type WiringNode } from './tree'

export const enum Kind { Resistor, Motional, Open, Short, Series, Star, Chain }

/** Numbers that one node takes in `Circuit.values`. */
export const VALUES_PER_NODE = 5

/**
 * A tree laid flat in pre-order, so that both walks are plain loops over typed arrays: children follow their parent, and
 * `end[i]` is the first node after the subtree of i. Objects and recursion were measured first: about four times slower
 * at 2,000 drops, and deep trees overflowed the stack.
 */
export interface Circuit {
  count: number
  ids: string[]
  kind: Uint8Array
  parent: Int32Array
  end: Int32Array
  leadOhm: Float64Array
  /** Per node: resistor R; motional Re, Le, fs, Qms, Res. */
  values: Float64Array
}

const GROUP_KIND = { series: Kind.Series, star: Kind.Star, chain: Kind.Chain } as const

/** Lays a tree flat for solving. Iterative: the depth of a tree is bounded by memory alone. */
export function compile(root: Child<WiringNode>, view: View): Circuit {
  const order = preorder(root)
  const count = order.length
  const circuit: Circuit = {
    count,
    ids: new Array<string>(count),
    kind: new Uint8Array(count),
    parent: new Int32Array(count),
    end: new Int32Array(count),
    leadOhm: new Float64Array(count),
    values: new Float64Array(count * VALUES_PER_NODE),
  }
  for (let i = count - 1; i >= 0; i--) {
    const { child, parent } = order[i]!
    circuit.ids[i] = child.node.id
    circuit.parent[i] = parent
    circuit.leadOhm[i] = leadOhm(child.lead)
    circuit.end[i] = Math.max(circuit.end[i]!, i + 1)
    if (parent >= 0) circuit.end[parent] = Math.max(circuit.end[parent]!, circuit.end[i]!)
    writeNode(circuit, i, child.node, view)
  }
  return circuit
}

interface Placed { child: Child<WiringNode>, parent: number }

function preorder(root: Child<WiringNode>): Placed[] {
  const order: Placed[] = []
  const waiting: Placed[] = [{ child: root, parent: -1 }]
  while (waiting.length > 0) {
    const placed = waiting.pop()!
    const index = order.push(placed) - 1
    const { node } = placed.child
    if (!isGroup(node)) continue
    for (let k = node.children.length - 1; k >= 0; k--) waiting.push({ child: node.children[k]!, parent: index })
  }
  return order
}

function writeNode(circuit: Circuit, i: number, node: WiringNode, view: View): void {
  if (isGroup(node)) {
    circuit.kind[i] = GROUP_KIND[node.kind]
    return
  }
  if (node.kind !== 'speaker') {
    circuit.kind[i] = node.kind === 'open' ? Kind.Open : Kind.Short
    return
  }
  const element = view(node.load)
  const at = i * VALUES_PER_NODE
  switch (element.kind) {
    case 'open':
      circuit.kind[i] = Kind.Open
      break
    case 'resistor':
      circuit.kind[i] = Kind.Resistor
      circuit.values[at] = element.ohm
      break
    case 'motional':
      circuit.kind[i] = Kind.Motional
      circuit.values.set([element.reOhm, element.leH, element.fsHz, element.qms, element.resOhm], at)
  }
}
