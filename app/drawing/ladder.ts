import { likenessOf } from '#core/quantity/same'
import { isGroup } from '#core/network/tree'
import type { Branch, Chain, Speaker, WireNode } from '#core/job/schema'

/** A line drawn between its two conductors: parallel members side by side, series members one below the other. */

const CELL = { width: 96, height: 62 } as const
export const RADIUS = 20

export interface LadderUnit { speaker: Speaker, count: number, x: number, y: number }
export interface LadderDrawing { width: number, height: number, units: LadderUnit[], wires: string[] }

/** More parallel columns than this are drawn as one with its number, where they are alike. */
const MOST_COLUMNS = 6

interface Box { width: number, height: number, paint: (x: number, y: number, height: number, into: LadderDrawing) => void }

export function drawLadder(chain: Chain): LadderDrawing {
  const drawing: LadderDrawing = { width: 0, height: 0, units: [], wires: [] }
  const box = parallel(chain.children)
  box.paint(0, 0, box.height, drawing)
  drawing.width = Math.max(CELL.width, box.width)
  drawing.height = Math.max(CELL.height, box.height)
  return drawing
}

function boxOf(node: WireNode, count = 1): Box {
  if (!isGroup(node)) {
    return {
      width: CELL.width, height: CELL.height,
      paint: (x, y, height, into) => {
        const cx = x + CELL.width / 2
        const cy = y + height / 2
        into.units.push({ speaker: node, count, x: cx, y: cy })
        into.wires.push(`${cx},${y} ${cx},${cy - RADIUS}`, `${cx},${cy + RADIUS} ${cx},${y + height}`)
      },
    }
  }
  return node.kind === 'series' ? series(node.children, count) : parallel(node.children)
}

function series(members: Branch[], count: number): Box {
  const boxes = gather(members, 4).map(({ node, times }) => boxOf(node, times * count))
  const height = boxes.reduce((sum, b) => sum + b.height, 0)
  const width = Math.max(CELL.width, ...boxes.map(b => b.width))
  return {
    width, height,
    paint: (x, y, given, into) => {
      const stretch = given / height
      let top = y
      for (const box of boxes) {
        box.paint(x + (width - box.width) / 2, top, box.height * stretch, into)
        top += box.height * stretch
      }
    },
  }
}

function parallel(members: Branch[]): Box {
  const boxes = gather(members, MOST_COLUMNS).map(({ node, times }) => boxOf(node, times))
  const width = boxes.reduce((sum, b) => sum + b.width, 0)
  const height = Math.max(CELL.height, ...boxes.map(b => b.height))
  return {
    width, height,
    paint: (x, y, given, into) => {
      let left = x
      const centres = boxes.map((box) => {
        box.paint(left, y, given, into)
        left += box.width
        return left - box.width / 2
      })
      if (centres.length > 1) into.wires.push(`${centres[0]},${y} ${centres.at(-1)},${y}`, `${centres[0]},${y + given} ${centres.at(-1)},${y + given}`)
    },
  }
}

/** Runs of members that are alike, drawn once with their number when there are too many to draw singly. */
function gather(members: Branch[], most: number): { node: WireNode, times: number }[] {
  if (members.length <= most) return members.map(m => ({ node: m.node, times: 1 }))
  const runs: { node: WireNode, times: number, likeness: string }[] = []
  for (const { node } of members) {
    const likeness = kindOfNode(node)
    const last = runs.at(-1)
    if (last?.likeness === likeness) last.times++
    else runs.push({ node, times: 1, likeness })
  }
  return runs
}

function kindOfNode(node: WireNode): string {
  return isGroup(node) ? `${node.kind}(${node.children.map(b => kindOfNode(b.node)).join()})` : likenessOf(node.load)
}
