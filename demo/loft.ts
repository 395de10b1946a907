import { emptyJob } from '#core/job/document'
import { Records } from '#core/job/records'
import type { Job, Output } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import { originOf } from './gear'
import { chain, coils, readingsOf, type Model } from './build'

/** Rehearsal loft: valve heads and cabinets with jacks of several impedances, and a bass amplifier of transistors. */

const four: Model = { name: 'Cabinet 4 × 300 with a switch, 240 W', driverOhm: null, continuousW: 240, load: { kind: 'nominal', nominalOhm: 16 } }
const one: Model = { name: 'Cabinet 1 × 300, 16 Ω, 60 W', driverOhm: null, continuousW: 60, load: { kind: 'nominal', nominalOhm: 16 } }
const two: Model = { name: 'Cabinet 2 × 300, 8 Ω, 120 W', driverOhm: null, continuousW: 120, load: { kind: 'nominal', nominalOhm: 8 } }
const cable = { areaMm2: 2.5 }

const outputs: Output[] = [
  {
    id: 'rl-head', label: 'A1', name: 'Guitar, both cabinets', rating: { kind: 'valve', powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: 'selector' }, ...UNSTATED_OUTPUT,
    wiring: chain('rl-head', cable, [[1.5, four], [2, four]]),
  },
  {
    id: 'rl-small', label: 'B1', name: 'Guitar, by the window', rating: { kind: 'valve', powerW: 18, tapsOhm: [8, 16], tapOhm: null, chosenBy: 'sockets' }, ...UNSTATED_OUTPUT,
    wiring: chain('rl-small', cable, [[1, one]]),
  },
  {
    id: 'rl-bass', label: 'C1', name: 'Bass', rating: { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 120 }, { loadOhm: 8, powerW: 75 }], floorOhm: 4, mode: 'single', bridgedFloorOhm: null }, ...UNSTATED_OUTPUT,
    wiring: chain('rl-bass', cable, [[1.5, two], [1.5, two]]),
  },
]

export const loft: Job = {
  ...emptyJob('Rehearsal loft'),
  note: 'Inside the heads works a qualified technician.',
  practice: { reserve: 'use-four-fifths', power: 'instrument-cabinet', valve: 'match-exactly', stripe: 'plain-is-plus' },
  amplifiers: [
    { id: 'rl-a', name: 'Valve head 50 W', place: 'on the left cabinet', ...UNSTATED_AMPLIFIER, made: 'amplifier', inputOhm: 1_000_000, from: originOf('amplifier', 'Valve head 50 W'), outputs: outputs.slice(0, 1) },
    { id: 'rl-b', name: 'Valve head 18 W', place: 'by the window', ...UNSTATED_AMPLIFIER, made: 'amplifier', inputOhm: 1_000_000, from: originOf('amplifier', 'Valve head 18 W'), outputs: outputs.slice(1, 2) },
    { id: 'rl-c', name: 'Bass amplifier 120 W', place: 'in the corner', ...UNSTATED_AMPLIFIER, outputs: outputs.slice(2) },
  ],
  readings: Records.of(readingsOf('2026-05-20', 18 * 60, [...coils(outputs[0]!, 12.9, 13.1), ...coils(outputs[1]!, 12.6)])),
}
