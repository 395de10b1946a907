import type { Cable } from '#core/quantity/cable'
import { readConductor } from '#core/gear/conductor'
import type { Branch, Chain, Output, Reading, ReadingValue, Speaker, SpeakerLoad, Splice } from '#core/job/schema'
import { UNSTATED_SPLICE } from '#core/job/sections/splices/schema'

/** Short hands for writing the demo jobs. Everything in them is invented. */

export const two = (n: number) => String(n).padStart(2, '0')

export interface Model { name: string, load: SpeakerLoad, driverOhm: number | null, continuousW: number | null }

export function speaker(id: string, label: string, model: Model, tapW?: number): Speaker {
  const load = tapW !== undefined && model.load.kind === 'tap' ? { ...model.load, tapW } : model.load
  return { kind: 'speaker', id, label, name: model.name, load, continuousW: model.continuousW, driverOhm: model.driverOhm, kindId: null, zoneId: null }
}

export function on(cable: Cable, lengthM: number, node: Branch['node']): Branch {
  return { lead: { cable, lengthM }, node }
}

/** A daisy chain of speakers `PREFIX-01`…, one row each: metres of cable, model, tap. */
export function chain(prefix: string, cable: Cable, rows: [lengthM: number, model: Model, tapW?: number][]): Chain {
  return {
    kind: 'chain', id: `${prefix}-line`,
    children: rows.map(([lengthM, model, tapW], k) => on(cable, lengthM, speaker(`${prefix}-${two(k + 1)}`, two(k + 1), model, tapW))),
  }
}

/** What is said of the lead to a node: its pair as “orange, orange/black”, and how it is joined. */
export function lead(nodeId: string, pair: string | null, more: Partial<Splice> = {}): Splice {
  const [first, second] = pair === null ? [] : pair.split(',').map(text => readConductor(text.trim()))
  return { nodeId, ...UNSTATED_SPLICE, ...first && second ? { pair: [first, second], start: 'straight', end: 'straight' } : {}, ...more }
}

export type Row = [output: Output, kind: Reading['kind'], nodeId: string | null, value: ReadingValue, note?: string]

/** Readings of a day, a few minutes apart. */
export function readingsOf(day: string, firstMinute: number, rows: Row[]): Reading[] {
  return rows.map(([output, kind, nodeId, value, note = ''], k) => {
    const minute = firstMinute + 3 * k
    return {
      id: `${output.id}-r${k + 1}`, at: `${day}T${two(Math.floor(minute / 60))}:${two(minute % 60)}:00Z`, kind, outputId: output.id, nodeId, value, note,
      frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false,
    }
  })
}

export const ohm = (value: number): ReadingValue => ({ is: 'ohm', ohm: value })

const nodeAt = (output: Output, k: number) => `${output.id}-${two(k)}`

/** Coil readings of speakers 1, 2, 3… of a chain. */
export function coils(output: Output, ...ohms: number[]): Row[] {
  return ohms.map((value, k): Row => [output, 'coil-dcr', nodeAt(output, k + 1), ohm(value)])
}

/** The first so many speakers of a chain play. */
export function firstPlay(output: Output, count: number): Row[] {
  return Array.from({ length: count }, (_, k): Row => [output, 'sound', nodeAt(output, k + 1), { is: 'plays' }])
}
