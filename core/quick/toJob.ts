import { lineVoltsOf, USUAL_LINE_V } from '#core/amplifier/index'
import { emptyJob } from '#core/job/document'
import { unstatedModel } from '#core/gear/models'
import type { Branch, Group, Job, Kind, LineThrough, Output, Speaker, SpeakerLoad } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { THROUGH_LETTERS, USUAL_TAPS_W, type NewId } from '#core/hands/intents'
import { unknownControl, usualTransformer } from '#core/hands/throughs'
import { leavesOf, type QuickLeaf, type QuickLine, type QuickNode } from './parse'
import type { QuickCable, QuickPart } from './tree'

/**
 * The output that a typed line describes: its parallel members hang from the rail, on the cable that is said, or on none. Speakers whose
 * sensitivity is said are of kinds that bear it.
 */
export function toOutput(line: QuickLine, newId: NewId, kinds: Kind[] = []): Output {
  let count = 0
  const taps = tapsOf(line.load)
  const lineV = lineVoltsOf(line.rating) ?? USUAL_LINE_V

  const ofKind = ({ ohm, continuousW, wattDb, coils }: Extract<QuickLeaf, { kind: 'ohm' }>): Pick<Speaker, 'name' | 'kindId'> => {
    if (wattDb === null) return { name: '', kindId: null }
    const name = [`${ohm} Ω`, ...(continuousW === null ? [] : [`${continuousW} W`]), `${wattDb} dB`].join(', ')
    const known = kinds.find(k => k.model.name === name && (k.model.members === null) === (coils === null))
    if (known) return { name, kindId: known.id }
    const load = loadOf({ ohm, coils })
    const own = load.kind === 'members' ? { members: load } : { nominalOhm: ohm }
    const model = { ...unstatedModel('speaker', name), ...own, continuousW, sensitivityDb: wattDb, sensitivityAt: '1 W' as const }
    kinds.push({ what: 'speaker', id: newId(), from: null, model })
    return { name, kindId: kinds.at(-1)!.id }
  }
  const speaker = (node: QuickLeaf): Speaker => {
    const base = { kind: 'speaker' as const, id: newId(), label: String(++count).padStart(2, '0'), name: '' }
    const { name, kindId } = node.kind === 'tap' ? { name: '', kindId: null } : ofKind(node)
    return node.kind === 'tap'
      ? { ...base, load: { kind: 'tap', tapW: node.tapW, ratedV: lineV, tapsW: taps, insertionDb: null, tapMeans: null }, continuousW: null, driverOhm: null, kindId: null, zoneId: null }
      : { ...base, name, load: loadOf(node), continuousW: node.continuousW, driverOhm: null, kindId, zoneId: null }
  }
  const branch = (node: QuickNode): Branch => ({ lead: null, node: 'members' in node ? group(node) : speaker(node) })
  const group = (node: Extract<QuickNode, { members: QuickNode[] }>): Group => {
    const id = newId()
    if (!node.part) return { kind: node.kind === 'series' ? 'series' : 'star', id, children: node.members.map(branch) }
    // Behind a control or a transformer a run goes on; a capacitor or a coil stands at one place.
    const isRun = node.part.kind === 'control' || node.part.kind === 'transformer'
    const through = throughOf(node.part)
    return { kind: isRun ? 'chain' : 'star', id, children: (isRun ? node.members.flatMap(flattenParallel) : node.members).map(branch), through }
  }
  const labels = new Map<string, number>()
  const throughOf = (part: QuickPart): LineThrough => {
    const letter = THROUGH_LETTERS[part.kind]
    labels.set(letter, (labels.get(letter) ?? 0) + 1)
    const label = `${letter}${labels.get(letter)}`
    switch (part.kind) {
      case 'capacitor': return { kind: 'capacitor', label, name: '', from: null, capacitanceF: part.capacitanceF }
      case 'inductor': return { kind: 'inductor', label, name: '', from: null, inductanceH: part.inductanceH, resistanceOhm: null }
      case 'control': {
        const stepsDb = typeof part.setDb === 'number' ? [part.setDb] : []
        return { ...unknownControl(label), ratingW: part.ratingW, lineV: lineVoltsOf(line.rating), setDb: part.setDb, stepsDb }
      }
      case 'transformer': return usualTransformer(label, lineV, [part.tapW])
    }
  }
  return {
    id: newId(), label: 'A1', name: '', rating: line.rating, ...UNSTATED_OUTPUT,
    wiring: { kind: 'chain', id: newId(), children: cabled(flattenParallel(line.load).map(branch), line.over) },
  }
}

function loadOf({ ohm, coils }: Pick<Extract<QuickLeaf, { kind: 'ohm' }>, 'ohm' | 'coils'>): SpeakerLoad {
  if (!coils) return { kind: 'nominal', nominalOhm: ohm }
  const coil = { kind: 'nominal' as const, nominalOhm: coils.eachOhm }
  return { kind: 'members', joined: coils.joined, members: [coil, coil] }
}

/** Parallel inside parallel is one rail: (8 || 8) || 8; and so are taps, however they are listed. */
function flattenParallel(node: QuickNode): QuickNode[] {
  const isAlong = 'members' in node && !node.part && (node.kind === 'parallel' || leavesOf(node)[0]!.kind === 'tap')
  return isAlong ? node.members.flatMap(flattenParallel) : [node]
}

/** The places along a rail on their cable: each on a length of its own, or all on equal parts of one. */
function cabled(children: Branch[], over: QuickCable | null): Branch[] {
  if (!over) return children
  const lengthM = over.isEach ? over.lengthM : over.lengthM / children.length
  return children.map(child => ({ ...child, lead: { cable: over.cable, lengthM } }))
}

/** The usual taps and those typed, so that each can be stepped from; empty for a line of impedances. */
function tapsOf(load: QuickNode): number[] {
  const typed = leavesOf(load).flatMap(leaf => leaf.kind === 'tap' ? [leaf.tapW] : [])
  return typed.length === 0 ? [] : [...new Set([...USUAL_TAPS_W, ...typed])].sort((a, b) => a - b).slice(-20)
}

/** The job that "keep as a job" makes. */
export function toJob(line: QuickLine, newId: NewId): Job {
  const kinds: Kind[] = []
  const output = toOutput(line, newId, kinds)
  return { ...emptyJob(line.text.trim().slice(0, 100)), kinds, amplifiers: [{ id: newId(), name: 'Amplifier A', place: '', ...UNSTATED_AMPLIFIER, outputs: [output] }] }
}
