import { byId } from '#core/quantity/known'
import type { AmplifierModel } from '#core/gear/amplifier'
import { together, setting, type Edit, type SimpleEdit } from '#core/job/edits'
import { statedRating, statedOf } from '#core/hands/amplifierModel'
import { outputFor, type NewId } from '#core/hands/intents'
import { Sequence } from '#core/hands/many/many'
import type { Amplifier, Job, Origin, Output } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'
import { outputOf } from '#core/job/tree'
import type { AmplifierSet } from './amplifierFinder'

/** A set of amplifiers put into the job: what is there of a model stays, lines go over with all that was read on them, what feeds nothing any more goes. */

/** A model that may be taken, and where it is from; null for nowhere that a newer version could come from. */
export interface OfferedAmplifier { model: AmplifierModel, from: Origin | null }
/** `removed`: amplifiers that feed nothing any more. */
export interface SetApplied { edit: Edit | null, added: string[], removed: string[], moved: number }

type Slot = { outputId: string, rating: Output['rating'] } | null
/** A unit to be: the amplifier of the job that it is, or a new one; which line is to be at which of its outputs. */
interface Unit { amplifierId: string | null, slots: Slot[] }

export function applySet(job: Job, set: AmplifierSet, offered: readonly OfferedAmplifier[], newId: NewId): SetApplied {
  const sequence = new Sequence(job)
  const [added, removed]: [string[], string[]] = [[], []]
  const inUse = new Set<string>()
  let moved = 0
  for (const { at, count } of set.models) {
    const { model, from } = offered[at]!
    const lines = set.assignment.filter(a => a.at === at)
    for (const { amplifierId, slots } of seated(job, model, from, count, lines)) {
      const unit = amplifierId ?? addUnit(sequence, model, { from, source: sourceOf(job, slots) }, newId)
      if (amplifierId === null) added.push(model.name)
      inUse.add(unit)
      moved += fill(sequence, unit, slots, model, newId)
    }
  }
  for (const { id, name, outputs } of job.amplifiers) {
    const fed = outputs.some(o => set.assignment.some(a => a.outputId === o.id))
    const now = byId(sequence.job.amplifiers, id)
    if (inUse.has(id) || !fed || now.outputs.some(o => isInUse(job, o))) continue
    sequence.do({ kind: 'amplifier.remove', amplifierId: id })
    removed.push(name)
  }
  return { edit: together(sequence.edits), added, removed, moved }
}

/** Whether a line hangs on it or something was read there. */
function isInUse(job: Job, output: Output): boolean {
  return output.wiring.children.length > 0 || job.readings.ofLine(output.id).length > 0 || job.repairs.ofLine(output.id).length > 0
}

/** The units of a model with their lines. Who has one already keeps it, and a line that hangs on a right output of it stays there. */
function seated(job: Job, model: AmplifierModel, from: Origin | null, count: number, lines: AmplifierSet['assignment']): Unit[] {
  const groups = groupsOf(model)
  const isOne = (a: Amplifier) => a.outputs.length <= groups.length && (from ? a.from?.modelId === from.modelId : a.name === model.name)
  const mine = job.amplifiers.filter(isOne).slice(0, count)
  const units = Array.from({ length: count }, (_, k): Unit => ({ amplifierId: mine[k]?.id ?? null, slots: groups.map(() => null) }))
  // Outputs of a group are alike, and so are units: any of them does for a line that was put on one.
  const groupAt = (a: AmplifierSet['assignment'][number]) => groups[(a.output - 1) % groups.length]
  const open = new Set(lines)
  for (const line of lines) {
    const at = mine.findIndex(a => a.outputs.some(o => o.id === line.outputId))
    const place = at < 0 ? -1 : mine[at]!.outputs.findIndex(o => o.id === line.outputId)
    if (place < 0 || groups[place] !== groupAt(line)) continue
    units[at]!.slots[place] = line
    open.delete(line)
  }
  for (const line of open) {
    const unit = units.find(u => u.slots.some((slot, k) => slot === null && groups[k] === groupAt(line)))!
    unit.slots[unit.slots.findIndex((slot, k) => slot === null && groups[k] === groupAt(line))] = line
  }
  return units
}

/** Which of its groups each of its outputs is of, in order. */
const groupsOf = (model: AmplifierModel): AmplifierModel['outputs'] => model.outputs.flatMap(g => Array.from({ length: g.count }, () => g))

/** What feeds a new unit: the source of the amplifiers that its lines come from, where that is one. */
function sourceOf(job: Job, slots: readonly Slot[]): Amplifier['source'] {
  const [source, ...others] = slots.flatMap(slot => slot === null ? [] : [outputOf(job, slot.outputId).amplifier.source])
  return source !== undefined && others.every(other => same(other, source)) ? source : null
}

function addUnit(sequence: Sequence, model: AmplifierModel, { from, source }: Pick<Amplifier, 'from' | 'source'>, newId: NewId): string {
  const names = new Set(sequence.job.amplifiers.map(a => a.name))
  let name = model.name
  for (let k = 2; names.has(name); k++) name = `${model.name}, no. ${k}`
  const amplifier: Amplifier = { id: newId(), name, place: '', ...UNSTATED_AMPLIFIER, ...statedOf(model, UNSTATED_AMPLIFIER), source, from, outputs: [] }
  sequence.do({ kind: 'amplifier.add', index: sequence.job.amplifiers.length, amplifier })
  return amplifier.id
}

/**
 * Each output of a unit in its place: a line of the job with its new rating, an empty one that is there, or a new one.
 * @returns how many lines came from another amplifier
 */
function fill(sequence: Sequence, amplifierId: string, slots: readonly Slot[], model: AmplifierModel, newId: NewId): number {
  const unit = () => byId(sequence.job.amplifiers, amplifierId)
  const groups = groupsOf(model)
  const meant = slots.find(s => s !== null)?.rating ?? { kind: 'not-known' }
  const put = (edit: SimpleEdit) => { sequence.do(edit) }
  let moved = 0
  const placed = new Set<string>()
  slots.forEach((slot, k) => {
    const empty = () => unit().outputs.find(o => !placed.has(o.id) && o.wiring.children.length === 0 && !slots.some(s => s?.outputId === o.id))
    const outputId = slot?.outputId ?? empty()?.id
    const rating = slot?.rating ?? statedRating(groups[k]!, meant, model.bridgedFloorOhm)
    if (outputId === undefined) {
      const output = outputFor(sequence.job, unit(), rating, newId)
      placed.add(output.id)
      return put({ kind: 'output.add', amplifierId, index: k, output })
    }
    placed.add(outputId)
    const { amplifier, output } = outputOf(sequence.job, outputId)
    if (amplifier.id !== amplifierId) moved++
    if (amplifier.id !== amplifierId || amplifier.outputs.indexOf(output) !== k) put({ kind: 'output.move', outputId, amplifierId, index: k })
    if (!same(output.rating, rating)) put({ kind: 'output.set', outputId, ...setting<Pick<Output, 'rating'>, Pick<Output, 'rating'>>(output, { rating }) })
  })
  // What was empty before and has no place now: the model has no such output.
  for (const o of unit().outputs) if (!placed.has(o.id) && !isInUse(sequence.job, o)) put({ kind: 'output.remove', outputId: o.id })
  return moved
}
