import { isSolidState, modeOf } from '#core/amplifier/index'
import { byId, sure } from '#core/quantity/known'
import type { AmplifierModel } from '#core/gear/amplifier'
import { together, setting, type Edit, type SimpleEdit } from '#core/job/edits'
import { statedRating, statedOf } from '#core/hands/amplifierModel'
import { isInUse, outputFor, type NewId } from '#core/hands/intents'
import { Sequence } from '#core/hands/many/many'
import { inputsOfModel } from '#core/hands/inputs'
import type { Amplifier, Input, Job, Origin, Output } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'
import { outputOf } from '#core/job/tree'
import type { AmplifierSet } from './amplifierFinder'

/** A set of amplifiers put into the job: what is there of a model stays, lines go over with all that was read on them, what feeds nothing any more goes. */

/** A model that may be taken, and where it is from; null for nowhere that a newer version could come from. */
export interface OfferedAmplifier { model: AmplifierModel, from: Origin | null }
/** `removed`: amplifiers that feed nothing any more. `unplaced`: sources that came in there, and now come in nowhere. */
export interface SetApplied { edit: Edit | null, added: string[], removed: string[], moved: number, unplaced: string[] }

/** null: an output on which nothing hangs; 'joined': bridged with the one before it. */
type Slot = { outputId: string, rating: Output['rating'], isBridged: boolean } | 'joined' | null
const isLine = (slot: Slot | undefined): slot is Exclude<Slot, 'joined' | null> => slot !== null && slot !== undefined && slot !== 'joined'
/** At which output of a model each output of an amplifier begins: two that are joined are one. */
function channelOf({ outputs }: Amplifier, output: Output | undefined): number {
  const before = output === undefined ? [] : outputs.slice(0, outputs.indexOf(output))
  return before.reduce((n, o) => n + (modeOf(o.rating) === 'single' ? 1 : 2), 0)
}
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
      const unit = amplifierId ?? addUnit(sequence, model, { from, inputs: inputsOf(job, slots) }, newId)
      if (amplifierId === null) added.push(model.name)
      inUse.add(unit)
      moved += fill(sequence, unit, slots, model, newId)
    }
  }
  for (const { id, name, outputs } of job.amplifiers) {
    const fed = outputs.some(o => set.assignment.some(a => a.outputId === o.id))
    const now = byId(sequence.job.amplifiers, id)
    if (inUse.has(id) || !fed || now.outputs.some(o => isInUse(job, o))) continue
    sequence.do({ kind: 'amplifier.remove', amplifierId: id, was: now })
    removed.push(name)
  }
  const still = new Set(sourcesOf(sequence.job))
  return { edit: together(sequence.edits), added, removed, moved, unplaced: sourcesOf(job).filter(name => !still.has(name)) }
}

