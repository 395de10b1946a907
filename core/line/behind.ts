import type { Chain, Group, LineThrough, Speaker, WireNode } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'

/** Controls and transformers of a line, and who hangs behind them. */

/** A control or a transformer; `nodeId` is the group that hangs behind it. `inSeries`: it is a member of a series, or stands in one. */
export interface ThroughGroup { nodeId: string, through: LineThrough, speakers: Speaker[], inSeries: boolean }

/** What of a line hangs behind what. */
export interface Hangs {
  /** In wiring order. */
  all: ThroughGroup[]
  /** For each speaker those before it, the nearest to the amplifier first. */
  behind: ReadonlyMap<string, ThroughGroup[]>
  /** For each speaker in a series those that its current flows through besides: off, they silence it. */
  inSeriesWith: ReadonlyMap<string, ThroughGroup[]>
}

export function throughsOf(wiring: Chain): Hangs {
  const all: ThroughGroup[] = []
  const behind = new Map<string, ThroughGroup[]>()
  const inSeriesWith = new Map<string, ThroughGroup[]>()
  const visit = (group: Group, above: ThroughGroup[], isInSeries: boolean): void => {
    const inSeries = isInSeries || group.kind === 'series'
    const first = all.length
    for (const { node } of group.children) {
      if (!isGroup(node)) {
        if (above.length > 0) behind.set(node.id, above)
        continue
      }
      if (!node.through) {
        visit(node, above, inSeries)
        continue
      }
      const held = { nodeId: node.id, through: node.through, speakers: speakersOf(node), inSeries }
      all.push(held)
      visit(node, [...above, held], inSeries)
    }
    if (group.kind === 'series') for (const { id } of speakersOf(group)) inSeriesWith.set(id, [...inSeriesWith.get(id) ?? [], ...all.slice(first)])
  }
  visit(wiring, [], false)
  return { all, behind, inSeriesWith }
}

/** A control fully up; anything else as it is. */
export const turnedUp = (through: LineThrough): LineThrough => through.kind === 'control' ? { ...through, setDb: 0 } : through

/** A control without its loss; anything else as it is. */
export const lossless = (through: LineThrough): LineThrough => through.kind === 'control' ? { ...through, insertionDb: null } : through

/** The wiring with every control fully up; itself where none is turned down. */
export function fullyUp<N extends WireNode | Chain>(node: N): N {
  if (!isGroup(node)) return node
  const { through } = node as Group
  const isDown = through?.kind === 'control' && through.setDb !== 0 && through.setDb !== null
  let touched = isDown
  const children = node.children.map((child) => {
    const inner = fullyUp(child.node)
    if (inner === child.node) return child
    touched = true
    return { ...child, node: inner }
  })
  return touched ? { ...node, children, ...(isDown ? { through: turnedUp(through) } : {}) } : node
}
