import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { EditRefused } from '#core/job/refusal'
import { addAfter, addFirst, joinWithNext, moveToOutput, removeNode, retap, setLineCable, shift, ungroup } from '#core/hands/intents'
import type { Job, Reading } from '#core/job/schema'
import { putBefore, stepThrough, takeOut, unknownControl, usualTransformer } from '#core/hands/throughs'
import { addSpace, layOut, setSpots, speakerAt, spotOf } from '#core/hands/spaces'
import { MOST_VARIANTS } from '#core/job/sections/variants/schema'
import { outputsOf, placeOf, speakersOf } from '#core/job/tree'
import { moveEach, removeEach } from '#core/hands/many/many'
import { keepVariant, takeVariant } from '#core/hands/variants'
import { makeZone, removeZone } from '#core/hands/zones'
import { nodeIds } from './jobs'
import type { Chance } from './trees'

/** Edits for tests, as hands would make them. */

const lead = { cable: { awg: 16 }, lengthM: 5 }

export const reading = (id: string): Reading => ({
  id, at: '2026-05-04T09:30:00Z', kind: 'line-impedance', outputId: 'out1', nodeId: null, value: { is: 'ohm', ohm: 120 }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
})

export function isTaken(job: Job, edit: Edit): boolean {
  try {
    applyEdit(job, edit)
    return true
  }
  catch (error) {
    if (error instanceof EditRefused) return false
    throw error
  }
}

/** A hand on the keys: some intent at some node, whatever it gives. */
export function randomEdit(job: Job, chance: Chance, newId: () => string): Edit | null {
  const outputs = outputsOf(job)
  const output = outputs[Math.floor(chance() * outputs.length)]
  if (!output) return null
  const ids = nodeIds(output)
  const node = ids[Math.floor(chance() * ids.length)]
  if (node === undefined) return addFirst(job, output.id, newId)?.edit ?? null
  const other = outputs[Math.floor(chance() * outputs.length)]!.id
  const branch = placeOf(job, node).branch
  const choices: (() => Edit | null)[] = [
    () => retap(job, node, chance() < 0.5 ? 1 : -1), () => shift(job, node, chance() < 0.5 ? 1 : -1), () => removeNode(job, node),
    () => addAfter(job, node, newId)?.edit ?? null, () => moveToOutput(job, node, other), () => joinWithNext(job, node, chance() < 0.5 ? 'series' : 'star', newId),
    () => ungroup(job, node), () => ({ kind: 'lead.set', nodeId: node, was: branch.lead, to: branch.lead ? null : lead }), () => setLineCable(job, output.id, { areaMm2: 1.5 }),
    () => ({ kind: 'reading.add', reading: { ...reading(newId()), outputId: output.id } }),
    () => ({ kind: 'output.set', outputId: output.id, was: { name: output.name }, to: { name: `line ${newId()}` } }),
    () => {
      const put = putBefore(job, [node], chance() < 0.6 ? unknownControl(newId().slice(0, 20)) : usualTransformer(newId().slice(0, 20), 70.71, [10, 30]), newId)
      if (put === null || typeof put === 'string') return takeOut(job, node)
      // A control behind a control is refused, and what is refused is no edit of a hand.
      return isTaken(job, put.edit) ? put.edit : null
    },
    () => stepThrough(job, node, chance() < 0.5 ? 1 : -1) ?? takeOut(job, node),
    () => {
      const [space] = job.spaces
      if (!space) return addSpace(job, newId).edit
      const places = Array.from({ length: Math.floor(4 * chance()) }, () => ({ xM: 8 * chance(), yM: 6 * chance() }))
      const free = space.spots.find(s => speakerAt(job, s) === null)
      return chance() < 0.5 || !free || spotOf(job, node) ? layOut(job, space, places, newId) : setSpots(space, [free.id], { nodeId: node })
    },
    () => chance() < 0.2 ? { kind: 'output.remove', outputId: output.id, was: chance() < 0.5 ? output : null } : null,
    () => ({ kind: 'output.move', outputId: output.id, amplifierId: job.amplifiers[Math.floor(job.amplifiers.length * chance())]!.id, index: Math.floor(3 * chance()) }),
  ]
  return choices[Math.floor(chance() * choices.length)]!()
}

/** Many edits as one, as searches and hands on several make them: variants kept, gone over to and let go, several moved or taken off, a zone given up. */
export function compositeEdit(job: Job, chance: Chance, newId: () => string): Edit | null {
  const outputs = outputsOf(job)
  const ids = outputs.flatMap(o => speakersOf(o.wiring)).map(s => s.id).filter(() => chance() < 0.4)
  const variant = job.variants[Math.floor(chance() * job.variants.length)]
  const output = outputs[Math.floor(chance() * outputs.length)]
  const zone = job.zones[Math.floor(chance() * job.zones.length)]
  const choices: (() => Edit | null)[] = [
    () => job.variants.length < MOST_VARIANTS ? keepVariant(job, `as ${newId()}`, '2026-05-04T09:30:00Z', newId) : null,
    () => variant ? takeVariant(job, variant.id) : null,
    () => variant ? { kind: 'variant.remove', variantId: variant.id, was: variant } : null,
    () => removeEach(job, ids).edit,
    () => output ? moveEach(job, ids, { outputId: output.id }).edit : null,
    () => makeZone(job, ids, 'z', newId),
    () => zone ? removeZone(job, zone.id) : null,
  ]
  return choices[Math.floor(chance() * choices.length)]!()
}
