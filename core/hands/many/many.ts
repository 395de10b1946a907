import { same } from '#core/quantity/same'
import { sameCable, type Cable } from '#core/quantity/cable'
import { isGroup } from '#core/network/tree'
import { applyEdit } from '#core/job/apply'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { addOutput, freeLabel, freeThroughLabel, joinWithNext, removeNode, retap, setSpeaker, setTap, takesMore, type NewId } from '../intents'
import type { Branch, Job, LineThrough, Speaker, WireNode } from '#core/job/schema'
import { speakerFields } from '#core/job/sections/wiring/schema'
import { findGroup, findOutput, findPlace, findSpeaker, speakersOf, throughsOf, outputOf, placeOf } from '#core/job/tree'
import { countedOn } from './numbering'

/**
 * What a hand means with several speakers at once: one edit, one undo. What cannot be done to some of them is left undone there
 * and named with its reason; null where there is nothing to do at all.
 */
export interface ManyDone { edit: Edit | null, skipped: Skipped[] }
/** What came into being, to be chosen afterwards. */
export interface ManyMade extends ManyDone { nodeIds: string[] }
export interface Skipped { nodeId: string, label: string, why: WhySkipped }
export type WhySkipped = 'no-transformer' | 'no-such-tap' | 'no-tap-further' | 'no-length' | 'not-beside' | 'label-too-long' | 'not-there'

export const SKIPPED_WORDS: Record<WhySkipped, string> = {
  'no-transformer': 'no line transformer', 'no-such-tap': 'no such tap', 'no-tap-further': 'no tap further', 'no-length': 'no length stated',
  'not-beside': 'not beside the others', 'label-too-long': 'the label would be too long', 'not-there': 'no longer there',
}

/** "03, 04: no such tap; 07: no line transformer". Empty where all was done. */
export function skippedWords(skipped: readonly Skipped[]): string {
  const byWhy = new Map<WhySkipped, string[]>()
  for (const { why, label } of skipped) byWhy.set(why, [...byWhy.get(why) ?? [], label])
  return [...byWhy].map(([why, labels]) => `${labels.length > 6 ? `${labels.slice(0, 5).join(', ')} and ${labels.length - 5} more` : labels.join(', ')}: ${SKIPPED_WORDS[why]}`).join('; ')
}

type Made = SimpleEdit[] | WhySkipped
/** One edit out of what each of them asks for. */
function each(job: Job, ids: readonly string[], make: (speaker: Speaker, branch: Branch, k: number) => Made): ManyDone {
  const edits: SimpleEdit[] = []
  const skipped: Skipped[] = []
  ids.forEach((nodeId, k) => {
    const branch = findPlace(job, nodeId)?.branch
    const speaker = branch?.node.kind === 'speaker' ? branch.node : null
    const made = branch && speaker ? make(speaker, branch, k) : 'not-there'
    if (typeof made === 'string') skipped.push({ nodeId, label: speaker?.label ?? '?', why: made })
    else edits.push(...made)
  })
  return { edit: together(edits), skipped }
}
const parts = (edit: Edit | null): SimpleEdit[] => edit ? [...partsOf(edit)] : []

/** Each to its own next tap up or down. */
export function retapEach(job: Job, ids: readonly string[], step: 1 | -1): ManyDone {
  return each(job, ids, (speaker) => {
    if (speaker.load.kind !== 'tap') return 'no-transformer'
    const edit = retap(job, speaker.id, step)
    return edit ? parts(edit) : 'no-tap-further'
  })
}

/** All to one tap, W, 0 for off; who has no such tap keeps its own. */
export function tapEach(job: Job, ids: readonly string[], tapW: number): ManyDone {
  return each(job, ids, speaker => speaker.load.kind !== 'tap' ? 'no-transformer' : tapW !== 0 && !speaker.load.tapsW.includes(tapW) ? 'no-such-tap' : parts(setTap(speaker, tapW)))
}

/** The same name, rating or driver for all. */
export function setEach(job: Job, ids: readonly string[], to: Partial<Pick<Speaker, 'name' | 'continuousW' | 'driverOhm' | 'load'>>): ManyDone {
  return each(job, ids, speaker => same({ ...speaker, ...to }, speaker) ? [] : [setSpeaker(speaker, to)])
}

