import type { Fault } from '#core/faults/fault'
import { goOf } from '#core/faults/go'
import type { FaultKind, Reading, Speaker } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { isWalk, type TestAt, type TestKind, type WalkKind } from './test'

/** What a test or a mend takes, in minutes. Common practice, no source: what matters is what is long against what is short. */

/** Where somebody is, what the amplifier is, and what is at hand. */
export interface Standing {
  /** The speaker one stands at; null: at the rack. */
  atId: string | null
  /** Up the ladder there: who listens under a speaker stands on the floor. */
  isUp: boolean
  isOn: boolean
  /** Tools that are not at hand. */
  without: readonly Tool[]
}
export const TOOLS = ['impedance-meter', 'ohmmeter', 'battery', 'level-meter', 'ladder', 'known-good'] as const
export type Tool = typeof TOOLS[number]
export const AT_THE_RACK: Standing = { atId: null, isUp: false, isOn: false, without: [] }

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
/** Speakers by where they come along the line: what else there is, a rack and a knob on the wall, is reached from the floor. */
export type Order = ReadonlyMap<string, number>
export const orderOf = (speakers: readonly Pick<Speaker, 'id'>[]): Order => new Map(speakers.map((s, k) => [s.id, k]))
const isAbove = ({ kind, nodeId }: Pick<TestAt, 'kind' | 'nodeId'>, order: Order): boolean => (TAKES[kind]?.ladder ?? false) && order.has(nodeId ?? '')
/** Ladders that a test asks for, from where somebody stands. */
export function laddersOf(test: TestAt, { atId, isUp }: Pick<Standing, 'atId' | 'isUp'>, order: Order): number {
  // Two that change places are two ladders.
  const other = test.kind === 'swapped' && test.besideId !== null ? 1 : 0
  return isAbove(test, order) && !(isUp && atId === test.nodeId) ? 1 + other : other
}
/** Where a test leaves whoever takes it. `lastId`: the last that a walk passes. */
export function standingAfter({ kind, nodeId }: Pick<TestAt, 'kind' | 'nodeId'>, { atId, isUp, without }: Standing, order: Order, lastId: string | null = null): Standing {
  const to = isWalk(kind) ? lastId : nodeId
  return { atId: to, isUp: isAbove({ kind, nodeId }, order) || (isUp && to !== null && to === atId), isOn: amplifierOf(kind) === 'on', without }
}
/** Where somebody stands who opened a place. */
export const openedAt = (nodeId: string | null, order: Order): Pick<Standing, 'atId' | 'isUp'> => ({ atId: nodeId, isUp: order.has(nodeId ?? '') })
/** The same of readings, oldest first. */
export const standingBy = (readings: readonly Pick<Reading, 'kind' | 'nodeId'>[], order: Order, without: readonly Tool[]): Standing =>
  readings.reduce((at, reading) => standingAfter(reading, at, order), { ...AT_THE_RACK, without })
export const toolFor = ({ kind, besideId }: Pick<TestAt, 'kind' | 'besideId'>): Tool | null => kind === 'swapped' && besideId === null ? 'known-good' : TAKES[kind]?.tool ?? null

/** `order`: speakers along the line; `passed`: those that a walk notes. null: it cannot be done with what is at hand. */
export function minutesOf(test: TestAt, standing: Standing, order: Order, passed: readonly string[] = []): number | null {
  const { atId, isOn, without } = standing
  const takes = TAKES[test.kind]
  const tool = toolFor(test)
  if (!takes || (tool !== null && without.includes(tool)) || (without.includes('ladder') && isAbove(test, order))) return null
  const needsOn = amplifierOf(test.kind) === 'on'
  if (isWalk(test.kind)) {
    const [first, last] = [passed[0]!, passed.at(-1)!]
    return takes.minutes + NOTED[test.kind] * passed.length + A_PLACE * ((order.get(last) ?? 0) - (order.get(first) ?? 0)) + (isOn ? 0 : SWITCH) + walk(atId,
      first, order)
  }
  // Two that change places are two to put back.
  const times = test.kind === 'swapped' && test.besideId !== null ? 2 : 1
  return times * takes.minutes + LADDER * laddersOf(test, standing, order) + (needsOn === isOn ? 0 : SWITCH) + walk(atId, test.nodeId, order)
}

function walk(fromId: string | null, toId: string | null, order: Order): number {
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
/** Put right by turning a knob: the amplifier may stay on. All else is opened, and is off before. Common practice, no source. */
const BY_A_KNOB: ReadonlySet<FaultKind> = new Set(['control-at-zero', 'control-turned-down', 'amplifier-low', 'amplifier-clipping'])
export const isOpened = (faults: readonly Fault[]): boolean => faults.some(f => !BY_A_KNOB.has(f.kind))
const AT_A_SPEAKER = 8
/** Found right, and read once more. */
const AS_DRAWN = 2

export const mendKey = (faults: readonly Fault[]): string => faults.length === 0 ? 'as drawn' : faults.map(goOf).sort().join(' + ')
export const mendMinutes = (faults: readonly Fault[]): number => faults.length === 0
  ? AS_DRAWN
  : faults.reduce((sum, f) => sum
    + (MENDS[f.kind] ?? AT_A_SPEAKER), 0)
