import { emptyJob } from '#core/job/document'
import { Records } from '#core/job/records'
import type { Branch, Input, Job, Output, Speaker } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_INPUT, UNSTATED_OUTPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { chain, coils, on, readingsOf, ohm, speaker, type Model } from './build'

/** Bandstand, Mill Meadow: boxes above, subs below, each with amplifiers of its own; a horn behind a capacitor reaches the back rows. One box on
 * the right sounds hollow beside the other. */

const box: Model = { name: 'Box 300 two-way, 300 W', driverOhm: null, continuousW: 300, load: { kind: 'nominal', nominalOhm: 8 } }
const sub: Model = { name: 'Sub 380, 500 W', driverOhm: null, continuousW: 500, load: { kind: 'nominal', nominalOhm: 8 } }
const small: Model = { name: 'Box 200, 100 W', driverOhm: null, continuousW: 100, load: { kind: 'nominal', nominalOhm: 8 } }
const horn: Model = { name: 'Horn and driver, 8 Ω, 40 W', driverOhm: null, continuousW: 40, load: { kind: 'nominal', nominalOhm: 8 } }

const tops = { kind: 'solid-state' as const, points: [{ loadOhm: 4, powerW: 1200 }, { loadOhm: 8, powerW: 700 }], floorOhm: 2, mode: 'single' as const, bridgedFloorOhm: null }
const bass = { kind: 'solid-state' as const, points: [{ loadOhm: 4, powerW: 500 }, { loadOhm: 8, powerW: 300 }], floorOhm: 4, mode: 'bridged' as const, bridgedFloorOhm: null }
const near = { kind: 'solid-state' as const, points: [{ loadOhm: 4, powerW: 300 }, { loadOhm: 8, powerW: 180 }], floorOhm: 4, mode: 'single' as const, bridgedFloorOhm: null }
/** The crossover stands before the amplifiers. */
const high = { system: 'Stage', fromHz: 100, toHz: null, slopeDb: 24 as const, setDb: null }
const low = { system: 'Stage', fromHz: null, toHz: 100, slopeDb: 24 as const, setDb: 0 }
const input = { gainDb: 32, inputOhm: 20_000 }
const from = (name: string, volts: number, ohm: number): Input => ({ ...UNSTATED_INPUT, source: { ...UNSTATED_SOURCE, name, kind: 'line', volts, ohm } })
const thick = { areaMm2: 4 }
const thin = { areaMm2: 2.5 }

const behindCapacitor = (lengthM: number, node: Speaker): Branch => on(thin, lengthM, {
  kind: 'chain', id: `${node.id}-high`, children: [{ lead: null, node }],
  through: { kind: 'capacitor', label: 'F1', name: 'Bipolar, 100 V', from: null, capacitanceF: 22e-6 },
})

const outputs: Output[] = [
  { id: 'mm-left', label: 'A1', name: 'Boxes, left', rating: tops, ...UNSTATED_OUTPUT, band: high, wiring: chain('mm-left', thick, [[14, box], [2, box]]) },
  { id: 'mm-right', label: 'A2', name: 'Boxes, right', rating: tops, ...UNSTATED_OUTPUT, band: high, wiring: chain('mm-right', thick, [[22, box], [2, box]]) },
  { id: 'mm-sub', label: 'B1', name: 'Sub, in the middle', rating: bass, ...UNSTATED_OUTPUT, band: low, limiterV: 80, wiring: chain('mm-sub', thick, [[9, sub]]) },
  {
    id: 'mm-near', label: 'C1', name: 'Front and back rows', rating: near, ...UNSTATED_OUTPUT,
    wiring: { kind: 'chain', id: 'mm-near-line', children: [on(thin, 8, speaker('mm-near-01', '01', small)), behindCapacitor(26, speaker('mm-near-02', '02', horn))] },
  },
]

export const bandstand: Job = {
  ...emptyJob('Bandstand, Mill Meadow'),
  note: 'Boxes from 100 Hz up, the sub below: the crossover stands before the amplifiers.',
  practice: { reserve: 'use-four-fifths', power: 'twice-continuous', valve: 'match-exactly', stripe: 'plain-is-plus' },
  amplifiers: [
    { id: 'mm-a', name: 'Amplifier A', place: 'rack under the stage', ...UNSTATED_AMPLIFIER, ...input, inputs: [from('Crossover, high', 4, 100)], protection: 'Clip limiter; cuts out when hot, and comes back by itself.', highPassHz: 100, outputs: outputs.slice(0, 2) },
    { id: 'mm-b', name: 'Amplifier B', place: 'rack under the stage', ...UNSTATED_AMPLIFIER, ...input, inputs: [from('Crossover, low', 4, 100)], highPassHz: 35, outputs: outputs.slice(2, 3) },
    { id: 'mm-c', name: 'Amplifier C', place: 'kiosk', ...UNSTATED_AMPLIFIER, inputs: [from('Mixer, second output', 1.2, 600)], inputV: 1, inputOhm: 5000, highPassHz: 80, outputs: outputs.slice(3) },
  ],
  readings: Records.of(readingsOf('2026-05-16', 9 * 60, [
    [outputs[0]!, 'line-dcr', null, ohm(3.4)], ...coils(outputs[0]!, 6.6, 6.5), [outputs[2]!, 'line-dcr', null, ohm(6.4)], ...coils(outputs[2]!, 6.2),
    [outputs[1]!, 'polarity-heard', 'mm-right-02', { is: 'reversed', how: 'ear', against: 'mm-right-01' }], [outputs[2]!, 'sound', 'mm-sub-01', { is: 'plays' }],
  ])),
}
