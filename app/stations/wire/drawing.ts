import { likenessOf } from '#core/quantity/same'
import type { Job, Output, Pair, Speaker, SpliceFields, Turn } from '#core/job/schema'
import type { Branch, Group, WireNode } from '#core/job/sections/wiring/schema'
import { spliceAt } from '#core/hands/splices'
import { speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import { plusOf } from '#core/polarity/plus'
import type { TurnedLeaf } from '#core/polarity/turned'

/** A line as its pairs lie: where each piece of it is drawn. What is drawn here is data; what it looks like is the page's. */

export const CELL = { width: 232, height: 128, joint: 44, tag: 44, plusY: 34, minusY: 58 } as const
/** So many alike, one behind the other, are drawn as one. */
const LEAST_FOLD = 4

/** A lead with the joint at its beginning and what it ends at. */
export interface Cell {
  nodeId: string
  /** All that it stands for, the first of them first, where it is drawn for several alike. */
  nodeIds: string[]
  splice: SpliceFields
  lead: Branch['lead']
  node: WireNode
  leaves: TurnedLeaf[]
  /** Its conductors as they are drawn, the one that the job takes for plus above; null: not known. */
  upper: Pair[number] | null
  lower: Pair[number] | null
  /** Whether the conductors cross where they are drawn, at its beginning and at its end; null is not known. */
  startCrossed: boolean | null
  endCrossed: boolean | null
  /** It begins at the amplifier. */
  isFirst: boolean
}

/** A run along which one lead follows the other, or members that each begin at one place. */
export interface Run {
  key: string
  /** Where it begins, in words; empty at the amplifier. */
  from: string
  /** chain: each goes on from the one before. Else each begins where the run begins. */
  kind: Group['kind']
  depth: number
  cells: Cell[]
}

type Told = Pick<Job, 'splices' | 'practice' | 'colourExceptions'>
const GROUP_WORDS = { series: 'in series', star: 'from one point', chain: 'one behind the other' } as const

export interface DrawnLine { output: Output, leaves: readonly TurnedLeaf[] }

/** The runs of a line, those that others hang on first. `open`: nodes that are drawn by themselves. */
export function runsOf(job: Told, { output, leaves }: DrawnLine, open: ReadonlySet<string> = new Set()): Run[] {
  const bySpeaker = new Map<string, TurnedLeaf[]>()
  for (const leaf of leaves) bySpeaker.set(leaf.speaker.id, [...bySpeaker.get(leaf.speaker.id) ?? [], leaf])
  const runs: Run[] = []
  const visit = (group: Group, from: string, depth: number, before: Branch | null): void => {
    let along = before
    const cells = group.children.map((branch): Cell => {
      const cell = cellOf(job, branch, group.kind === 'chain' ? along : before, bySpeaker)
      along = branch
      return cell
    })
    runs.push({ key: group.id, from, kind: group.kind, depth, cells: group.kind === 'chain' ? folded(cells, open) : cells })
    for (const branch of group.children) if (isGroup(branch.node)) visit(branch.node, groupName(job, branch.node), depth + 1, branch)
  }
  visit(output.wiring, '', 0, null)
  return runs.filter(run => run.cells.length > 0)
}

/** What a group is called where its members are drawn. */
export function groupName(job: Told, group: Group): string {
  const { joint } = spliceAt(job, group.id)
  const labels = speakersOf(group).map(s => s.label)
  const who = labels.length === 1 ? labels[0] : `${labels[0]} to ${labels.at(-1)}`
  return [group.through?.label, joint && `from ${joint}`, labels.length === 0 ? '' : who, GROUP_WORDS[group.kind]].filter(Boolean).join(', ')
}

/** Which of a pair is drawn above: what the job takes for plus, else the first. */
const aboveOf = (job: Told, pair: Pair | null): 0 | 1 => pair === null ? 0 : plusOf(job, pair) ?? 0
const crosses = (turn: Turn | null, before: 0 | 1, after: 0 | 1): boolean | null => turn === null ? null : (turn === 'crossed') !== (before !== after)

function cellOf(job: Told, { lead, node }: Branch, before: Branch | null, bySpeaker: ReadonlyMap<string, TurnedLeaf[]>): Cell {
  const splice = spliceAt(job, node.id)
  const above = aboveOf(job, splice.pair)
  const came = before === null ? 0 : aboveOf(job, spliceAt(job, before.node.id).pair)
  return {
    nodeId: node.id, nodeIds: [node.id], splice, lead, node, leaves: isGroup(node) ? [] : bySpeaker.get(node.id) ?? [],
    upper: splice.pair?.[above] ?? null, lower: splice.pair?.[above === 0 ? 1 : 0] ?? null,
    startCrossed: crosses(splice.start, came, above), endCrossed: crosses(splice.end, above, 0), isFirst: before === null,
  }
}

/** Neighbours of whom the same is said, and nothing odd, as one cell. */
function folded(cells: readonly Cell[], open: ReadonlySet<string>): Cell[] {
  const stretches: Cell[][] = []
  for (const cell of cells) {
    const last = stretches.at(-1)
    if (last && faceOf(cell, open) !== null && faceOf(cell, open) === faceOf(last[0]!, open)) last.push(cell)
    else stretches.push([cell])
  }
  return stretches.flatMap(stretch => stretch.length < LEAST_FOLD ? stretch : [{ ...stretch[0]!, nodeIds: stretch.map(c => c.nodeId) }])
}

function faceOf({ node, splice, lead, leaves, startCrossed, endCrossed, isFirst }: Cell, open: ReadonlySet<string>): string | null {
  if (isGroup(node) || isFirst || splice.joint !== '' || startCrossed || endCrossed || open.has(node.id)) return null
  return likenessOf([node.name, node.load, lead?.cable ?? null, splice.pair, splice.start, splice.end, leaves.map(l => [l.drawn, l.read, l.isLeft])])
}

/** How many cells stand side by side. */
export function perRow(widthPx: number): number {
  return Math.max(1, Math.floor((widthPx - 8) / CELL.width))
}

/** "01", "02–14" of what a cell ends at; a group by what it is. */
export function endText({ node, nodeIds, leaves }: Cell, speakers: readonly Speaker[]): string {
  if (isGroup(node)) return node.through?.label ?? (node.kind === 'series' ? 'in series' : node.kind === 'star' ? 'point' : 'branch')
  if (nodeIds.length === 1) return leaves[0]?.speaker.label ?? node.label
  const last = speakers.find(s => s.id === nodeIds.at(-1))
  return `${node.label}–${last?.label ?? ''}`
}

/** What is known of an end, as a heading and what stands under it: as it was read, else as it is drawn. */
export function stateOf({ leaves, node }: Cell): { says: string, is: 'right' | 'turned' | 'open' | 'left' } | null {
  if (isGroup(node) || leaves.length === 0) return null
  if (leaves.every(l => l.isLeft)) return { says: 'left as it is', is: 'left' }
  const taken = new Set(leaves.map(l => l.taken))
  if (taken.has(null)) return { says: 'not known', is: 'open' }
  if (taken.size > 1) return { says: 'coils opposed', is: 'turned' }
  return taken.has(1) ? { says: 'turned round', is: 'turned' } : { says: 'right way round', is: 'right' }
}

/** Where it is known from. */
export function whenceOf({ leaves, splice }: Cell): string {
  const read = leaves.some(l => l.read !== null)
  const drawn = leaves[0]?.drawn ?? null
  if (read && drawn !== null && leaves[0]!.read !== drawn) return 'read; drawn otherwise'
  if (read) return drawn === null ? 'read, not drawn' : 'read, and drawn so'
  if (drawn !== null) return 'drawn, not read yet'
  return splice.pair === null ? 'colours not named' : 'a joint is not known'
}
