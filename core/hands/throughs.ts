import { saidOf, TAKEN_AS } from './takenAs'
import { same } from '#core/quantity/same'
import type { ControlModel } from '#core/gear/control'
import type { TransformerModel } from '#core/gear/transformer'
import { isGroup } from '#core/network/tree'
import { nextPreferred } from '#core/quantity/parts'
import { isSameVoltage } from '#core/quantity/tolerance'
import { applyEdit } from '#core/job/apply'
import { partsOf, together, type Edit, type SimpleEdit } from '#core/job/edits'
import { freeThroughLabel, ungroup, type NewId } from './intents'
import { wholeNodes } from './many/many'
import type { Control, Group, Job, LinePart, LineThrough, LineTransformer, Origin } from '#core/job/schema'
import { findGroup, findPlace, throughsOf, placeOf } from '#core/job/tree'
import { splicesToGroup } from './splices'

/** Controls and transformers before a part of a line: put there, set, taken out. Each gives null where there is nothing to do. */

/** "C1", "T1": the lowest that no other of its kind bears. */
export function throughLabel(job: Pick<Job, 'amplifiers'>, kind: LineThrough['kind']): string {
  return freeThroughLabel(new Set(throughsOf(job).map(t => t.through.label)), kind)
}

/** A control of which nothing is known yet, and a transformer taken as one for 8 Ω. */
export const unknownControl = (label: string): Control => ({ kind: 'control', label, name: '', from: null, setDb: null, stepsDb: [], ratingW: null, lineV: null, insertionDb: null })
export const usualTransformer = (label: string, ratedV: number, tapsW: readonly number[]): LineTransformer => ({
  kind: 'transformer', label, name: TAKEN_AS.transformer, from: null, tapW: Math.max(...tapsW), ratedV, tapsW: [...tapsW], secondaryOhm: 8, ratingW: null, insertionDb: null, tapMeans: null,
})

/** A capacitor and a coil as good as any to begin with: a usual bass blocker on 8 Ω, about 200 Hz. Common practice, no source. */
export function usualPart(kind: LinePart['kind'], label: string): LinePart {
  return kind === 'capacitor' ? { kind, label, name: '', from: null, capacitanceF: 1e-4 } : { kind, label, name: '', from: null, inductanceH: 2e-3, resistanceOhm: null }
}

/** Another thing in the place of what stands before a group. */
export function replaceThrough(job: Job, groupId: string, to: LineThrough): Edit | null {
  const through = findGroup(job, groupId)?.group.through
  return through ? { kind: 'through.set', nodeId: groupId, was: through, to } : null
}

/** A control as a model has it, for a line of `lineV`; where it stands now stays. */
export function controlOf(model: ControlModel, from: Origin | null, lineV: number | null, now: Control): Control {
  const own = model.linesV.find(v => lineV !== null && isSameVoltage(v, lineV)) ?? model.linesV[0] ?? null
  return { ...now, name: model.name, from, stepsDb: model.stepsDb, ratingW: model.ratingW, lineV: own, insertionDb: model.insertionDb }
}

/** A transformer as a model has it: the scale nearest to the line's, the tap nearest to the one that is set, the ohms nearest to those there. */
export function transformerOf(model: TransformerModel, from: Origin | null, lineV: number | null, now: LineTransformer): LineTransformer {
  const nearest = (values: readonly number[], to: number) => [...values].sort((a, b) => Math.abs(Math.log(a / to)) - Math.abs(Math.log(b / to)))[0]
  const wantedV = nearest(model.scales.map(s => s.lineV), lineV ?? now.ratedV)
  const scale = model.scales.find(s => s.lineV === wantedV)
  return {
    ...now, name: model.name, from, ratingW: model.ratingW, insertionDb: model.insertionDb,
    secondaryOhm: nearest(model.secondariesOhm, now.secondaryOhm) ?? now.secondaryOhm,
    ...(scale ? { ratedV: scale.lineV, tapsW: scale.tapsW, tapW: now.tapW === 0 ? 0 : nearest(scale.tapsW, now.tapW)! } : {}),
  }
}

export type Put = { edit: Edit, nodeId: string } | 'not-beside' | 'has-one' | null

/**
 * Puts it before a stretch: speakers side by side of one rail or group go behind it together, in their order, one alone as well. What is
 * a whole group already keeps its wiring and gets it at its head. The way to the first is the way to it; the first stands beside it.
 */