/** One cable for all of their leads; a lead of no stated length stays so. */
export function cableEach(job: Job, ids: readonly string[], cable: Cable): ManyDone {
  return each(job, ids, (speaker, { lead }) => !lead ? 'no-length' : sameCable(lead.cable, cable) ? [] : [{ kind: 'lead.set', nodeId: speaker.id, was: lead, to: { ...lead, cable } }])
}

/** Lengths of their leads in order, m; the last one holds for all that follow: "20, then 6". A lead not stated yet is of the cable given. */
export function lengthsEach(job: Job, ids: readonly string[], lengthsM: readonly number[], usual: Cable | null): ManyDone {
  return each(job, ids, (speaker, { lead }, k) => {
    const lengthM = lengthsM[Math.min(k, lengthsM.length - 1)]!
    return lead?.lengthM === lengthM ? [] : [{ kind: 'lead.set', nodeId: speaker.id, was: lead, to: { cable: lead?.cable ?? usual, lengthM } }]
  })
}

/** Labels that count on from a first one: "C01" gives C01, C02, C03; "nave" gives nave 1, nave 2. */
export function relabelEach(job: Job, ids: readonly string[], first: string): ManyDone {
  const labels = countedOn(first, ids.length)
  return each(job, ids, (speaker, _, k) => {
    const label = labels[k]!
    if (!speakerFields.label.safeParse(label).success) return 'label-too-long'
    return speaker.label === label ? [] : [{ kind: 'speaker.set', nodeId: speaker.id, was: { label: speaker.label }, to: { label } }]
  })
}

/** The outermost nodes that hold nothing but what is chosen, in wiring order: a group that is chosen whole goes as one. */
export function wholeNodes(job: Pick<Job, 'amplifiers'>, ids: readonly string[]): Branch[] {
  const chosen = new Set(ids)
  const found: Branch[] = []
  const visit = (branch: Branch): void => {
    const within = speakersOf(branch.node)
    if (within.length > 0 && within.every(s => chosen.has(s.id))) found.push(branch)
    else if (isGroup(branch.node)) branch.node.children.forEach(visit)
  }
  for (const { outputs } of job.amplifiers) for (const { wiring } of outputs) wiring.children.forEach(visit)
  return found
}

/** Edits one after the other, each made for the job that those before it leave. */
export class Sequence {
  readonly edits: SimpleEdit[] = []
  constructor(public job: Job) {}

  do(edit: Edit | null): boolean {
    if (!edit) return false
    this.job = applyEdit(this.job, edit).job
    this.edits.push(...partsOf(edit))
    return true
  }
}

/** Takes them off; along a chain the cable stays, as with one. */
export function removeEach(job: Job, ids: readonly string[]): ManyDone {
  const sequence = new Sequence(job)
  for (const { node } of wholeNodes(job, ids)) sequence.do(removeNode(sequence.job, node.id))
  return { edit: together(sequence.edits), skipped: [] }
}

/** Where something is moved: the end of a line, behind a node, or before it. */
export type MoveTo = { outputId: string } | { afterId: string } | { beforeId: string } | { behindId: string }

/** What becomes of the cable of what is moved: it goes along as it is, or its length there is not known yet. */
export type LeadThere = 'along' | 'not-stated'
export interface Moved extends ManyDone { renumbered: { from: string, to: string }[] }

/**
 * To another place, in the order they had: the end of a line, behind one of its speakers or before it, the end of what hangs behind a control. Where they
 * leave a chain the cable that stays closes the gap. No group is left empty: one that is chosen whole goes whole. A number that stands on that line already
 * becomes the lowest free one.
 */
