import { isGroup } from '#core/network/tree'
import type { Branch, Chain, Speaker, WireNode } from '#core/job/schema'
import type { DropFacts } from '#core/match/facts'

/** Places of everything on one rail, in px. The drawing follows from the wiring alone; nothing is dragged into place. */

export const TAG = { width: 52, height: 54, roof: 9 } as const
/** A wide window draws longer rails, so that its width is used. */
const CELL = { least: 58, most: 84, mostWide: 132, wide: 1000 } as const
const ABOVE_RAIL = 21
const STEM = 12
const LEVEL = 16
const MARKS = 17
const BRACKET = 16
/** Edges of those behind the first of a fold, and the range of their volts under it. */
const BEHIND = 8
/** Room at the left for the terminal, at the right for the wire that goes on in the next row. */
const LEFT = 26
const RIGHT = 8

/** A tag: one speaker, or equals side by side that are drawn as one (`fold`: all of them, `speaker` the first). */
export interface TagPlace { speaker: Speaker, fold: Speaker[] | null, x: number, y: number, row: number, width: number }
/** A run of cable: weight 0 to 1 by its current, volts 0 to 1 by what is left of them. */
export interface Reach { id: string, path: string, weight: number, volts: number, lengthM: number | null, textX: number, textY: number }
export interface Wire { points: string, weight: number, volts: number }
/** Where a rail goes on in the next row: its end at the right, and where it comes in again. */
export interface Turn { x: number, y: number }
export interface Bracket { id: string, x1: number, x2: number, y: number, text: string }
interface Size { width: number, height: number, railY: number }
export interface RailDrawing extends Size { tags: TagPlace[], reaches: Reach[], wires: Wire[], brackets: Bracket[], turns: Turn[] }

type Facts = ReadonlyMap<string, Pick<DropFacts, 'ampsShare' | 'lossDb'>>

/** A place on the rail: a branch, or several of equals. */
interface Item { branch: Branch, fold: Speaker[] | null }
/** Cells of a fold: room for its labels and its range of watts and volts. */
const FOLD_CELLS = 2

function itemsOf(chain: Chain, folds: readonly string[][]): Item[] {
  const firsts = new Map(folds.map(ids => [ids[0]!, ids.length]))
  const items: Item[] = []
  for (let k = 0; k < chain.children.length; k++) {
    const count = firsts.get(chain.children[k]!.node.id)
    const fold = count === undefined ? null : chain.children.slice(k, k + count).map(b => b.node as Speaker)
    items.push({ branch: chain.children[k]!, fold })
    if (fold) k += fold.length - 1
  }
  return items
}
const cellsOfItem = ({ branch, fold }: Item) => fold ? FOLD_CELLS : cellsOf(branch.node)

/** How many rows a rail takes with every tag drawn. */
export function rowsOfRail(chain: Chain, width: number): number {
  return rowsOf(itemsOf(chain, []), Math.max(1, Math.floor((width - LEFT - RIGHT) / CELL.least + 1e-9))).length
}

/** @param folds stretches of speakers beside each other on the rail that are drawn as one tag */
export function drawRail(chain: Chain, facts: Facts, width: number, folds: readonly string[][] = []): RailDrawing {
  const items = itemsOf(chain, folds)
  const cells = items.reduce((sum, item) => sum + cellsOfItem(item), 0)
  const room = width - LEFT - RIGHT
  const cell = Math.max(CELL.least, Math.min(width > CELL.wide ? CELL.mostWide : CELL.most, room / Math.max(1, cells)))
  const perRow = Math.max(1, Math.floor(room / cell + 1e-9))
  const drawing: RailDrawing = { width, height: 0, railY: ABOVE_RAIL, tags: [], reaches: [], wires: [], brackets: [], turns: [] }

  let top = 0
  let lastX = 0
  let lastY = ABOVE_RAIL
  for (const [row, inRow] of rowsOf(items, perRow).entries()) {
    const branches = inRow.map(item => item.branch)
    const railY = top + ABOVE_RAIL
    const depth = Math.max(0, ...branches.map(b => depthOf(b.node)))
    const tagTop = railY + STEM + LEVEL * depth
    const pen = new Pen(drawing, facts, cell, tagTop, row)
    let x = LEFT
    for (const [k, { branch, fold }] of inRow.entries()) {
      const attachX = x + (fold ? FOLD_CELLS / 2 : attachOf(branch.node)) * cell
      const [amps, volts] = fold ? currentOf({ kind: 'chain', id: '', children: fold.map(node => ({ lead: null, node })) }, facts) : currentOf(branch.node, facts)
      const goesOn = k === 0 && row > 0
      // In the next row it goes on from the left. A wire drawn all the way back ran through the lengths and around the selection.
      const [right, left] = [width - 4, LEFT - 5]
      if (goesOn) drawing.turns.push({ x: right, y: lastY }, { x: left, y: railY })
      const path = goesOn ? `M${lastX},${lastY}H${right}M${left},${railY}H${attachX}` : `M${lastX},${lastY}H${attachX}`
      const textX = k === 0 ? (LEFT + attachX) / 2 - (row === 0 ? 4 : 8) : (lastX + attachX) / 2
      drawing.reaches.push({ id: branch.node.id, path, weight: amps, volts, lengthM: branch.lead?.lengthM ?? null, textX, textY: railY - 7 })
      if (fold) pen.fold(fold, attachX, railY)
      else pen.paint(branch.node, x, railY, true)
      lastX = attachX
      lastY = railY
      x += cellsOfItem({ branch, fold }) * cell
    }
    top = tagTop + TAG.height + MARKS + (branches.some(b => holdsSeries(b.node)) ? BRACKET : 0) + (inRow.some(item => item.fold) ? BEHIND : 0) + 4
  }
  drawing.height = Math.max(top, ABOVE_RAIL + STEM + 24)
  drawing.width = Math.max(width, ...drawing.tags.map(t => t.x + t.width / 2 + RIGHT))
  accumulate(drawing.reaches)
  return drawing
}

