import { together, type Edit } from '#core/job/edits'
import type { NewId } from '#core/hands/intents'
import { moveToNew, Sequence } from '#core/hands/many/many'
import { spotOf } from '#core/hands/spaces'
import type { Branch, Job } from '#core/job/schema'
import { speakersOf, placeOf } from '#core/job/tree'
import { allowedTapsW } from '#core/line/allowance'
import type { LineEvaluation } from '#core/line/evaluate'
import { tapDrawW } from '#core/line/facts'
import { sum } from './choices'
import { writeLp, type Program, type Row, type SolveLp } from './lp'

/**
 * The line splitter: too much for one output, and which speakers then go to which. Fewest spaces that two outputs play into, then least cable: each output's
 * run goes from the rack along the way of the line as far as its last speaker. An integer program, solved to its proven optimum.
 */
export interface LineSplit {
  feasible: boolean
  proven: boolean
  /** Runs of all parts together, m, and the least that any such split takes. */
  cableM: number
  boundM: number
  /** Lengths that are not stated count as nothing: cable is then more than said. */
  areLengthsKnown: boolean
  /** Names of spaces that are played by more than one part. */
  cutSpaces: string[]
  parts: SplitPart[]
  lp: string
}
export interface SplitPart { nodeIds: string[], labels: string[], tapsW: number, allowedW: number, cableM: number }
/** Why a line cannot be split: nothing to divide, no taps on it, or its output's power is not known. */
export type NotSplit = 'too-few' | 'no-taps' | 'power-not-known'
export const NOT_SPLIT_WORDS: Record<NotSplit, string> = {
  'too-few': 'There is nothing on this line to divide.', 'no-taps': 'Only a line of taps is divided by watts; on low impedance the wiring decides.', 'power-not-known': 'Say what this output gives first: it decides how much may hang on each.',
}

/** What goes to one part as a whole: a branch of the run, groups and what hangs behind a control undivided. `spaceIds`: all that hear it. */
interface Block { branch: Branch, atM: number, watts: number, spaceIds: ReadonlySet<string> }
/** A space cut weighs more than any cable. */
const CUT_M = 1e5

/** @param into how many outputs, the line's own included */
export async function splitLine(job: Job, line: LineEvaluation, into: number, solve: SolveLp): Promise<LineSplit | NotSplit> {
  if (line.kind !== 'constant-voltage' || line.lineV === null) return 'no-taps'
  const allowedW = allowedTapsW(line, job.practice)
  if (allowedW === null) return 'power-not-known'
  const blocks = blocksOf(job, line, line.lineV)
  if (blocks === null) return 'no-taps'
  if (blocks.length < into) return 'too-few'
  const program = programOf(blocks, into, allowedW, line.output.label)
  const lp = writeLp(program)
  const answer = await solve(lp)
  const areLengthsKnown = blocks.every(b => b.branch.lead !== null)
  if (answer.status === 'infeasible') return { feasible: false, proven: true, cableM: 0, boundM: 0, areLengthsKnown, cutSpaces: [], parts: [], lp }
  const parts = Array.from({ length: into }, (_, p): SplitPart => {
    const own = blocks.filter((_b, k) => answer.taken.has(`x${k}_${p}`))
    const speakers = own.flatMap(b => speakersOf(b.branch.node))
    const cableM = Math.max(0, ...own.map(b => b.atM))
    return { nodeIds: speakers.map(s => s.id), labels: speakers.map(s => s.label), tapsW: sum(own.map(b => b.watts)), allowedW, cableM }
  })
  const cut = job.spaces.filter(s => parts.filter(p => p.nodeIds.some(id => s.spots.some(x => x.nodeId === id))).length > 1)
  const cableM = sum(parts.map(p => p.cableM))
  return { feasible: true, proven: true, cableM, boundM: answer.objective % CUT_M, areLengthsKnown, cutSpaces: cut.map(s => s.name), parts, lp }
}

function blocksOf(job: Job, line: LineEvaluation, lineV: number): Block[] | null {
  let atM = 0
  const blocks: Block[] = []
  for (const branch of line.output.wiring.children) {
    atM += branch.lead?.lengthM ?? 0
    const speakers = speakersOf(branch.node)
    if (speakers.some(s => s.load.kind !== 'tap')) return null
    const spaceIds = new Set(speakers.flatMap(s => spotOf(job, s.id)?.space.id ?? []))
    const watts = sum(speakers.map(s => s.load.kind === 'tap' ? tapDrawW(s.load, lineV) : 0))
    blocks.push({ branch, atM, watts, spaceIds })
  }
  return blocks
}