export function moveEach(job: Job, ids: readonly string[], to: MoveTo, leadThere: LeadThere = 'along'): Moved {
  const sequence = new Sequence(job)
  const asked = 'afterId' in to ? to.afterId : 'beforeId' in to ? to.beforeId : null
  const nothing: Moved = { edit: null, skipped: [], renumbered: [] }
  if (asked !== null && ids.includes(asked)) return nothing
  let behind = 'afterId' in to ? to.afterId : null
  const nodes = wholeNodes(job, ids)
  const going = new Set(nodes.map(b => b.node.id))
  for (const { node, lead } of nodes) {
    const from = placeOf(sequence.job, node.id)
    const beside = behind ?? asked
    const target = beside !== null
      ? findPlace(sequence.job, beside)?.parent
      : 'behindId' in to ? findGroup(sequence.job, to.behindId)?.group : findOutput(sequence.job, (to as { outputId: string }).outputId)?.output.wiring
    if (!target) return nothing
    const rest = target.children.filter(b => b.node.id !== node.id)
    const index = beside === null ? rest.length : rest.findIndex(b => b.node.id === beside) + (behind === null ? 0 : 1)
    behind = node.id
    const isSameChain = target.id === from.parent.id
    if (isSameChain && index === from.index) continue
    // The lead of the next one that stays grows by the cable that ended here, as long as the node does not take its place in the same chain.
    const next = from.parent.children.slice(from.index + 1).find(b => !going.has(b.node.id))
    if (!isSameChain && from.parent.kind === 'chain' && lead && next?.lead && sameCable(lead.cable, next.lead.cable)) {
      sequence.do({ kind: 'lead.set', nodeId: next.node.id, was: next.lead, to: { ...next.lead, lengthM: next.lead.lengthM + lead.lengthM } })
    }
    sequence.do({ kind: 'node.move', nodeId: node.id, parentId: target.id, index })
    if (leadThere === 'not-stated' && lead) sequence.do({ kind: 'lead.set', nodeId: node.id, was: lead, to: null })
  }
  const renumbered = numberedAnew(sequence, nodes.flatMap(b => speakersOf(b.node)))
  return { edit: together(sequence.edits), skipped: [], renumbered }
}

/** Numbers of a line stay single: who came to one where another bears its number takes the lowest that is free. */
function numberedAnew(sequence: Sequence, came: readonly Speaker[]): Moved['renumbered'] {
  const ids = new Set(came.map(s => s.id))
  return came.flatMap(({ id }) => {
    const found = findSpeaker(sequence.job, id)
    if (!found) return []
    const { output, speaker } = found
    const others = speakersOf(output.wiring).filter(s => s.id !== id)
    // Two that bore one number already came so, and stay: it is said of their line.
    if (!others.some(s => s.label === speaker.label && !ids.has(s.id))) return []
    const label = freeLabel(new Set(others.map(s => s.label)))
    sequence.do({ kind: 'speaker.set', nodeId: id, was: { label: speaker.label }, to: { label } })
    return [{ from: speaker.label, to: label }]
  })
}

/** To an output more on the amplifier of the first of them, rated like the line that they hang on; one edit. */
export function moveToNew(job: Job, ids: readonly string[], newId: NewId): ManyDone & { outputId: string } | null {
  const from = ids[0] === undefined ? null : findPlace(job, ids[0])?.output
  const added = from && addOutput(job, outputOf(job, from.id).amplifier.id, newId)
  if (!added || added.edit.kind !== 'output.add') return null
  const add: SimpleEdit = { ...added.edit, output: { ...added.edit.output, rating: from.rating } }
  const moved = moveEach(applyEdit(job, add).job, ids, { outputId: added.outputId })
  return { edit: together([add, ...parts(moved.edit)]), skipped: moved.skipped, outputId: added.outputId }
}

/** What a copy gets anew: ids, and labels that are free; of its kind and in its zone it is where the job has them (`known`). */
interface Anew { newId: NewId, label: (own: string) => string, throughLabel: (own: LineThrough) => string, known: ReadonlySet<string> }

/** A node once more. */
function again(node: WireNode, anew: Anew): WireNode {
  const { newId, label, throughLabel, known } = anew
  const kept = (id: string | null) => id !== null && known.has(id) ? id : null
  return isGroup(node)
    ? {
        ...node, id: newId(), children: node.children.map(({ lead, node: child }) => ({ lead, node: again(child, anew) })),
        ...(node.through ? { through: { ...node.through, label: throughLabel(node.through) } } : {}),
      }
    : { ...node, id: newId(), label: label(node.label), kindId: kept(node.kindId), zoneId: kept(node.zoneId) }
}

