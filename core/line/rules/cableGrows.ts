import type { Group } from '#core/job/schema'
import { conductorOhmPerM } from '#core/network/cable'
import { isGroup } from '#core/network/tree'
import { writeCable, type Cable } from '#core/quantity/cable'
import { found, type Rule } from './rule'

/** Less than a gauge apart (26 %) is one size in two systems. */
const A_SIZE = 1.2

export interface Growth { nodeId: string, thin: Cable, thick: Cable }

/** The first place of a line where the cable is thicker than on the way to it; null for none. */
export function growthOf(wiring: Group): Growth | null {
  const visit = (group: Group, cameThrough: Cable | null): Growth | null => {
    let thinnest = cameThrough
    for (const { lead, node } of group.children) {
      const before = group.kind === 'chain' ? thinnest : cameThrough
      // What nobody stated the size of is neither thick nor thin.
      const own = lead !== null && lead.lengthM > 0 ? lead.cable : null
      if (own && before && conductorOhmPerM(before) > A_SIZE * conductorOhmPerM(own)) return { nodeId: node.id, thin: before, thick: own }
      const here = own && (!before || conductorOhmPerM(own) > conductorOhmPerM(before)) ? own : before
      if (group.kind === 'chain') thinnest = here
      const inner = isGroup(node) ? visit(node, here) : null
      if (inner) return inner
    }
    return null
  }
  return visit(wiring, null)
}

/** Near the amplifier a run carries all of the current, far out a part of it: thick comes first. */
export const cableGrows: Rule = (line) => {
  const growth = growthOf(line.output.wiring)
  if (!growth) return []
  const drop = line.drops.find(d => d.nodeId === growth.nodeId)
  const label = drop?.label ?? line.throughs.find(t => t.nodeId === growth.nodeId)?.through.label ?? 'a group'
  return [found(line, { code: 'cable-grows', grade: 'tight', facts: { label, thin: writeCable(growth.thin), thick: writeCable(growth.thick) } }, drop ? growth.nodeId : null)]
}
