import { emptyJob } from '#core/job/document'
import { Records } from '#core/job/records'
import { applyEdit } from '#core/job/apply'
import { putBefore } from '#core/hands/throughs'
import { makeZone } from '#core/hands/zones'
import type { Control, Input, Job, Output } from '#core/job/schema'
import { UNSTATED_AMPLIFIER, UNSTATED_INPUT, UNSTATED_OUTPUT, UNSTATED_SOURCE } from '#core/job/sections/wiring/schema'
import { originOf } from './gear'
import { chain, coils, firstPlay, lead, ohm, readingsOf, type Model } from './build'

/** Fernhollow Glasshouses, a public botanical garden: four 70 V lines, one of them tight, one reading wrong; and a building of 100 V with its own amplifier. */

const LINE_V = 70.71
const taps = (...tapsW: number[]) => ({ kind: 'tap' as const, tapW: tapsW.at(-1)!, ratedV: LINE_V, tapsW, insertionDb: null, tapMeans: null })
const ceiling: Model = { name: 'Ceiling 165 back-can, 30 W', load: taps(2.5, 5, 10, 20, 30), driverOhm: 8, continuousW: 40 }
const surface: Model = { name: 'Surface 130 weatherproof, 20 W', load: taps(2.5, 5, 10, 20), driverOhm: 8, continuousW: 30 }
const horn: Model = { name: 'Horn 200, 30 W', load: taps(5, 10, 20, 30), driverOhm: 8, continuousW: 30 }

const rating = { kind: 'constant-voltage' as const, lineV: LINE_V, powerW: 240 }

const at = (no: string) => ({ plus: `${no}.70V`, minus: `${no}.COM`, connector: 'plug-in-screw' as const })

const palm: Output = {
  id: 'fh-palm', label: 'A1', name: 'Palm house', rating, ...UNSTATED_OUTPUT, terminals: at('1'),
  wiring: chain('fh-palm', { awg: 14 }, [[14, ceiling, 30], [9, ceiling, 30], [9, ceiling, 30], [9, ceiling, 30], [9, ceiling, 30], [16, surface, 20]]),
}
const fern: Output = {
  id: 'fh-fern', label: 'A2', name: 'Fern grotto', rating, ...UNSTATED_OUTPUT, terminals: at('2'),
  wiring: chain('fh-fern', { awg: 18 }, Array.from({ length: 10 }, (_, k) => [k === 0 ? 22 : 6, ceiling, 20])),
}
const ticket: Output = {
  id: 'fh-ticket', label: 'A3', name: 'Ticket court, shop', rating, ...UNSTATED_OUTPUT, terminals: at('3'),
  wiring: chain('fh-ticket', { awg: 16 }, [[8, ceiling, 5], [5, ceiling, 5], [5, ceiling, 5], [5, ceiling, 5], [5, ceiling, 5], [12, ceiling, 5], [5, surface, 10], [5, surface, 10]]),
}
const roof: Output = {
  id: 'fh-roof', label: 'A4', name: 'Roof walk', rating, ...UNSTATED_OUTPUT, terminals: at('4'),
  wiring: chain('fh-roof', { awg: 16 }, [[38, horn, 20], [18, horn, 20], [18, horn, 20], [18, horn, 20]]),
}

const V100 = 100
const on100 = (...tapsW: number[]) => ({ kind: 'tap' as const, tapW: tapsW[0]!, ratedV: V100, tapsW, insertionDb: null, tapMeans: null })
const pendant: Model = { name: 'Pendant 130, 24 W', load: on100(6, 12, 24), driverOhm: 8, continuousW: 24 }
const sub: Model = { name: 'Sub 200 in-wall, 60 W', load: on100(30, 60), driverOhm: 8, continuousW: 60 }
const orchid: Output = {
  id: 'fh-orchid', label: 'B1', name: 'Orchid gallery', rating: { kind: 'constant-voltage', lineV: V100, powerW: 120 }, ...UNSTATED_OUTPUT,
  wiring: chain('fh-orchid', { areaMm2: 1.5 }, [...[9, 5, 5, 5, 17, 5, 4].map((lengthM): [number, Model] => [lengthM, pendant]), [3, sub]]),
}

