import { isGroup, nominalOhmOf, type Child, type GroupNode, type WiringNode } from '#core/network/tree'

/** The tree with the branch of one node changed; `after` also gets to change what follows it under the same parent. */
export function withBranchChanged(
  root: WiringNode, nodeId: string, change: (branch: Child<WiringNode>) => Child<WiringNode>,
  after: (rest: Child<WiringNode>[], parent: GroupNode) => Child<WiringNode>[] = rest => rest,
): WiringNode {
  if (!isGroup(root)) return root
  const at = root.children.findIndex(c => c.node.id === nodeId)
  if (at < 0) return { ...root, children: root.children.map(c => ({ ...c, node: withBranchChanged(c.node, nodeId, change, after) })) }
  const children = [...root.children.slice(0, at), change(root.children[at]!), ...after(root.children.slice(at + 1), root)]
  return { ...root, children }
}

/** The tree with the load of one speaker so many times what it is: a tap of so many times the ohms draws that part of its watts. */
export function withLoadTimes(root: WiringNode, nodeId: string, times: number): WiringNode {
  return withBranchChanged(root, nodeId, (branch) => {
    const { node } = branch
    if (node.kind !== 'speaker') return branch
    const load = node.load.kind === 'tap' ? { ...node.load, tapW: node.load.tapW / times } : { kind: 'nominal' as const, nominalOhm: nominalOhmOf(node.load) * times }
    return { ...branch, node: { ...node, load } }
  })
}
