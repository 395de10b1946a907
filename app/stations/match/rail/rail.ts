import { isGroup } from '#core/network/tree'
import type { Branch, Chain, Group, LineThrough, Speaker, WireNode } from '#core/job/schema'
import type { DropFacts } from '#core/line/facts'

/** Places of everything on one rail, in px. The drawing follows from the wiring alone; nothing is dragged into place. */

export const TAG = { width: 52, height: 54, roof: 9 } as const
/** The size of type in which a tap or a coil fits its tag: a letter of the figures' face is 0.6 of its size wide. */
export const wiringPx = (text: string, tagWidth: number): number => Math.min(15, Math.floor((tagWidth - 5) / (0.6 * text.length) * 2) / 2)

/** A wide window draws longer rails, so that its width is used. */
const CELL = { least: 58, most: 84, mostWide: 132, wide: 1000 } as const
const ABOVE_RAIL = 21
const STEM = 12
const LEVEL = 16
/** The rail behind a control runs so far below the one that it hangs on: room for its lengths. */
const BEHIND_RAIL = 26
/** Where wire goes into a box and comes out of it, from its middle. */
const PORT = 15
const MARKS = 17
const BRACKET = 16
/** A line with a zone's name under its tags. */
const ZONE = 19
/** Edges of those behind the first of a fold, and the range of their volts under it. */
const BEHIND = 8
/** Room at the left for the terminal, at the right for the wire that goes on in the next row. */
const LEFT = 26
const RIGHT = 8

/** A tag: one speaker, or equals side by side that are drawn as one (`fold`: all of them, `speaker` the first). */
export interface TagPlace { speaker: Speaker, fold: Speaker[] | null, x: number, y: number, row: number, width: number }
/** A control or a transformer; `id` is the group behind it. */
export interface BoxPlace { id: string, through: LineThrough, x: number, y: number, row: number }
/** A run of cable: weight 0 to 1 by its current, volts 0 to 1 by what is left of them. */
export interface Reach { id: string, path: string, weight: number, volts: number, lengthM: number | null, textX: number, textY: number }
export interface Wire { points: string, weight: number, volts: number }
/** Where a rail goes on in the next row: its end at the right, and where it comes in again. */
export interface Turn { x: number, y: number }
/** Tags side by side that are in one zone. */
export interface Span { of: 'zone' | 'space', id: string, row: number, x1: number, x2: number, y: number }
export interface Bracket { id: string, x1: number, x2: number, y: number, text: string }
interface Size { width: number, height: number, railY: number }
export interface RailDrawing extends Size {
  tags: TagPlace[]
  boxes: BoxPlace[]
  reaches: Reach[]
  wires: Wire[]
  brackets: Bracket[]
  spans: Span[]
  turns: Turn[]
}

type Facts = ReadonlyMap<string, Pick<DropFacts, 'ampsShare' | 'lossDb'>>

/**
 * A place on the rail: a branch; several of equals; a control (`box`) that a part of the run hangs behind. What hangs behind it follows
 * as places of its own (`inside`), on a rail below: a run of any length wraps like the rail itself.
 */
interface Item { branch: Branch, fold: Speaker[] | null, box: LineThrough | null, inside: boolean }
/** Cells of a fold: room for its labels and its range of watts and volts. */
const FOLD_CELLS = 2

function itemsOf(chain: Group | Chain, folds: readonly string[][], inside = false): Item[] {
  const firsts = new Map(folds.map(ids => [ids[0]!, ids.length]))
  const items: Item[] = []
  for (let k = 0; k < chain.children.length; k++) {
    const branch = chain.children[k]!
    const { node } = branch
    if (!inside && node.kind === 'chain' && node.through && node.children.length > 0) {
      items.push({ branch, fold: null, box: node.through, inside: false }, ...itemsOf(node, folds, true))
      continue
    }
    const count = firsts.get(node.id)
    const fold = count === undefined ? null : chain.children.slice(k, k + count).map(b => b.node as Speaker)
    items.push({ branch, fold, box: null, inside })
    if (fold) k += fold.length - 1
  }
  return items
}
const cellsOfItem = ({ branch, fold, box }: Item) => box ? 1 : fold ? FOLD_CELLS : cellsOf(branch.node)
const asChain = (speakers: readonly Speaker[]): Group => ({ kind: 'chain', id: '', children: speakers.map(node => ({ lead: null, node })) })