function programOf(blocks: readonly Block[], into: number, allowedW: number, label: string): Program {
  const parts = Array.from({ length: into }, (_, p) => p)
  const spaces = [...new Set(blocks.flatMap(b => [...b.spaceIds]))]
  const minimize = new Map<string, number>()
  const rows: Row[] = []
  blocks.forEach((_, k) => rows.push({ name: `one${k}`, sum: new Map(parts.map(p => [`x${k}_${p}`, 1])), is: '=', value: 1 }))
  for (const p of parts) {
    rows.push({ name: `watts${p}`, sum: new Map(blocks.map((b, k) => [`x${k}_${p}`, b.watts])), is: '<=', value: allowedW + 1e-9 })
    // None is left empty: an output with nothing on it is no split.
    rows.push({ name: `some${p}`, sum: new Map(blocks.map((_, k) => [`x${k}_${p}`, -1])), is: '<=', value: -1 })
    // The run of a part ends at one of its blocks, and nothing of it lies behind.
    rows.push({ name: `end${p}`, sum: new Map(blocks.map((_, k) => [`y${k}_${p}`, 1])), is: '=', value: 1 })
    blocks.forEach((b, k) => {
      minimize.set(`y${k}_${p}`, b.atM)
      const beyond = blocks.flatMap((other, j): [string, number][] => other.atM > b.atM || (other.atM === b.atM && j >= k) ? [[`y${j}_${p}`, -1]] : [])
      rows.push({ name: `reach${k}_${p}`, sum: new Map([[`x${k}_${p}`, 1], ...beyond]), is: '<=', value: 0 })
    })
    spaces.forEach((spaceId, s) => blocks.forEach((b, k) => {
      if (b.spaceIds.has(spaceId)) rows.push({ name: `in${k}_${s}_${p}`, sum: new Map([[`x${k}_${p}`, 1], [`z${s}_${p}`, -1]]), is: '<=', value: 0 })
    }))
  }
  // A space is divided once, into however many parts.
  spaces.forEach((_, s) => {
    minimize.set(`c${s}`, CUT_M)
    rows.push({ name: `cut${s}`, sum: new Map([...parts.map(p => [`z${s}_${p}`, 1] as const), [`c${s}`, 1 - into]]), is: '<=', value: 1 })
  })
  // Parts are alike: the last of the line stays where it is.
  rows.push({ name: 'stays', sum: new Map([[`x${blocks.length - 1}_0`, 1]]), is: '=', value: 1 })
  return {
    remarks: [`line ${label} onto ${into} outputs, ${Number(allowedW.toFixed(3))} W of taps each`], minimize, rows,
    choices: [...blocks.flatMap((_, k) => parts.flatMap(p => [`x${k}_${p}`, `y${k}_${p}`])), ...spaces.flatMap((_, s) => [`c${s}`, ...parts.map(p => `z${s}_${p}`)])],
  }
}

/** The split as one edit: an output more for each further part, rated like the line's, with the cable that its run takes from the rack on. */
export function splitEdit(job: Job, line: LineEvaluation, split: LineSplit, newId: NewId): { edit: Edit, outputIds: string[] } | null {
  const sequence = new Sequence(job)
  const outputIds: string[] = []
  const atM = new Map<string, number>()
  let runM = 0
  for (const { lead, node } of line.output.wiring.children) atM.set(node.id, runM += lead?.lengthM ?? 0)
  for (const part of split.parts.slice(1)) {
    const moved = moveToNew(sequence.job, part.nodeIds, newId)
    if (!moved?.edit) return null
    sequence.do(moved.edit)
    outputIds.push(moved.outputId)
    let before = 0
    for (const nodeId of topOf(line, part.nodeIds)) {
      const lead = placeOf(sequence.job, nodeId).branch.lead
      const lengthM = Math.round((atM.get(nodeId)! - before) * 1000) / 1000
      before = atM.get(nodeId)!
      if (lead && lead.lengthM !== lengthM) sequence.do({ kind: 'lead.set', nodeId, was: lead, to: { ...lead, lengthM } })
    }
  }
  const edit = together(sequence.edits)
  return edit && { edit, outputIds }
}

/** The branches of the run that hold these speakers, in its order. */
function topOf(line: LineEvaluation, nodeIds: readonly string[]): string[] {
  const wanted = new Set(nodeIds)
  return line.output.wiring.children.filter(b => speakersOf(b.node).some(s => wanted.has(s.id))).map(b => b.node.id)
}

/** "07 to 12": what of the labels of a part is said. */
const labelsText = (labels: readonly string[]) => labels.length > 4 ? `${labels[0]} … ${labels.at(-1)} (${labels.length})` : labels.join(', ')
export function splitWords(label: string, split: LineSplit, outputs: readonly string[]): string {
  const [first, ...rest] = split.parts
  const parts = [`${labelsText(first!.labels)} stay on ${label}`, ...rest.map((p, k) => `${labelsText(p.labels)} go to ${outputs[k] ?? '?'}`)].join('; ')
  const cut = split.cutSpaces.length === 0 ? 'no space is divided' : `${split.cutSpaces.join(', ')} ${split.cutSpaces.length === 1 ? 'hears' : 'hear'} both`
  return `${parts}; ${cut}, and no other split takes less cable${split.areLengthsKnown ? '' : ', as far as lengths are stated'}.`
}

/** More outputs than this are another plan. */
const MOST_PARTS = 8
/** The split onto as few outputs as the line needs, two at least. */
export async function leastSplit(job: Job, line: LineEvaluation, solve: SolveLp): Promise<LineSplit | NotSplit> {
  const taps = line.counted?.tapsW ?? 0
  const allowedW = allowedTapsW(line, job.practice)
  let into = Math.max(2, allowedW === null ? 2 : Math.ceil(taps / allowedW - 1e-9))
  for (;; into++) {
    const found = await splitLine(job, line, into, solve)
    if (typeof found === 'string' || found.feasible || into >= MOST_PARTS) return found
  }
}