export function putBefore(job: Job, ids: readonly string[], through: LineThrough, newId: NewId): Put {
  const branches = wholeNodes(job, ids)
  const places = branches.map(b => placeOf(job, b.node.id))
  const [first] = places
  if (!first) return null
  if (places.some((p, k) => p.parent.id !== first.parent.id || p.index !== first.index + k)) return 'not-beside'
  const { node, lead } = first.branch
  if (places.length === 1 && isGroup(node)) {
    return node.through ? 'has-one' : { edit: { kind: 'through.set', nodeId: node.id, was: null, to: through }, nodeId: node.id }
  }
  const group: Group = { kind: first.parent.kind, id: newId(), children: [] }
  const edits: SimpleEdit[] = [
    { kind: 'node.add', parentId: first.parent.id, index: first.index, branch: { lead, node: group } },
    ...branches.map((branch, index): SimpleEdit => ({ kind: 'node.move', nodeId: branch.node.id, parentId: group.id, index })),
  ]
  if (lead) edits.push({ kind: 'lead.set', nodeId: node.id, was: lead, to: null })
  edits.push({ kind: 'through.set', nodeId: group.id, was: null, to: through }, ...splicesToGroup(job, node.id, group.id))
  return { edit: together(edits)!, nodeId: group.id }
}

/** Takes it out; a stretch that was wired for it alone hangs on its rail again, on the lead that led to it. */
export function takeOut(job: Job, groupId: string): Edit | null {
  const place = findPlace(job, groupId)
  const group = findGroup(job, groupId)?.group
  if (!place || !group?.through) return null
  const out: SimpleEdit = { kind: 'through.set', nodeId: groupId, was: group.through, to: null }
  return together([out, ...(group.kind === place.parent.kind ? partsOf(ungroup(applyEdit(job, out).job, groupId)!) : [])])
}

export type ThroughChange = Partial<Control> | Partial<LineTransformer> | Partial<LinePart>

/** Changes it. */
export function setThrough(job: Job, groupId: string, change: ThroughChange): Edit | null {
  const through = findGroup(job, groupId)?.group.through
  if (!through) return null
  const to = { ...through, ...saidOf(through, change, Object.keys(change).some(key => key !== 'label' && key !== 'setDb')) } as LineThrough
  return same(to, through) ? null : { kind: 'through.set', nodeId: groupId, was: through, to }
}

/** Positions of a control whose own are not stated, dB down. Common practice, no source: 3 dB a step, then off. */
const USUAL_STEPS_DB = [0, 3, 6, 9, 12, 15, 18, 21, 24, 27, 30] as const

/** The positions of a control but off, dB down, rising; none of anything else. */
export function stepsOf(through: LineThrough): readonly number[] {
  if (through.kind !== 'control') return []
  return through.stepsDb.length > 0 ? [...through.stepsDb].sort((a, b) => a - b) : USUAL_STEPS_DB
}

/** One position louder (1) or quieter (-1), off being the quietest; of a transformer one tap, of a capacitor or a coil one preferred value. */
export function stepThrough(job: Job, groupId: string, step: 1 | -1): Edit | null {
  const through = findGroup(job, groupId)?.group.through
  if (!through) return null
  if (through.kind === 'transformer') {
    const taps = [...through.tapsW].sort((a, b) => a - b)
    const tapW = step > 0 ? taps.find(w => w > through.tapW) : taps.filter(w => w < through.tapW).at(-1)
    return tapW === undefined ? null : setThrough(job, groupId, { tapW })
  }
  // Of parts that are sold in steps, the next larger or smaller one.
  if (through.kind === 'capacitor') return setThrough(job, groupId, { capacitanceF: nextPreferred(through.capacitanceF, step) })
  if (through.kind === 'inductor') return setThrough(job, groupId, { inductanceH: nextPreferred(through.inductanceH, step) })
  const steps: (number | 'off')[] = [...stepsOf(through), 'off']
  const down = (set: number | 'off') => set === 'off' ? Infinity : set
  const now = down(through.setDb ?? 0)
  const setDb = step > 0 ? steps.filter(s => down(s) < now).at(-1) : steps.find(s => down(s) > now)
  return setDb === undefined ? null : setThrough(job, groupId, { setDb })
}