/** A run of wire as far as it is drawn, and the lengths that it was drawn in. */
interface Run { x: number, y: number, row: number, reaches: Reach[] }

/** How many rows a rail takes with every tag drawn. */
export function rowsOfRail(chain: Chain, width: number): number {
  return rowsOf(itemsOf(chain, []), Math.max(1, Math.floor((width - LEFT - RIGHT) / CELL.least + 1e-9))).length
}

/** @param folds stretches of speakers beside each other on the rail that are drawn as one tag */
export function drawRail(chain: Chain, facts: Facts, width: number, folds: readonly string[][] = [], spaces: SpaceOf = NO_SPACES): RailDrawing {
  const items = itemsOf(chain, folds)
  const cells = items.reduce((sum, item) => sum + cellsOfItem(item), 0)
  const room = width - LEFT - RIGHT
  const cell = Math.max(CELL.least, Math.min(width > CELL.wide ? CELL.mostWide : CELL.most, room / Math.max(1, cells)))
  const perRow = Math.max(1, Math.floor(room / cell + 1e-9))
  const drawing: RailDrawing = { width, height: 0, railY: ABOVE_RAIL, tags: [], boxes: [], reaches: [], wires: [], brackets: [], spans: [], turns: [] }

  let top = 0
  /** Heights of the rail, and of the one behind a control, row by row. */
  const heights: { main: number, behind: number }[] = []
  const main: Run = { x: 0, y: ABOVE_RAIL, row: 0, reaches: [] }
  const runs = [main]
  let behind: Run = main
  for (const [row, inRow] of rowsOf(items, perRow).entries()) {
    const railY = top + ABOVE_RAIL
    const behindY = railY + BEHIND_RAIL
    heights.push({ main: railY, behind: behindY })
    const tagTop = Math.max(...inRow.map(({ branch, box, inside }) => (inside || box ? behindY : railY) + STEM + (box ? 0 : LEVEL * depthOf(branch.node))))
    const pen = new Pen(drawing, facts, cell, tagTop, row)
    let x = LEFT
    for (const item of inRow) {
      const { branch, fold, box, inside } = item
      const run = inside ? behind : main
      const runY = inside ? behindY : railY
      const middle = x + (box || fold ? cellsOfItem(item) / 2 : attachOf(branch.node)) * cell
      const attachX = box ? middle - PORT : middle
      const [weight, volts] = currentOf(fold ? asChain(fold) : branch.node, facts)
      const isFirst = run.row < row || run.reaches.length === 0
      const path = wayOn(run, { x: attachX, row }, heights.map(h => inside ? h.behind : h.main), drawing)
      const textX = run.row < row ? (LEFT + attachX) / 2 - 8 : isFirst && run === main ? (LEFT + attachX) / 2 - 4 : (run.x + attachX) / 2
      const reach = { id: branch.node.id, path, weight, volts, lengthM: branch.lead?.lengthM ?? null, textX, textY: runY - 7 }
      drawing.reaches.push(reach)
      run.reaches.push(reach)
      Object.assign(run, { x: attachX, y: runY, row })
      if (box) {
        pen.box(branch.node.id, box, middle)
        pen.wires(`${attachX},${railY} ${attachX},${tagTop}`, [weight, volts])
        behind = { x: middle + PORT, y: behindY, row, reaches: [] }
        runs.push(behind)
        pen.wires(`${behind.x},${tagTop} ${behind.x},${behindY}`, [weight, firstVolts(branch.node, facts)])
      }
      else if (fold) pen.fold(fold, attachX, runY)
      else pen.paint(branch.node, x, runY, true)
      x += cellsOfItem(item) * cell
    }
    const hangsSeries = inRow.some(({ branch, box }) => !box && holdsSeries(branch.node))
    top = tagTop + TAG.height + MARKS + (hangsSeries ? BRACKET : 0) + (inRow.some(item => item.fold) ? BEHIND : 0) + 4
    const tags = drawing.tags.filter(t => t.row === row)
    for (const [of, idOf] of [['zone', (s: Speaker) => s.zoneId], ['space', (s: Speaker) => spaces.get(s.id) ?? null]] as const) {
      const spans = spansOf(tags, top, of, idOf)
      drawing.spans.push(...spans)
      if (spans.length > 0) top += ZONE
    }
  }
  drawing.height = Math.max(top, ABOVE_RAIL + STEM + 24)
  drawing.width = Math.max(width, ...drawing.tags.map(t => t.x + t.width / 2 + RIGHT))
  for (const run of runs) accumulate(run.reaches)
  return drawing
}