/** A reach carries what its own drop and all behind it take. */
function accumulate(reaches: Reach[]): void {
  let sum = 0
  for (let k = reaches.length - 1; k >= 0; k--) {
    sum += reaches[k]!.weight
    reaches[k]!.weight = Math.min(1, sum)
  }
}

function rowsOf(items: Item[], perRow: number): Item[][] {
  const rows: Item[][] = []
  let used = perRow
  for (const item of items) {
    const cells = cellsOfItem(item)
    if (used + cells > perRow) {
      rows.push([])
      used = 0
    }
    rows.at(-1)!.push(item)
    used += cells
  }
  return rows
}

function cellsOf(node: WireNode): number {
  return isGroup(node) ? Math.max(1, node.children.reduce((sum, b) => sum + cellsOf(b.node), 0)) : 1
}

/** Where a node hangs from its rail, in cells from its left. A star hangs by its middle, the others by their first. */
function attachOf(node: WireNode): number {
  if (!isGroup(node) || node.children.length === 0) return 0.5
  return node.kind === 'star' ? cellsOf(node) / 2 : attachOf(node.children[0]!.node)
}

function depthOf(node: WireNode): number {
  if (!isGroup(node)) return 0
  const inner = Math.max(0, ...node.children.map(b => depthOf(b.node)))
  return node.kind === 'series' ? inner : inner + 1
}

function holdsSeries(node: WireNode): boolean {
  return isGroup(node) && (node.kind === 'series' || node.children.some(b => holdsSeries(b.node)))
}

/** Current into a node as part of the head's, and the volts left there. */
function currentOf(node: WireNode, facts: Facts): [amps: number, volts: number] {
  if (!isGroup(node)) {
    const drop = facts.get(node.id)
    return [drop?.ampsShare ?? 0, drop ? 10 ** (drop.lossDb / 20) : 1]
  }
  const inner = node.children.map(b => currentOf(b.node, facts))
  if (inner.length === 0) return [0, 1]
  const amps = inner.map(([a]) => a)
  return [node.kind === 'series' ? Math.max(...amps) : amps.reduce((a, b) => a + b, 0), inner[0]![1]]
}

class Pen {
  constructor(
    private readonly into: RailDrawing, private readonly facts: Facts, private readonly cell: number, private readonly tagTop: number,
    private readonly row: number,
  ) {}

  /** Paints a node whose left is x and that hangs from y; `fed`: a stem comes down to it. */
  paint(node: WireNode, x: number, y: number, fed: boolean): void {
    const attachX = x + attachOf(node) * this.cell
    if (!isGroup(node)) {
      if (fed) this.wire(node, `${attachX},${y} ${attachX},${this.tagTop}`)
      this.into.tags.push({ speaker: node, fold: null, x: attachX, y: this.tagTop, row: this.row, width: TAG.width })
      return
    }
    if (node.children.length === 0) return
    if (node.kind === 'series') return this.series(node.children, x, y, fed, node)
    const next = y + LEVEL
    let childX = x
    if (fed) this.wire(node, `${attachX},${y} ${attachX},${node.kind === 'star' ? y + 5 : next}`)
    for (const { node: child } of node.children) {
      const at = childX + attachOf(child) * this.cell
      this.wire(child, node.kind === 'star' ? `${attachX},${y + 5} ${at},${next}` : `${attachX},${next} ${at},${next}`)
      this.paint(child, childX, next, true)
      childX += cellsOf(child) * this.cell
    }
  }

  /** Equals as one tag, hung by its middle. */
  fold(speakers: Speaker[], x: number, y: number): void {
    this.wire(speakers[0]!, `${x},${y} ${x},${this.tagTop}`, currentOf({ kind: 'chain', id: '', children: speakers.map(node => ({ lead: null, node })) }, this.facts))
    this.into.tags.push({ speaker: speakers[0]!, fold: speakers, x, y: this.tagTop, row: this.row, width: FOLD_CELLS * this.cell - (CELL.least - TAG.width) })
  }

  private series(children: Branch[], x: number, y: number, fed: boolean, node: WireNode): void {
    const middle = this.tagTop + TAG.height * 0.62
    let childX = x
    for (const [k, { node: child }] of children.entries()) {
      // Members are threaded one after the other: the wire goes in at the left of a tag and out at its right.
      if (k > 0) this.wire(child, `${childX - this.cell / 2 + TAG.width / 2},${middle} ${childX + this.cell / 2 - TAG.width / 2},${middle}`)
      this.paint(child, childX, y, fed && k === 0)
      childX += cellsOf(child) * this.cell
    }
    const bottom = this.tagTop + TAG.height + MARKS + 2
    this.into.brackets.push({ id: node.id, x1: x + this.cell / 2 - TAG.width / 2, x2: childX - this.cell / 2 + TAG.width / 2, y: bottom, text: 'in series' })
  }

  private wire(node: WireNode, points: string, [weight, volts] = currentOf(node, this.facts)): void {
    this.into.wires.push({ points, weight, volts })
  }
}