/** Calls go before music at both amplifiers; the players have two sides, and a line has one. */
const calls: Input = { ...UNSTATED_INPUT, label: '1', takes: ['microphone', 'line'], count: 1, isOver: true, source: { ...UNSTATED_SOURCE, name: 'Paging microphone, ticket desk', kind: 'microphone', isStereo: false, ohm: 200 } }
const music = (label: string, name: string): Input => ({ ...UNSTATED_INPUT, label, takes: ['media', 'line'], count: 1, isOver: false, sum: 'summed', source: { ...UNSTATED_SOURCE, name, kind: 'media', isStereo: true } })

const plan: Job = {
  ...emptyJob('Fernhollow Glasshouses'),
  note: 'Public garden, open all year. Work from the service gallery; the fern grotto is wet underfoot. Calls come from a paging microphone at the ticket desk, into the first input of both amplifiers; calls go before music there.',
  amplifiers: [{ id: 'fh-a', name: 'Amplifier A', place: 'rack, ticket court', ...UNSTATED_AMPLIFIER, inputs: [calls, music('2', 'Garden music')], outputs: [palm, fern, ticket, roof] }, {
    id: 'fh-b', name: 'Mixing amplifier 120 W', place: 'orchid gallery, plant room', ...UNSTATED_AMPLIFIER, highPassHz: 80, inputs: [calls, music('3', 'Gallery music')], from: originOf('amplifier', 'Mixing amplifier 120 W'), outputs: [orchid],
  }],
  splices: [lead('fh-palm-01', 'red, black'), lead('fh-fern-01', 'red, black'), lead('fh-ticket-01', 'white, green'), lead('fh-roof-01', 'red, black'), lead('fh-orchid-01', 'white, white/red')],
  readings: Records.of([
    ...readingsOf('2026-03-10', 8 * 60 + 40, [[palm, 'line-impedance', null, ohm(30.4)], ...coils(palm, 6.3, 6.5, 6.4, 6.4), ...firstPlay(palm, 4)]),
    ...readingsOf('2026-03-10', 10 * 60 + 5, [[ticket, 'line-impedance', null, ohm(99)], ...coils(ticket, 6.6, 6.4, 6.5, 6.3, 6.5, 6.4), ...firstPlay(ticket, 3)]),
    // Two of four horns hang on the line: the cable is broken before the third.
    ...readingsOf('2026-03-11', 9 * 60 + 10, [[roof, 'line-impedance', null, ohm(127), 'no programme, amplifier unplugged'], ...firstPlay(roof, 1)]),
    ...readingsOf('2026-03-11', 9 * 60 + 40, [...coils(fern, 6.4), ...firstPlay(fern, 1)]),
  ]),
}

const wallControl = (label: string, name: string, ratingW: number, lineV: number): Control => ({
  kind: 'control', label, name, from: originOf('control', name), setDb: 0, stepsDb: [0, 3, 6, 9, 12, 15, 18, 21, 24, 27], ratingW, lineV, insertionDb: 0.4,
})
function behind(job: Job, nodeIds: readonly string[], control: Control): Job {
  const put = putBefore(job, nodeIds, control, () => `fh-control-${control.label}`)
  return put !== null && typeof put === 'object' ? applyEdit(job, put.edit).job : job
}
/** The shop at the end of the ticket court has a level of its own, and so has the gallery: a wall control before each. */
const shop = ['fh-ticket-06', 'fh-ticket-07', 'fh-ticket-08']
const zoned = applyEdit(plan, makeZone(plan, shop, 'Shop', () => 'fh-shop')!).job
const gallery = orchid.wiring.children.map(b => b.node.id)
export const fernhollow: Job = behind(behind(zoned, shop, wallControl('C1', 'Wall control 35 W', 35, LINE_V)), gallery, wallControl('C2', 'Wall control 100 W', 100, V100))
