import { isTakenAs, saidOf, TAKEN_AS } from './takenAs'
import { same } from '#core/quantity/same'
import { lineKindOf, lineVoltsOf } from '#core/amplifier/index'
import type { Cable } from '#core/quantity/cable'
import { sameCable } from '#core/quantity/cable'
import type { Lead } from '#core/network/cable'
import { isGroup } from '#core/network/tree'
import { setting, together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Amplifier, Branch, Group, Job, LineThrough, Output, Speaker, WireNode } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { branchesOf, findGroup, findOutput, findPlace, findSpeaker, outputsOf, speakersOf } from '#core/job/tree'
import { splicesToGroup } from './splices'

/** What a hand on the key means, as edits. Each gives null where there is nothing to do. */

/** Makes ids; chance stays outside the core. */
export type NewId = () => string

/** One tap up or down the transformer's list. */
export function retap(job: Job, nodeId: string, step: 1 | -1): Edit | null {
  const found = findSpeaker(job, nodeId)
  if (found?.speaker.load.kind !== 'tap') return null
  const { load } = found.speaker
  const taps = [...load.tapsW].sort((a, b) => a - b)
  const tapW = step > 0 ? taps.find(w => w > load.tapW) : taps.filter(w => w < load.tapW).at(-1)
  return tapW === undefined ? null : setTap(found.speaker, tapW)
}

/** A speaker changed by a hand. */
export function setSpeaker(speaker: Speaker, to: Partial<Omit<Speaker, 'kind' | 'id'>>): SimpleEdit {
  return { kind: 'speaker.set', nodeId: speaker.id, ...setting<Omit<Speaker, 'kind' | 'id'>, typeof to>(speaker, saidOf(speaker, to, to.load !== undefined)) }
}

export function setTap(speaker: Speaker, tapW: number): Edit | null {
  // The tap that was only guessed is said to be the one, too.
  if (speaker.load.kind !== 'tap' || (speaker.load.tapW === tapW && !isTakenAs(speaker))) return null
  return setSpeaker(speaker, { load: { ...speaker.load, tapW } })
}

/** The lowest two-figure number that no speaker of the line bears: "07". */
export function nextLabel(output: Output): string {
  return freeLabel(new Set(speakersOf(output.wiring).map(s => s.label)))
}

/** The lowest two-figure number that is not taken. */
export function freeLabel(taken: ReadonlySet<string>): string {
  for (let k = 1; ; k++) {
    const label = String(k).padStart(2, '0')
    if (!taken.has(label)) return label
  }
}

/** What the labels of what stands before a group begin with. */
export const THROUGH_LETTERS: Record<LineThrough['kind'], string> = { control: 'C', transformer: 'T', capacitor: 'F', inductor: 'L' }

/** "C1" for a control, "T1" for a transformer: the lowest that is not taken. */
export function freeThroughLabel(taken: ReadonlySet<string>, kind: LineThrough['kind']): string {
  const letter = THROUGH_LETTERS[kind]
  for (let k = 1; ; k++) if (!taken.has(`${letter}${k}`)) return `${letter}${k}`
}

/**
 * One more of the same after a speaker, on a lead like its own.
 * Into a series or a star it goes as a further member; that is what "after" means there.
 */
export function addAfter(job: Job, nodeId: string, newId: NewId): { edit: Edit, nodeId: string } | null {
  const place = findPlace(job, nodeId)
  if (!place) return null
  const model = speakersOf(place.branch.node)[0]
  if (!model) return null
  const speaker: Speaker = { ...model, id: newId(), label: nextLabel(place.output) }
  const branch: Branch = { lead: place.branch.lead, node: speaker }
  return { edit: { kind: 'node.add', parentId: place.parent.id, index: place.index + 1, branch }, nodeId: speaker.id }
}

