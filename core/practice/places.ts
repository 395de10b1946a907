import type { FaultKind, Output, ReadingKind } from '#core/job/schema'
import { throughsIn, speakersOf } from '#core/job/tree'
import { likenessOf } from '#core/quantity/same'
import { orderOf, TOOLS, type Order } from '#core/trace/next/minutes'
import type { TestAt, WalkKind } from '#core/trace/next/test'
import { writeQuantity } from '#core/quantity/write'
import type { Exercise } from './exercises'
import { candidatesOf } from './rig'

/** Places of a rig, and what may be done at each with the tools that are at hand. */

/** What may be at hand at a rig. */
export const PRACTICE_TOOLS = TOOLS.filter(t => t !== 'level-meter')
/** Walks that a rig knows: by ear, and by the pulse. What a level meter would show it does not draw. */
export const RIG_WALKS = ['walk', 'pulse-walk'] as const satisfies readonly WalkKind[]
export type RigTest = TestAt & { kind: ReadingKind | typeof RIG_WALKS[number] }

/** null: at the rack. */
export interface Place { id: string | null, name: string, is: 'rack' | 'speaker' | 'control' }

export function placesOf(output: Output): Place[] {
  const speakers = speakersOf(output.wiring).map(({ id, label }): Place => ({ id, name: label, is: 'speaker' }))
  const controls = throughsIn(output.wiring).map(({ group: { id }, through }): Place => ({ id, name: through.label, is: 'control' }))
  return [{ id: null, name: 'the rack', is: 'rack' }, ...speakers, ...controls]
}

/** Speakers of a rig by where they come along its line. */
export const orderIn = (output: Output): Order => orderOf(speakersOf(output.wiring))

/** What stands for a fault that lies at a group: its control, else the group by its speakers. */
export function nameIn(output: Output): (nodeId: string | null) => string {
  const names = new Map(placesOf(output).map(p => [p.id, p.name]))
  return nodeId => nodeId === null ? output.label : names.get(nodeId) ?? 'a group'
}

/** Tests that may be taken at a place, in the order of the trade: ears, then what is looked at, then meters, then what is unscrewed. */
export function testsAt(output: Output, id: string | null): RigTest[] {
  const at = (kind: RigTest['kind'], besideId: string | null = null): RigTest => ({ kind, nodeId: id, besideId })
  const speakers = speakersOf(output.wiring)
  // The pulse goes through transformers; where there are none a battery tells the same.
  const isPulsed = speakers.length > 1 && speakers.every(s => s.load.kind === 'tap')
  if (id === null) return [at('walk'), at('line-impedance'), at('leg-earth'), at('looked'), ...isPulsed ? [at('pulse-walk')] : []]
  const k = speakers.findIndex(s => s.id === id)
  const speaker = speakers[k]
  if (!speaker) return [at('looked')]
  const beside = [speakers[k - 1], speakers[k + 1]].find(o => o && likenessOf(o.load) === likenessOf(speaker.load))
  const isParted = output.wiring.children.slice(1).some(c => c.node.id === id)
  const isTapped = speaker.load.kind === 'tap'
  return [
    at('sound'), ...beside ? [at('beside', beside.id)] : [], ...isTapped ? [at('tap-found')] : [], at('looked'), at('coil-dcr'), ...isParted ? [at('outward-impedance')] : [],
    at(isTapped ? 'polarity-heard' : 'polarity'), at('swapped'), ...beside ? [at('swapped', beside.id)] : [],
  ]
}

/**
 * What may be said to be wrong at a place: kinds of the exercise, each once, in the order of the catalogue. What lies at a group without a control is said
 * at the rack.
 */
export function kindsAt(exercise: Pick<Exercise, 'line' | 'kinds'>, id: string | null): FaultKind[] {
  const known = new Set(placesOf(exercise.line).map(p => p.id))
  return [...new Set(candidatesOf(exercise).filter(f => f.nodeId === id || (id === null && !known.has(f.nodeId))).map(f => f.kind))]
}

/** The place that is meant when a kind is named there: itself, or at the rack the group that has no name. */
export const nodeOfKind = (exercise: Pick<Exercise, 'line' | 'kinds'>, id: string | null, kind: FaultKind): string | null => {
  const of = candidatesOf(exercise).filter(f => f.kind === kind)
  const known = new Set(placesOf(exercise.line).map(p => p.id))
  return of.some(f => f.nodeId === id) ? id : of.find(f => !known.has(f.nodeId))?.nodeId ?? id
}

/** What hangs at a place as it is drawn, in words; null at the rack. */
export function findIn(output: Output, id: string | null): string | null {
  if (id === null) return null
  const speaker = speakersOf(output.wiring).find(s => s.id === id)
  if (!speaker) {
    const through = throughsIn(output.wiring).find(t => t.group.id === id)?.through
    return through?.kind === 'control' ? 'a control on the wall' : 'a transformer'
  }
  const { load } = speaker
  if (load.kind === 'tap') return load.tapW === 0 ? 'drawn off' : `drawn on ${writeQuantity(load.tapW, 'W')}${speaker.driverOhm === null ? '' : `, its driver ${writeQuantity(speaker.driverOhm, 'Ω')}`}`
  if (load.kind === 'members') return `${load.members.length} coils ${load.joined === 'parallel' ? 'side by side' : 'in series'}, ${load.members.map(m => writeQuantity(m.nominalOhm, 'Ω')).join(' and ')}`
  return 'nominalOhm' in load ? writeQuantity(load.nominalOhm, 'Ω') : 'of another kind'
}
