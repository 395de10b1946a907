import { predictBare } from '#core/check/barePairs'
import { predictLine } from '#core/check/predict'
import type { Job, Output, ReadingKind, Speaker } from '#core/job/schema'
import { hashOf } from '#core/quantity/hash'
import { outputsOf, speakersOf } from '#core/job/tree'

/**
 * What hangs there in a virtual copy of a job: units that differ from their labels, windings of transformers, and faults that nobody is told of. It is a world
 * of its own, not the plan: what the plan does not state is something here all the same. Figures are invented, of the size of common practice.
 */
export interface Hidden { nodeId: string, fault: 'coil-open' | 'coil-high' | 'coil-low' | 'leak' }
export interface Place { outputId: string, nodeId: string | null, kind: ReadingKind }
/** Ohms between the leads; Infinity: nothing flows. */
export type Truth = number

/** A driver of which the plan says nothing is of 8 Ω; a coil reads four fifths of its label. */
const UNSAID_COIL_OHM = 6.4
/** Units differ from the middle of their model by so much at the most. */
const UNIT_SPREAD = 0.05
/** The copper of a transformer's primary, as a part of what its tap asks of the line. */
const WINDING_PART = 0.05
const COIL = { 'coil-open': () => Infinity, 'coil-high': () => 37, 'coil-low': (ohm: number) => 0.5 * ohm }
const LEAK_OHM = 68_000

/** The same for the same text on every machine, 0 to 1. */
export function chanceOf(text: string): number {
  const plain = hashOf(text)
  const hash = Math.imul(plain ^ (plain >>> 15), 0x2C1B3C6D)
  return ((hash ^ (hash >>> 13)) >>> 0) / 2 ** 32
}

/** @returns what an ideal meter would read there; null where this place is in none of the jobs */
export function truthAt(jobs: readonly Job[], hidden: readonly Hidden[], { outputId, nodeId, kind }: Place): Truth | null {
  const output = jobs.flatMap(outputsOf).find(o => o.id === outputId)
  if (!output) return null
  const speakers = speakersOf(output.wiring)
  const speaker = speakers.find(s => s.id === nodeId)
  if (nodeId !== null && !speaker) return null
  switch (kind) {
    case 'coil-dcr': return coilOf(output, speaker!, hidden)
    case 'line-dcr': return lineOf(output, speakers, hidden)
    case 'leg-earth': return hidden.some(h => h.fault === 'leak' && speakers.some(s => s.id === h.nodeId)) ? LEAK_OHM : Infinity
    case 'pair-through': return predictBare(output, kind, nodeId)?.expected ?? 1
    default: return Infinity
  }
}

function coilOf(output: Output, speaker: Speaker, hidden: readonly Hidden[]): Truth {
  const foretold = predictLine(output).find(p => p.kind === 'coil-dcr' && p.nodeId === speaker.id)?.expected ?? null
  const ohm = (foretold ?? UNSAID_COIL_OHM) * (1 + UNIT_SPREAD * (2 * chanceOf(speaker.id) - 1))
  const fault = hidden.find(h => h.nodeId === speaker.id)?.fault
  return fault && fault !== 'leak' ? COIL[fault](ohm) : ohm
}

/** Through transformers their windings side by side; else the coils as they are wired, as the plan foretells them: an open one is not reckoned out of it. */
function lineOf(output: Output, speakers: readonly Speaker[], hidden: readonly Hidden[]): Truth {
  const windings = speakers.flatMap(({ load }) => load.kind === 'tap' && load.tapW > 0 ? [WINDING_PART * load.ratedV ** 2 / load.tapW] : [])
  if (windings.length > 0) return 1 / windings.reduce((sum, ohm) => sum + 1 / ohm, 0)
  const [only] = speakers
  if (only && speakers.length === 1) return coilOf(output, only, hidden)
  return predictLine(output).find(p => p.kind === 'line-dcr')?.expected ?? Infinity
}