/** The space that each speaker hangs in, by its id. */
export type SpaceOf = ReadonlyMap<string, string>
const NO_SPACES: SpaceOf = new Map()

function spansOf(tags: readonly TagPlace[], y: number, of: Span['of'], idOf: (speaker: Speaker) => string | null): Span[] {
  const spans: Span[] = []
  let before: string | null = null
  for (const { speaker, x, width, row } of tags) {
    const id = idOf(speaker)
    const last = spans.at(-1)
    if (last && id !== null && id === before) last.x2 = x + width / 2
    else if (id !== null) spans.push({ of, id, row, x1: x - width / 2, x2: x + width / 2, y })
    before = id
  }
  return spans
}

/**
 * The way from where a run stands to a place on it. In the next row it goes on from the left; a wire drawn all the way back ran through
 * the lengths and around the selection. Rows that it only passes, over what hangs behind a control, it crosses.
 */
function wayOn(run: Run, to: { x: number, row: number }, heights: readonly number[], drawing: RailDrawing): string {
  const [right, left] = [drawing.width - 4, LEFT - 5]
  let path = `M${run.x},${run.y}`
  for (let row = run.row; row < to.row; row++) {
    path += `H${right}M${left},${heights[row + 1]!}`
    drawing.turns.push({ x: right, y: row === run.row ? run.y : heights[row]! }, { x: left, y: heights[row + 1]! })
  }
  return `${path}H${to.x}`
}

/** What is left of the volts at the first place behind a control, as its cable has it. */
function firstVolts(node: WireNode, facts: Facts): number {
  return isGroup(node) && node.children[0] ? currentOf(node.children[0].node, facts)[1] : 1
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
  return isGroup(node) ? (node.through ? 1 : 0) + Math.max(1, node.children.reduce((sum, b) => sum + cellsOf(b.node), 0)) : 1
}

/** The group as it is behind what stands before it. */
function bareGroup({ through: _, ...group }: Group): Group {
  return group
}

/** Where a node hangs from its rail, in cells from its left. A star hangs by its middle, the others by their first. */
function attachOf(node: WireNode): number {
  if (!isGroup(node) || node.children.length === 0 || node.through) return 0.5
  return node.kind === 'star' ? cellsOf(node) / 2 : attachOf(node.children[0]!.node)
}

function depthOf(node: WireNode): number {
  if (!isGroup(node)) return 0
  const inner = Math.max(0, ...node.children.map(b => depthOf(b.node)))
  return (node.kind === 'series' ? inner : inner + 1) + (node.through ? 1 : 0)
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
    if (node.through) return this.behindBox(node, node.through, x, y, fed)
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

  /** A box, and the group behind it beside it, on a wire of its own. */
  private behindBox(node: Group, through: LineThrough, x: number, y: number, fed: boolean): void {
    const middle = x + this.cell / 2
    const out = y + LEVEL
    const bare = bareGroup(node)
    const current = currentOf(node, this.facts)
    if (fed) this.wires(`${middle},${y} ${middle},${this.tagTop}`, current)
    this.box(node.id, through, middle)
    const at = x + this.cell + attachOf(bare) * this.cell
    this.wires(`${middle + PORT},${this.tagTop} ${middle + PORT},${out} ${at},${out}`, current)
    this.paint(bare, x + this.cell, out, true)
  }

  box(id: string, through: LineThrough, x: number): void {
    this.into.boxes.push({ id, through, x, y: this.tagTop, row: this.row })
  }

  /** Equals as one tag, hung by its middle. */
  fold(speakers: Speaker[], x: number, y: number): void {
    this.wires(`${x},${y} ${x},${this.tagTop}`, currentOf(asChain(speakers), this.facts))
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

  private wire(node: WireNode, points: string): void {
    this.wires(points, currentOf(node, this.facts))
  }

  wires(points: string, [weight, volts]: [weight: number, volts: number]): void {
    this.into.wires.push({ points, weight, volts })
  }
}
