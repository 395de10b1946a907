import { asWired, isGroup, nominalOhmOf, type Child, type GroupNode, type Load, type SingleLoad, type WiringNode } from '#core/network/tree'

/**
 * The tree with the branch of one node changed; `after` also gets to change what follows it under the same parent. What is not on the way to it stays the
 * same thing.
 */
export function withBranchChanged(
  root: WiringNode, nodeId: string, change: (branch: Child<WiringNode>) => Child<WiringNode>,
  after: (rest: Child<WiringNode>[], parent: GroupNode) => Child<WiringNode>[] = rest => rest,
): WiringNode {
  if (!isGroup(root)) return root
  const at = root.children.findIndex(c => c.node.id === nodeId)
  if (at < 0) {
    for (const [k, child] of root.children.entries()) {
      const node = withBranchChanged(child.node, nodeId, change, after)
      if (node !== child.node) return { ...root, children: root.children.with(k, { ...child, node }) }
    }
    return root
  }
  const children = [...root.children.slice(0, at), change(root.children[at]!), ...after(root.children.slice(at + 1), root)]
  return { ...root, children }
}

/** The tree with one node put in another's place, its lead kept. */
export function withNode(root: WiringNode, nodeId: string, make: (node: WiringNode) => WiringNode): WiringNode {
  return withBranchChanged(root, nodeId, branch => ({ ...branch, node: make(branch.node) }))
}

/** What a load is to the line, Ω, as its label says; null for one that is off. */
export function labelOhm(load: Load): number | null {
  const wired = asWired(load)
  return wired.kind !== 'tap' ? nominalOhmOf(wired) : wired.tapW > 0 ? wired.ratedV ** 2 / wired.tapW : null
}

/** A load of so many times the ohms, at every frequency: turns that touch leave less of a coil, copper and inductance alike. */
function timesLoad(load: Load, times: number): Load {
  const one = (single: SingleLoad): SingleLoad => {
    switch (single.kind) {
      case 'nominal': return { ...single, nominalOhm: single.nominalOhm * times }
      case 'motional': return { ...single, nominalOhm: single.nominalOhm * times, reOhm: single.reOhm * times, leH: single.leH * times }
      case 'curve': return { ...single, nominalOhm: single.nominalOhm * times, reOhm: single.reOhm === null ? null : single.reOhm * times, points: single.points.map(([hz, ohm, deg]) => [hz, ohm * times, deg]) }
      case 'tap': return { ...single, tapW: single.tapW / times }
    }
  }
  const wired = asWired(load)
  return wired.kind === 'members' ? { ...wired, members: wired.members.map(m => one(m) as typeof m) } : one(wired)
}

/** The tree with the load of one speaker so many times what it is. */
export const withLoadTimes = (root: WiringNode, nodeId: string, times: number): WiringNode =>
  withNode(root, nodeId, node => node.kind === 'speaker' ? { ...node, load: timesLoad(node.load, times) } : node)

/** What stands in the way is a resistance of its own; its id says whose. */
export const inTheWay = (nodeId: string, ohm: number): Child<WiringNode> => ({ lead: null, node: { kind: 'speaker', id: `${nodeId} in the way`, load: { kind: 'nominal', nominalOhm: ohm } } })

/** The tree with so many ohms in series with one speaker or group. */
export const withSeriesOhm = (root: WiringNode, nodeId: string, ohm: number): WiringNode =>
  withNode(root, nodeId, node => ({ kind: 'series', id: `${nodeId} and what is in its way`, children: [inTheWay(nodeId, ohm), { lead: null, node }] }))

/** The tree with so many ohms in the run before a node, so that all that it feeds gets less. */
export function withOhmInRun(root: WiringNode, nodeId: string, ohm: number): WiringNode {
  if (!isGroup(root)) return root
  const at = root.children.findIndex(c => c.node.id === nodeId)
  if (at < 0) {
    for (const [k, child] of root.children.entries()) {
      const node = withOhmInRun(child.node, nodeId, ohm)
      if (node !== child.node) return { ...root, children: root.children.with(k, { ...child, node }) }
    }
    return root
  }
  if (root.kind !== 'chain') return withSeriesOhm(root, nodeId, ohm)
  const [first, ...rest] = root.children.slice(at) as [Child<WiringNode>, ...Child<WiringNode>[]]
  const onward: WiringNode = { kind: 'chain', id: `${nodeId} and onward`, children: [{ ...first, lead: null }, ...rest] }
  const node: WiringNode = { kind: 'series', id: `${nodeId} and onward, behind what is in the way`, children: [inTheWay(nodeId, ohm), { lead: null, node: onward }] }
  return { ...root, children: [...root.children.slice(0, at), { lead: first.lead, node }] }
}
