import type { Branch, Group } from '#core/job/sections/wiring/schema'
import { isGroup, type GroupNode } from '#core/network/tree'

/** The run that a node hangs on, from it to the end; null where it is no place of a run: inside a series, or not there. */
export function findOnChain(group: Group, nodeId: string): { behind: Branch[] } | null {
  const at = group.children.findIndex(({ node }) => node.id === nodeId)
  if (at >= 0) return group.kind === 'chain' ? { behind: group.children.slice(at) } : null
  for (const { node } of group.children) {
    const found = isGroup(node) ? findOnChain(node, nodeId) : null
    if (found) return found
  }
  return null
}

/** The same of a tree as the solver has it, perhaps with a fault in it: the place is then what holds it. */
export function solvedOutward(group: GroupNode, nodeId: string): GroupNode | null {
  const at = group.children.findIndex(({ node }) => holds(node, nodeId))
  if (at < 0) return null
  const { node } = group.children[at]!
  // A run inside, as behind a bad joint: parted at the place, what is before it is not read.
  const inner = isGroup(node) && node.id !== nodeId ? solvedOutward(node, nodeId) : null
  if (inner) return inner
  return group.kind === 'chain' ? { ...group, children: group.children.slice(at).map((child, k) => k === 0 ? { ...child, lead: null } : child) } : null
}

/** Whether this is the node, or the node lies in it. */
export const holds = (node: GroupNode['children'][number]['node'], nodeId: string): boolean => node.id === nodeId || (isGroup(node) && node.children.some(child => holds(child.node, nodeId)))