/** A first speaker for an empty line: like the last one of the job on a line of the same kind, else a plain one, whose name says that it is a guess. */
export function addFirst(job: Job, outputId: string, newId: NewId): { edit: Edit, nodeId: string } | null {
  const output = findOutput(job, outputId)?.output
  if (!output) return null
  const { rating } = output
  const like = outputsOf(job).filter(o => lineKindOf(o.rating) === lineKindOf(rating)).flatMap(o => speakersOf(o.wiring)).at(-1)
  const lineV = lineVoltsOf(rating)
  const plain = lineV !== null
    ? { name: TAKEN_AS.tap, load: { kind: 'tap' as const, tapW: 10, ratedV: lineV, tapsW: [...USUAL_TAPS_W], insertionDb: null, tapMeans: null } }
    : { name: TAKEN_AS.nominal, load: { kind: 'nominal' as const, nominalOhm: 8 } }
  const { name, load, continuousW, driverOhm, kindId } = { continuousW: null, driverOhm: null, kindId: null, ...plain, ...like }
  const speaker: Speaker = { kind: 'speaker', id: newId(), label: nextLabel(output), name, load, continuousW, driverOhm, kindId, zoneId: null }
  const branch: Branch = { lead: null, node: speaker }
  return { edit: { kind: 'node.add', parentId: output.wiring.id, index: output.wiring.children.length, branch }, nodeId: speaker.id }
}

/** Taps on the shelf where a model does not say. Common practice, no source. */
export const USUAL_TAPS_W = [1.25, 2.5, 5, 10, 20, 30] as const

/**
 * Takes a speaker off its line. Along a chain the cable stays in the ceiling: the next lead grows by the one that
 * ended here. A group left empty goes too.
 */
export function removeNode(job: Job, nodeId: string): Edit | null {
  let place = findPlace(job, nodeId)
  if (!place) return null
  // The outermost group that would be left empty.
  for (let up = findPlace(job, place.parent.id); up && place.parent.children.length === 1; up = findPlace(job, place.parent.id)) place = up
  return together([...closeGap(place.parent.kind, place.branch, place.parent.children[place.index + 1]), { kind: 'node.remove', nodeId: place.branch.node.id, was: place.branch }])
}

function closeGap(parentKind: string, branch: Branch, next: Branch | undefined): SimpleEdit[] {
  if (parentKind !== 'chain' || !next || !branch.lead || !next.lead || !sameCable(branch.lead.cable, next.lead.cable)) return []
  const to: Lead = { cable: next.lead.cable, lengthM: branch.lead.lengthM + next.lead.lengthM }
  return [{ kind: 'lead.set', nodeId: next.node.id, was: next.lead, to }]
}

/** Changes places with the neighbour along the line; the leads stay where they run. */
export function shift(job: Job, nodeId: string, step: 1 | -1): Edit | null {
  const place = findPlace(job, nodeId)
  const other = place?.parent.children[place.index + step]
  if (!place || !other) return null
  const edits: SimpleEdit[] = [{ kind: 'node.move', nodeId, parentId: place.parent.id, index: place.index + step }]
  if (!same(place.branch.lead, other.lead)) {
    edits.push({ kind: 'lead.set', nodeId, was: place.branch.lead, to: other.lead })
    edits.push({ kind: 'lead.set', nodeId: other.node.id, was: other.lead, to: place.branch.lead })
  }
  return together(edits)
}

/** Takes a node to the end of another line, on a lead of the same cable and length. Labels stay: they are painted on the speaker. */
export function moveToOutput(job: Job, nodeId: string, outputId: string): Edit | null {
  const place = findPlace(job, nodeId)
  const target = findOutput(job, outputId)?.output
  if (!place || !target || place.output.id === outputId) return null
  return together([
    ...closeGap(place.parent.kind, place.branch, place.parent.children[place.index + 1]),
    { kind: 'node.move', nodeId, parentId: target.wiring.id, index: target.wiring.children.length },
  ])
}

/** Every lead of a line in one cable; leads not stated stay so. */
export function setLineCable(job: Job, outputId: string, cable: Cable): Edit | null {
  const output = findOutput(job, outputId)?.output
  if (!output) return null
  return together(branchesOf(output.wiring).flatMap(({ lead, node }): SimpleEdit[] => lead && !sameCable(lead.cable, cable)
    ? [{ kind: 'lead.set', nodeId: node.id, was: lead, to: { ...lead, cable } }]
    : []))
}

/** One size for every length of the job of which none is stated: what is stated stays. */
export function sizeUnstated(job: Job, cable: Cable): Edit | null {
  return together(outputsOf(job).flatMap(o => branchesOf(o.wiring)).flatMap(({ lead, node }): SimpleEdit[] => lead && lead.cable === null
    ? [{ kind: 'lead.set', nodeId: node.id, was: lead, to: { ...lead, cable } }]
    : []))
}

/** Whether a further member may simply go into it: what stands behind a control is a place of its own, and nobody slips behind it unasked. */
export function takesMore(node: WireNode, kind: 'series' | 'star'): node is Group {
  return isGroup(node) && node.kind === kind && !node.through
}

