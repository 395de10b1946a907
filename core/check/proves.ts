import { faultAt } from '#core/faults/fault'
import { FAULTS } from '#core/faults/index'
import type { Output, Reading, Repair } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import type { LineSolution } from '#core/network/line'
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
  const definition = FAULTS.find(f => f.kind === kind)
  if (!definition) return reading.nodeId === null || reading.nodeId === nodeId
  const faults = definition.candidates(output, speakersOf(output.wiring)).filter(f => f.nodeId === nodeId)
  const all = faults.length > 0 ? faults : [faultAt(kind, nodeId)]
  const hz = reading.frequencyHz ?? METER_HZ
  const solved = () => all.map(f => solvedAsRead(definition.change(output.wiring, f), hz))
  // By what is true of its kind: a new one is judged by where and what it measures.
  const { at, value, isCopper } = factsOf(reading.kind)
  if (value === 'heard') {
    const wasW = wattsAt(solvedAsRead(output.wiring), reading.nodeId)
    return wasW > 0 && solved().every(broken => broken.head.state === 'short' || wattsAt(broken, reading.nodeId) < SILENT * wasW)
  }
  if (isCopper) return at === 'speaker' && reading.nodeId === nodeId && (definition.coil.right ?? 0) === 0
  const [low, high] = [predicted?.low ?? null, predicted?.high ?? null]
  const factor = predicted?.learned?.factor ?? 1
  return at === 'head' && low !== null && high !== null && solved().every(({ head }) => head.state !== 'finite' || head.ohm * factor < low || head.ohm * factor > high)
}

const wattsAt = ({ drops }: LineSolution, nodeId: string | null): number => drops.find(d => d.id === nodeId)?.powerW ?? 0
