import { leadOhm } from './cable'
import { isSameCurve, type Curve } from './curve'
import { isReactive, passingOf, type Passing, type View } from './element'
import { asWired, isGroup, membersOf, unitOf, type Child, type SingleLoad, type Through, type WiringNode } from './tree'

export const enum Kind { Resistor, Motional, Curve, Open, Short, Series, Star, Chain, Through }

/** Numbers that one node takes in `Circuit.values`. */
export const VALUES_PER_NODE = 5

/**
 * A tree laid flat in pre-order, so that both walks are plain loops over typed arrays and no tree is too deep for the
 * stack. Children of group p are `children[childStart[p]]` up to `childStart[p + 1]`, in wiring order.
 */
export interface Circuit {
  count: number
  ids: string[]
  kind: Uint8Array
  leadOhm: Float64Array
  childStart: Int32Array
  children: Int32Array
  /** Indices of the groups, parents before children. */
  groups: Int32Array
  /** Indices of motional speakers; those that hang directly on a chain are not among them, the chain has them in its own walk. */
  motional: Int32Array
  /** Measured curves, equals once, with the indices of the speakers that go by each. */
  curves: Measured[]
  /** Whether a capacitor or a coil stands in the way of a group. */
  isReactive: boolean
  /** Whether its impedance hangs on the frequency at all. */
  isOfFrequency: boolean
  /** Indices of speakers that are laid out as the group of their members. */
  units: ReadonlySet<number>
  /** Indices of controls and transformers: each bears the id of its group and has that group as its one child, under that id with “/behind”. */
  throughs: number[]
  /** Per node: resistor R; motional Re, Le, Qms/fs, Qms·fs, Res; what stands before a group ratio, series R, L, 1/C. */
  values: Float64Array
}

export interface Measured { curve: Curve, factor: number, beyondOhm: number, nodes: number[] }

const GROUP_KIND = { series: Kind.Series, star: Kind.Star, chain: Kind.Chain } as const

/** Lays a tree flat for solving. Iterative: the depth of a tree is bounded by memory alone. */
export function compile(root: Child<WiringNode>, view: View): Circuit {
  const order = preorder(root)
  const count = order.length
  const circuit: Circuit = {
    count,
    ids: new Array<string>(count),
    kind: new Uint8Array(count),
    leadOhm: new Float64Array(count),
    childStart: new Int32Array(count + 1),
    children: new Int32Array(Math.max(0, count - 1)),
    groups: new Int32Array(0),
    motional: new Int32Array(0),
    curves: [],
    isReactive: false,
    isOfFrequency: false,
    units: new Set(order.flatMap((placed, i) => placed.isUnit ? [i] : [])),
    throughs: [],
    values: new Float64Array(count * VALUES_PER_NODE),
  }
  const groups: number[] = []
  const motional: number[] = []
  for (let i = 0; i < count; i++) {
    const { child, parent, through } = order[i]!
    circuit.ids[i] = child.node.id
    circuit.leadOhm[i] = leadOhm(child.lead)
    if (parent >= 0) circuit.childStart[parent + 1]!++
    if (through) writeThrough(circuit, i, through)
    else writeNode(circuit, i, child.node, view)
    if (circuit.kind[i]! >= Kind.Series) groups.push(i)
    else if (circuit.kind[i] === Kind.Motional && circuit.kind[parent] !== Kind.Chain) motional.push(i)
    circuit.isOfFrequency ||= circuit.kind[i] === Kind.Motional || circuit.kind[i] === Kind.Curve || circuit.isReactive
  }
  for (let i = 0; i < count; i++) circuit.childStart[i + 1]! += circuit.childStart[i]!
  const next = circuit.childStart.slice()
  for (let i = 1; i < count; i++) circuit.children[next[order[i]!.parent]!++] = i
  circuit.groups = Int32Array.from(groups)
  circuit.motional = Int32Array.from(motional)
  return circuit
}

interface Placed { child: Child<WiringNode>, parent: number, isUnit: boolean, through: Through | null }

function preorder(root: Child<WiringNode>): Placed[] {
  const order: Placed[] = []
  const waiting: Placed[] = [placed(root, -1)]
  while (waiting.length > 0) {
    const next = waiting.pop()!
    const index = order.push(next) - 1
    const { node } = next.child
    if (!isGroup(node)) continue
    if (next.through) waiting.push({ child: { lead: null, node: { ...node, id: `${node.id}/behind` } }, parent: index, isUnit: false, through: null })
    else for (let k = node.children.length - 1; k >= 0; k--) waiting.push(placed(node.children[k]!, index))
  }
  return order
}

function placed(child: Child<WiringNode>, parent: number): Placed {
  const { node } = child
  const unit = unitOf(node)
  if (unit) return { child: { lead: child.lead, node: membersOf(node.id, unit) }, parent, isUnit: true, through: null }
  return { child, parent, isUnit: false, through: (isGroup(node) && node.through) || null }
}

function writeThrough(circuit: Circuit, i: number, through: Through): void {
  circuit.kind[i] = Kind.Through
  circuit.throughs.push(i)
  circuit.isReactive ||= isReactive(through)
  circuit.values.set(valuesOf(passingOf(through)), i * VALUES_PER_NODE)
}

/** What stands before a group as the solver reads it. */
export const valuesOf = ({ ratio, seriesOhm, seriesH, elastance }: Passing): number[] => [ratio, seriesOhm, seriesH, elastance]

function measure(circuit: Circuit, i: number, { curve, factor, beyondOhm }: Omit<Measured, 'nodes'>): void {
  const known = circuit.curves.find(m => m.factor === factor && m.beyondOhm === beyondOhm && isSameCurve(m.curve, curve))
  if (known) known.nodes.push(i)
  else circuit.curves.push({ curve, factor, beyondOhm, nodes: [i] })
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
  const element = view(asWired(node.load) as SingleLoad)
  const at = i * VALUES_PER_NODE
  switch (element.kind) {
    case 'open':
      circuit.kind[i] = Kind.Open
      break
    case 'resistor':
      circuit.kind[i] = Kind.Resistor
      circuit.values[at] = element.ohm
      break
    case 'curve':
      circuit.kind[i] = Kind.Curve
      measure(circuit, i, element)
      break
    case 'motional':
      circuit.kind[i] = Kind.Motional
      circuit.values.set([element.reOhm, element.leH, element.qms / element.fsHz, element.qms * element.fsHz, element.resOhm], at)
  }
}