/** Hangs branches behind a node, or at the end of a line, with new ids and the lowest free labels (or, where they are free, their own). */
export function hang(job: Job, branches: readonly Branch[], at: { outputId: string } | { afterId: string }, newId: NewId): ManyMade {
  const place = 'afterId' in at ? findPlace(job, at.afterId) : null
  const output = place?.output ?? ('outputId' in at ? findOutput(job, at.outputId)?.output : undefined)
  if (!output) return { edit: null, skipped: [], nodeIds: [] }
  const parent = place?.parent ?? output.wiring
  const taken = new Set(speakersOf(output.wiring).map(s => s.label))
  const throughsTaken = new Set(throughsOf(job).map(t => t.through.label))
  const free = (among: Set<string>, own: string, other: () => string) => {
    const label = among.has(own) ? other() : own
    among.add(label)
    return label
  }
  const known = new Set([...job.kinds, ...job.zones].map(k => k.id))
  const anew: Anew = {
    newId, known, label: own => free(taken, own, () => freeLabel(taken)),
    throughLabel: ({ label, kind }) => free(throughsTaken, label, () => freeThroughLabel(throughsTaken, kind)),
  }
  const made = branches.map(({ lead, node }): Branch => ({ lead, node: again(node, anew) }))
  const index = place ? place.index + 1 : parent.children.length
  const edits = made.map((branch, k): SimpleEdit => ({ kind: 'node.add', parentId: parent.id, index: index + k, branch }))
  return { edit: together(edits), skipped: [], nodeIds: made.flatMap(b => speakersOf(b.node).map(s => s.id)) }
}

/** The chosen ones once more, behind the last of them. */
export function copyEach(job: Job, ids: readonly string[], newId: NewId): ManyMade {
  const nodes = wholeNodes(job, ids)
  const last = nodes.at(-1)
  return last ? hang(job, nodes, { afterId: last.node.id }, newId) : { edit: null, skipped: [], nodeIds: [] }
}

/** So many more like a speaker, behind it, so far apart, m; on leads like its own where no distance is said. */
export function addLike(job: Job, nodeId: string, count: number, apartM: number | null, usual: Cable | null, newId: NewId): ManyMade {
  const branch = findPlace(job, nodeId)?.branch
  if (!branch) return { edit: null, skipped: [], nodeIds: [] }
  const lead = apartM === null ? branch.lead : { cable: branch.lead?.cable ?? usual, lengthM: apartM }
  return hang(job, Array.from({ length: count }, () => ({ lead, node: branch.node })), { afterId: nodeId }, newId)
}

/** Puts neighbours into groups, in series or from one point; every stretch of neighbours becomes a group of its own. */
export function joinEach(job: Job, ids: readonly string[], kind: 'series' | 'star', newId: NewId): ManyDone {
  const nodes = wholeNodes(job, ids)
  const skipped: Skipped[] = []
  const sequence = new Sequence(job)
  let run: string[] = []
  /** What the first of a stretch has become part of. */
  const groupOf = (nodeId: string): string => {
    const { branch, parent } = placeOf(sequence.job, nodeId)
    return takesMore(branch.node, kind) ? nodeId : parent.id
  }
  const close = (): void => {
    if (run.length === 1) {
      const { branch } = placeOf(job, run[0]!)
      for (const s of speakersOf(branch.node)) skipped.push({ nodeId: s.id, label: s.label, why: 'not-beside' })
    }
    for (let k = 1; k < run.length; k++) sequence.do(joinWithNext(sequence.job, k === 1 ? run[0]! : groupOf(run[0]!), kind, newId))
    run = []
  }
  nodes.forEach(({ node }, k) => {
    const place = placeOf(job, node.id)
    const before = k > 0 ? placeOf(job, nodes[k - 1]!.node.id) : null
    if (before && (before.parent !== place.parent || before.index + 1 !== place.index)) close()
    run.push(node.id)
  })
  close()
  return { edit: together(sequence.edits), skipped }
}
