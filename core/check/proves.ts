import { faultAt } from '#core/faults/fault'
import { definitionOf } from '#core/faults/index'
import type { Output, Reading, Repair } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { howFacts } from '#core/job/sections/readings/hows'
import { branchesOf, speakersOf } from '#core/job/tree'
import type { LineSolution } from '#core/network/line'
import { findOnChain } from './onChain'
import { METER_HZ, solvedAsRead } from './readingBands'
import type { Predicted } from './predict'

/** What a good reading after a repair proves of it: a reading proves only what it could have refuted. */

/** Under this part of its watts a speaker is silent: thirty decibels. Common practice, no source. */
const SILENT = 1e-3

/**
 * Whether a reading that is as it should be could not have been with the fault still there, in any way that the fault can be: at the head outside the band,
 * at its coil always another figure, by ear silent. Of something that is not in the list nobody can say so: there a good reading at its place has to do.
 */
export function proves(output: Output, { fault: kind, nodeId }: Repair, { reading, predicted }: { reading: Reading, predicted: Predicted | null }): boolean {
  if (kind === 'turned-round' || kind === 'pair-crossed') return provesTurned(output, nodeId, reading)
  // Two coils that pull alike are heard; what an ohmmeter says of them is the same either way.
  if (kind === 'coil-opposed') return reading.nodeId === nodeId && reading.value.is === 'plays'
  const definition = definitionOf(kind)
  if (!definition) return reading.nodeId === null || reading.nodeId === nodeId
  const faults = definition.candidates(output, speakersOf(output.wiring)).filter(f => f.nodeId === nodeId)
  const all = faults.length > 0 ? faults : [faultAt(kind, nodeId)]
  const hz = reading.frequencyHz ?? METER_HZ
  const solved = () => all.map(f => solvedAsRead(definition.change(output.wiring, f), hz))
  // By what is true of its kind: a new one is judged by where and what it measures.
  const { at, value, isCopper } = factsOf(reading.kind)
  // No leg lies on earth any more.
  if (definition.isToEarth) return reading.kind === 'leg-earth'
  if (value === 'heard' && definition.heard !== undefined) {
    const isThere = definition.acts === 'line' || nodeId === null || reading.nodeId === nodeId || behindOf(output, nodeId).has(reading.nodeId ?? '')
    return reading.value.is === 'plays' && isThere && (definition.heard.plays ?? 0) <= MAY_PLAY
  }
  if (value === 'heard') {
    const wasW = wattsAt(solvedAsRead(output.wiring), reading.nodeId)
    return wasW > 0 && solved().every(broken => broken.head.state === 'short' || wattsAt(broken, reading.nodeId) < SILENT * wasW)
  }
  // A dial that was read is what it was read as.
  if (value === 'tap') return reading.nodeId === nodeId && AT_THE_DIAL.has(kind)
  // What is plain to see is seen to be gone.
  if (value === 'seen') return reading.nodeId === nodeId && reading.value.is === 'as-it-should' && (definition.looks ?? 0) >= PLAIN
  if (value === 'swapped') return false
  if (isCopper) return at === 'speaker' && reading.nodeId === nodeId && (definition.coil.right ?? 0) === 0
  const [low, high] = [predicted?.low ?? null, predicted?.high ?? null]
  const factor = predicted?.learned?.factor ?? 1
  return at === 'head' && low !== null && high !== null && solved().every(({ head }) => head.state !== 'finite' || head.ohm * factor < low || head.ohm * factor > high)
}

/** A fault with which a speaker plays as often as this, or less, is refuted by its playing. Common practice, no source. */
const MAY_PLAY = 0.4
/** What is seen as often as this is seen to be gone, too. Common practice, no source. */
const PLAIN = 0.9
/** What is seen where a transformer is set. */
const AT_THE_DIAL: ReadonlySet<Repair['fault']> = new Set(['wrong-tap', 'wrong-scale', 'low-impedance-position', 'drops-exchanged'])

function behindOf({ wiring }: Output, nodeId: string): ReadonlySet<string> {
  return new Set(branchesOf(wiring).filter(b => b.node.id === nodeId).flatMap(({ node }) => speakersOf(node).map(s => s.id)))
}

/** A pair that was turned round is proved by a speaker behind it that reads the right way round, with all of its run; the unit alone says nothing of it. */
function provesTurned({ wiring }: Output, nodeId: string | null, { value, nodeId: at }: Reading): boolean {
  if (!('how' in value) || value.is !== 'right-way' || howFacts(value.how).proves === 'unit' || at === null) return false
  if (nodeId === null || nodeId === at) return true
  const behind = findOnChain(wiring, nodeId)?.behind ?? branchesOf(wiring).filter(b => b.node.id === nodeId)
  return behind.some(({ node }) => speakersOf(node).some(s => s.id === at))
}

const wattsAt = ({ drops }: LineSolution, nodeId: string | null): number => drops.find(d => d.id === nodeId)?.powerW ?? 0
