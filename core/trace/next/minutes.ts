import type { Fault } from '#core/faults/fault'
import type { FaultKind } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { isWalk, type TestAt, type TestKind, type WalkKind } from './test'

/** What a test or a mend takes, in minutes. Common practice, no source: what matters is what is long against what is short. */

/** Where somebody is, what the amplifier is, and what is at hand. */
export interface Standing {
  /** The speaker one stands at; null: at the rack. */
  atId: string | null
  isOn: boolean
  /** Tools that are not at hand. */
  without: readonly Tool[]
}
export const TOOLS = ['impedance-meter', 'ohmmeter', 'battery', 'level-meter', 'ladder', 'known-good'] as const
export type Tool = typeof TOOLS[number]
export const AT_THE_RACK: Standing = { atId: null, isOn: false, without: [] }

interface Takes { minutes: number, ladder: boolean, tool: Tool | null }
const TAKES: Partial<Record<TestKind, Takes>> = {
  'walk': { minutes: 0, ladder: false, tool: null },
  'level-walk': { minutes: 1, ladder: false, tool: 'level-meter' },
  'pulse-walk': { minutes: 1, ladder: false, tool: 'battery' },
  'looked': { minutes: 1.5, ladder: true, tool: null },
  'swapped': { minutes: 8, ladder: true, tool: null },
  'line-impedance': { minutes: 1.5, ladder: false, tool: 'impedance-meter' },
  'leg-earth': { minutes: 2, ladder: false, tool: 'ohmmeter' },
  'sound': { minutes: 0.5, ladder: false, tool: null },
  'beside': { minutes: 1, ladder: false, tool: null },
  'tap-found': { minutes: 1, ladder: true, tool: null },
  'coil-dcr': { minutes: 4, ladder: true, tool: 'ohmmeter' },
  'polarity': { minutes: 2, ladder: false, tool: 'battery' },
  'polarity-heard': { minutes: 1.5, ladder: false, tool: 'battery' },
  'outward-impedance': { minutes: 4, ladder: true, tool: 'impedance-meter' },
}
const LADDER = 3
const TO_THE_RACK = 2
/** From one speaker to the next along the line, and never more than this. */
const A_PLACE = 0.4
const FAR = 4
/** One speaker more noted in passing: heard; read by the meter and written down; by the pulse. */
const NOTED: Record<WalkKind, number> = { 'walk': 0.2, 'level-walk': 0.35, 'pulse-walk': 0.25 }
/** Off, its plug out, and the other way round. */
export const SWITCH = 1

/** Tests that can be taken at all. */
export const ASKED = Object.keys(TAKES) as TestKind[]
/** What the amplifier must be for it. */
export const amplifierOf = (kind: TestKind): 'on' | 'off' => isWalk(kind) ? 'on' : factsOf(kind).amplifier
/** A rack is looked at from the floor. */
export const needsLadder = ({ kind, nodeId }: Pick<TestAt, 'kind' | 'nodeId'>): boolean => (TAKES[kind]?.ladder ?? false) && nodeId !== null
export const toolFor = ({ kind, besideId }: Pick<TestAt, 'kind' | 'besideId'>): Tool | null => kind === 'swapped' && besideId === null ? 'known-good' : TAKES[kind]?.tool ?? null

/** `order`: speakers along the line; `passed`: those that a walk notes. null: it cannot be done with what is at hand. */
export function minutesOf(test: TestAt, { atId, isOn, without }: Standing, order: ReadonlyMap<string, number>, passed: readonly string[] = []): number | null {
  const takes = TAKES[test.kind]
  const tool = toolFor(test)
  if (!takes || (tool !== null && without.includes(tool)) || (takes.ladder && without.includes('ladder') && (test.kind !== 'looked' || order.has(test.nodeId ?? '')))) return null
  const needsOn = amplifierOf(test.kind) === 'on'
  if (isWalk(test.kind)) {
    const [first, last] = [passed[0]!, passed.at(-1)!]
    return takes.minutes + NOTED[test.kind] * passed.length + A_PLACE * ((order.get(last) ?? 0) - (order.get(first) ?? 0)) + (isOn ? 0 : SWITCH) + walk(atId,
      first, order)
  }
  // A knob on the wall, and the rack, are at hand.
  const isUp = takes.ladder && (test.kind !== 'looked' || order.has(test.nodeId ?? ''))
  // Two that change places are two ladders, and two to put back.
  const exchanged = test.kind === 'swapped' && test.besideId !== null ? takes.minutes + LADDER : 0
  return takes.minutes + exchanged + (isUp && test.nodeId !== atId ? LADDER : 0) + (needsOn === isOn ? 0 : SWITCH) + walk(atId, test.nodeId, order)
}

function walk(fromId: string | null, toId: string | null, order: ReadonlyMap<string, number>): number {
  if (fromId === toId) return 0
  const [from, to] = [fromId, toId].map(id => id === null ? -1 : order.get(id) ?? 0) as [number, number]
  return (fromId === null || toId === null ? TO_THE_RACK : 0) + Math.min(FAR, A_PLACE * Math.abs(from - to))
}

/** Opening a place and putting right what is there: of a speaker, its joint, its dial; of a run; of the rack. */
const MENDS: Partial<Record<FaultKind, number>> = {
  'break-in-reach': 15, 'joint-in-run': 15, 'short-in-run': 20, 'pair-crossed': 8, 'leak-across': 30, 'leg-earth': 25, 'another-cable': 25, 'extra-speaker': 12, 'lines-exchanged': 4,
  'taps-on-other-scale': 20, 'taps-one-off': 20, 'control-at-zero': 2, 'control-turned-down': 2, 'control-bypassed': 12, 'control-overrated': 15,
  'amplifier-dead': 4, 'amplifier-clipping': 4, 'amplifier-low': 3, 'amplifier-wrong-tap': 4, 'source-one-side': 5, 'wrong-jack': 2, 'something-else': 50,
}
const AT_A_SPEAKER = 8
/** Found right, and read once more. */
const AS_DRAWN = 2

/** What is put right at one go, at one place: a joint, the unit, its transformer, its dial. Another of these is another go. */
const GO: Partial<Record<FaultKind, string>> = {
  'open-at-drop': 'joint', 'high-resistance': 'joint', 'dirty-contact': 'joint', 'short-at-drop': 'joint', 'turned-round': 'joint', 'speaker-missing': 'joint',
  'coil-open': 'unit', 'coil-high': 'unit', 'shorted-turns': 'unit', 'rubbing': 'unit', 'comes-and-goes': 'unit', 'high-unit-gone': 'unit', 'one-driver-gone': 'unit', 'coil-opposed': 'unit', 'short-at-tabs': 'unit',
  'winding-open': 'transformer', 'winding-shorted': 'transformer', 'winding-exchanged': 'dial', 'low-impedance-position': 'dial', 'wrong-tap': 'dial', 'wrong-scale': 'dial', 'drops-exchanged': 'dial',
}
export const mendKey = (faults: readonly Fault[]): string => faults.length === 0 ? 'as drawn' : faults.map(f => `${GO[f.kind] ?? f.kind} ${f.nodeId ?? ''}`).sort().join(' + ')
export const mendMinutes = (faults: readonly Fault[]): number => faults.length === 0
  ? AS_DRAWN
  : faults.reduce((sum, f) => sum
    + (MENDS[f.kind] ?? AT_A_SPEAKER), 0)