/** The units of a model with their lines. Who has one already keeps it, and a line that hangs on a right output of it stays there. */
function seated(job: Job, model: AmplifierModel, from: Origin | null, count: number, lines: AmplifierSet['assignment']): Unit[] {
  const groups = groupsOf(model)
  const isOne = (a: Amplifier) => a.outputs.length <= groups.length && (from ? a.from?.modelId === from.modelId : a.name === model.name)
  const mine = job.amplifiers.filter(isOne).slice(0, count)
  // Outputs of a group are alike, and so are units: any of them does for a line that was put on one.
  const groupAt = (a: AmplifierSet['assignment'][number]) => groups[(a.output - 1) % groups.length]
  const isPair = ({ slots }: Unit, place: number) => slots[place + 1] === null && groups[place + 1] === groups[place]
  const isFree = (unit: Unit, place: number, isBridged: boolean) => unit.slots[place] === null && (!isBridged || isPair(unit, place))
  // Lines that stay where they are may leave two outputs free that are no pair: then all are seated anew.
  return sure(seatAll(true) ?? seatAll(false), 'way to seat these lines')

  function seatAll(isKept: boolean): Unit[] | null {
    const units = Array.from({ length: count }, (_, k): Unit => ({ amplifierId: mine[k]?.id ?? null, slots: groups.map(() => null) }))
    const open = new Set(lines)
    for (const line of isKept ? lines : []) {
      const at = mine.findIndex(a => a.outputs.some(o => o.id === line.outputId))
      const output = mine[at]?.outputs.find(o => o.id === line.outputId)
      if (!output || line.isBridged !== (modeOf(output.rating) === 'bridged')) continue
      const place = channelOf(mine[at]!, output)
      if (groups[place] !== groupAt(line) || !isFree(units[at]!, place, line.isBridged)) continue
      seat(units[at]!, place, line)
      open.delete(line)
    }
    // Those that take two first.
    for (const line of [...open].sort((a, b) => Number(b.isBridged) - Number(a.isBridged))) {
      const placeIn = (u: Unit) => groups.findIndex((g, k) => g === groupAt(line) && isFree(u, k, line.isBridged))
      const unit = units.find(u => placeIn(u) >= 0)
      if (!unit) return null
      seat(unit, placeIn(unit), line)
    }
    return units
  }
}

function seat({ slots }: Unit, place: number, line: AmplifierSet['assignment'][number]): void {
  slots[place] = line
  if (line.isBridged) slots[place + 1] = 'joined'
}

/** Which of its groups each of its outputs is of, in order. */
const groupsOf = (model: AmplifierModel): AmplifierModel['outputs'] => model.outputs.flatMap(g => Array.from({ length: g.count }, () => g))

/** A rating of one channel, for what is empty beside a pair. */
const singleOf = (rating: Output['rating']): Output['rating'] => isSolidState(rating) ? { ...rating, mode: 'single' } : rating

const sourcesOf = (job: Job): string[] => [...new Set(job.amplifiers.flatMap(a => a.inputs.flatMap(i => i.source?.name ?? [])))]

/** What comes into a new unit: the same as into the amplifiers that its lines come from, where that is the same for all: else nobody knows which goes where. */
function inputsOf(job: Job, slots: readonly Slot[]): Input[] {
  const [inputs, ...others] = slots.filter(isLine).map(slot => outputOf(job, slot.outputId).amplifier.inputs.filter(i => i.source !== null))
  return inputs !== undefined && others.every(other => same(other.map(i => i.source), inputs.map(i => i.source))) ? inputs : []
}

function addUnit(sequence: Sequence, model: AmplifierModel, { from, inputs }: Pick<Amplifier, 'from' | 'inputs'>, newId: NewId): string {
  const names = new Set(sequence.job.amplifiers.map(a => a.name))
  let name = model.name
  for (let k = 2; names.has(name); k++) name = `${model.name}, no. ${k}`
  const amplifier: Amplifier = { id: newId(), name, place: '', ...UNSTATED_AMPLIFIER, ...statedOf(model, UNSTATED_AMPLIFIER), inputs: inputsOfModel(model.inputs, inputs), from, outputs: [] }
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
  const meant = singleOf(slots.find(isLine)?.rating ?? { kind: 'not-known' })
  let index = 0
  const put = (edit: SimpleEdit) => { sequence.do(edit) }
  let moved = 0
  const placed = new Set<string>()
  slots.forEach((slot, channel) => {
    if (slot === 'joined') return
    const k = index++
    const empty = () => unit().outputs.find(o => !placed.has(o.id) && o.wiring.children.length === 0 && !slots.some(s => isLine(s) && s.outputId === o.id))
    const outputId = slot?.outputId ?? empty()?.id
    const rating = slot?.rating ?? statedRating(groups[channel]!, meant, model.bridgedFloorOhm)
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
  for (const o of unit().outputs) if (!placed.has(o.id) && !isInUse(sequence.job, o)) put({ kind: 'output.remove', outputId: o.id, was: o })
  return moved
}
