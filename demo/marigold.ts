import { emptyJob } from '#core/job/document'
import { Records } from '#core/job/records'
import type { Job, Output } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_INPUT, UNSTATED_OUTPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { chain, lead, on, readingsOf, ohm, speaker, type Model } from './build'

/** Excursion boat Marigold: four low-impedance outputs, a line with series and parallel members behind a harness with one crossed splice, a sub of two
 * coils that were put on against each other. */

const deck: Model = {
  name: 'Deck 165 marine, 60 W', driverOhm: null, continuousW: 60,
  load: { kind: 'motional', nominalOhm: 8, reOhm: 6.6, leH: 0.35e-3, fsHz: 85, qms: 5.1, qes: 0.86 },
}
const saloon: Model = { name: 'Saloon 130, 30 W', driverOhm: null, continuousW: 30, load: { kind: 'nominal', nominalOhm: 4 } }
const wheelhouse: Model = { name: 'Wheelhouse 130, 45 W', driverOhm: null, continuousW: 45, load: { kind: 'nominal', nominalOhm: 4 } }
const coil = { kind: 'motional' as const, nominalOhm: 4, reOhm: 3.5, leH: 0.9e-3, fsHz: 31, qms: 6.2, qes: 0.52 }
const sub: Model = { name: 'Sub 250 dual coil, 120 W', driverOhm: null, continuousW: 120, load: { kind: 'members', joined: 'series', members: [coil, coil] } }

const rating = { kind: 'solid-state' as const, points: [{ loadOhm: 4, powerW: 90 }, { loadOhm: 8, powerW: 55 }], floorOhm: 3, mode: 'single' as const, bridgedFloorOhm: null }
const cable = { areaMm2: 2.5 }

const outputs: Output[] = [
  { id: 'mg-deck', label: 'B1', name: 'Deck', rating, ...UNSTATED_OUTPUT, terminals: { plus: '1+', minus: '1-', connector: 'plug-in-screw' }, wiring: chain('mg-deck', cable, [[7, deck], [5, deck]]) },
  {
    id: 'mg-saloon', label: 'B2', name: 'Saloon', rating, ...UNSTATED_OUTPUT, terminals: { plus: '2+', minus: '2-', connector: 'plug-in-screw' },
    wiring: {
      kind: 'chain', id: 'mg-saloon-line',
      children: [['port', 4, '01', '02'], ['starboard', 6, '03', '04']].map(([side, lengthM, first, second]) => on(cable, Number(lengthM), {
        kind: 'series', id: `mg-saloon-${side}`,
        children: [on(cable, 1, speaker(`mg-saloon-${first}`, String(first), saloon)), on(cable, 3, speaker(`mg-saloon-${second}`, String(second), saloon))],
      })),
    },
  },
  { id: 'mg-wheel', label: 'B3', name: 'Wheelhouse', rating, ...UNSTATED_OUTPUT, wiring: chain('mg-wheel', cable, [[9, wheelhouse]]) },
  { id: 'mg-sub', label: 'B4', name: 'Sub under the bench', rating, ...UNSTATED_OUTPUT, wiring: chain('mg-sub', cable, [[5, sub]]) },
]

export const marigold: Job = {
  ...emptyJob('Excursion boat Marigold'),
  note: 'Battery disconnected before any cable is changed.',
  amplifiers: [{ id: 'mg-b', name: 'Amplifier B', place: 'under the wheel', ...UNSTATED_AMPLIFIER, made: 'vehicle', inputV: 1, inputOhm: 47_000, inputs: [{ ...UNSTATED_INPUT, label: 'A', takes: ['line'], source: { ...UNSTATED_SOURCE, name: 'Saloon radio, line out', kind: 'line', isStereo: true, volts: 2, ohm: 1000 } }], protection: 'Shuts down when it is too hot; comes back by itself.', outputs }],
  splices: [
    lead('mg-deck-01', 'white, white/black'), lead('mg-deck-02', 'white, white/black'),
    lead('mg-saloon-port', 'orange, orange/black'), lead('mg-saloon-01', 'orange, orange/black'), lead('mg-saloon-02', 'grey, grey/red'),
    lead('mg-saloon-starboard', 'violet, violet/black', { joint: 'roof junction', start: 'crossed' }), lead('mg-saloon-03', 'violet, violet/black'),
    lead('mg-wheel-01', 'red, black'), lead('mg-sub-01', 'brown, blue', { coils: ['straight', 'crossed'] }),
  ],
  readings: Records.of(readingsOf('2026-04-02', 13 * 60, [
    [outputs[1]!, 'line-dcr', null, ohm(3.4)],
    [outputs[1]!, 'coil-dcr', 'mg-saloon-01', ohm(3.2)],
    [outputs[1]!, 'coil-dcr', 'mg-saloon-02', ohm(3.3)],
    [outputs[1]!, 'polarity', 'mg-saloon-01', { is: 'right-way', how: 'battery-run', against: null }],
    [outputs[2]!, 'coil-dcr', 'mg-wheel-01', ohm(3.1)],
    [outputs[2]!, 'sound', 'mg-wheel-01', { is: 'plays' }],
    [outputs[2]!, 'line-impedance', null, ohm(4.6)],
  ])),
}