/** Puts a node and the one after it into one group: two in series, or two from one point. */
export function joinWithNext(job: Job, nodeId: string, kind: 'series' | 'star', newId: NewId): Edit | null {
  const place = findPlace(job, nodeId)
  const next = place?.parent.children[place.index + 1]
  if (!place || !next) return null
  if (takesMore(next.node, kind)) {
    return together([{ kind: 'node.move', nodeId, parentId: next.node.id, index: 0 }])
  }
  if (takesMore(place.branch.node, kind)) {
    return together([{ kind: 'node.move', nodeId: next.node.id, parentId: nodeId, index: place.branch.node.children.length }])
  }
  const group: WireNode = { kind, id: newId(), children: [] }
  const edits: SimpleEdit[] = [
    { kind: 'node.add', parentId: place.parent.id, index: place.index, branch: { lead: place.branch.lead, node: group } },
    { kind: 'node.move', nodeId, parentId: group.id, index: 0 },
    { kind: 'node.move', nodeId: next.node.id, parentId: group.id, index: 1 },
  ]
  // The way to the pair is the group's lead now; inside it the first member stands at its end.
  if (place.branch.lead) edits.push({ kind: 'lead.set', nodeId, was: place.branch.lead, to: null })
  return together([...edits, ...splicesToGroup(job, nodeId, group.id)])
}

/** Opens a group: its members hang from its parent again, in its place. */
export function ungroup(job: Job, groupId: string): Edit | null {
  const found = findGroup(job, groupId)
  const place = findPlace(job, groupId)
  if (!found || !place) return null
  const members = found.group.children
  const edits: SimpleEdit[] = members.map((member, k) => ({ kind: 'node.move', nodeId: member.node.id, parentId: place.parent.id, index: place.index + 1 + k }))
  const first = members[0]
  if (first && place.branch.lead && !first.lead) edits.push({ kind: 'lead.set', nodeId: first.node.id, was: null, to: place.branch.lead })
  edits.push({ kind: 'node.remove', nodeId: groupId, was: { ...place.branch, node: { ...found.group, children: [] } } })
  return together(edits)
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ'

/** An output more on an amplifier, rated like its last one; its label counts on from the amplifier's letter. */
export function addOutput(job: Job, amplifierId: string, newId: NewId): { edit: Edit, outputId: string } | null {
  const amplifier = job.amplifiers.find(a => a.id === amplifierId)
  if (!amplifier) return null
  const output = outputFor(job, amplifier, amplifier.outputs.at(-1)?.rating ?? { kind: 'not-known' }, newId)
  return { edit: { kind: 'output.add', amplifierId, index: amplifier.outputs.length, output }, outputId: output.id }
}

/** An empty output for an amplifier of the job, to be added to it. */
export function outputFor(job: Job, amplifier: Amplifier, rating: Output['rating'], newId: NewId): Output {
  return newOutput(job, letterOf(amplifier.outputs[0]?.label) ?? LETTERS[job.amplifiers.indexOf(amplifier) % 26]!, rating, newId)
}

/** An amplifier more, with one output of which nothing is known yet. */
export function addAmplifier(job: Job, newId: NewId): { edit: Edit, outputId: string } {
  const taken = new Set(outputsOf(job).map(o => letterOf(o.label)))
  const letter = [...LETTERS].find(l => !taken.has(l)) ?? 'Z'
  const output = newOutput(job, letter, { kind: 'not-known' }, newId)
  const amplifier = { id: newId(), name: `Amplifier ${letter}`, place: '', ...UNSTATED_AMPLIFIER, outputs: [output] }
  return { edit: { kind: 'amplifier.add', index: job.amplifiers.length, amplifier }, outputId: output.id }
}

function newOutput(job: Job, letter: string, rating: Output['rating'], newId: NewId): Output {
  const taken = new Set(outputsOf(job).map(o => o.label))
  let number = 1
  while (taken.has(`${letter}${number}`)) number++
  return { id: newId(), label: `${letter}${number}`, name: '', rating, ...UNSTATED_OUTPUT, wiring: { kind: 'chain', id: newId(), children: [] } }
}

function letterOf(label: string | undefined): string | undefined {
  return /^[A-Z]/.exec(label ?? '')?.[0]
}

/** Whether a line hangs on it or something was read there. */
export function isInUse(job: Job, output: Output): boolean {
  return output.wiring.children.length > 0 || job.readings.under(output.id).length > 0 || job.repairs.under(output.id).length > 0
}
