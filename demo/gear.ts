import { readConductor } from '#core/gear/conductor'
import type { AmplifierModel } from '#core/gear/amplifier'
import { GEAR_KINDS, unstatedModel, type GearKind, type Models } from '#core/gear/models'
import type { SpeakerModel } from '#core/gear/speaker'
import { fieldsOf } from '#core/hands/kinds'
import type { Job, Kind, Origin, Speaker } from '#core/job/schema'
import { branchesOf, outputsOf, withBranch } from '#core/job/tree'

/** A library to begin with. Every model is invented; its figures agree with each other, as a test holds. */

const V70 = 70.71
/** Both scales of a dial: one winding takes twice the watts at 100 V. The heaviest tap is left off there where the unit would not stand it. */
const dial = (most: number, ...tapsW: number[]) => [{ lineV: V70, tapsW }, { lineV: 100, tapsW: tapsW.map(w => 2 * w).filter(w => w <= most) }]
const COLOURS = ['white', 'brown', 'green', 'yellow', 'grey', 'pink'] as const
const leads = (tapsW: readonly number[]) => [{ tapW: null, base: 'black', stripe: '' }, ...tapsW.map((tapW, k) => ({ tapW, base: COLOURS[k]!, stripe: k % 2 ? 'red' : '' }))]
const rated = (continuousW: number) => ({ continuousW, programW: 2 * continuousW, peakW: 4 * continuousW, ratedBy: 'pink noise, 6 dB crest' })

type Stated = Partial<SpeakerModel> & { name: string }
const speaker = (stated: Stated): SpeakerModel => ({ ...unstatedModel('speaker', stated.name), sensitivityAt: stated.sensitivityDb === undefined ? null : '1 W', ...stated })
/** A ceiling unit: size of its cone in mm, continuous watts, taps at 70 V, sensitivity, price. */
const ceiling = (build: 'ceiling-open' | 'ceiling-can', cone: number, watts: number, tapsW: number[], sensitivityDb: number, price: number, name?: string) => speaker({
  name: name ?? `Ceiling ${cone} ${build === 'ceiling-can' ? 'back-can' : 'open'}, ${tapsW.at(-1)} W`, build, nominalOhm: 8, ...rated(watts), sensitivityDb,
  purpose: build === 'ceiling-can' ? 'Music and speech where people stay; the can keeps it quiet above the tiles.' : 'Speech and quiet music where people pass.',
  coverageDeg: cone > 150 ? 100 : 120, lowHz: build === 'ceiling-can' ? Math.round(12_000 / cone) : Math.round(16_000 / cone), highHz: 18_000, scales: dial(watts, ...tapsW), tapMeans: 'line-gives', insertionDb: 1,
  throughOhm: build === 'ceiling-can' ? 8 : null, hasOff: build === 'ceiling-can', leads: leads(tapsW), frameMm: cone + 75, cutOutMm: cone + 45, depthMm: build === 'ceiling-can' ? cone + 40 : 70, massKg: Math.round(cone / 6) / 10, price,
})
const lineUnit = (build: SpeakerModel['build'], name: string, purpose: string, watts: number, tapsW: number[], sensitivityDb: number, coverageDeg: number, lowHz: number, price: number) => speaker({
  name, build, purpose, nominalOhm: 8, ...rated(watts), sensitivityDb, coverageDeg, lowHz, highHz: build === 'horn' ? 8000 : 18_000, scales: dial(watts, ...tapsW), tapMeans: 'line-gives', insertionDb: build === 'horn' ? 0.8 : 1,
  throughOhm: 8, hasOff: false, leads: leads(tapsW), massKg: Math.round(watts / 1.2) / 10, price,
})
const plain = (build: SpeakerModel['build'], name: string, purpose: string, nominalOhm: number, watts: number, sensitivityDb: number, lowHz: number, price: number) => speaker({
  name, build, purpose, nominalOhm, ...rated(watts), sensitivityDb, coverageDeg: build === 'sub' ? 360 : 90, lowHz, highHz: build === 'sub' ? 150 : 18_000, massKg: 2 + watts / 20, price,
})
const driver = (cone: number, nominalOhm: number, watts: number, sensitivityDb: number, fsHz: number, price: number) => speaker({
  name: `Driver ${cone}, ${nominalOhm} Ω, ${watts} W`, build: 'driver', purpose: 'A unit by itself, to mend with.', nominalOhm, ...rated(watts),
  sensitivityDb, lowHz: fsHz, highHz: Math.round(900_000 / cone),
  smallSignal: { reOhm: Number((0.8 * nominalOhm).toPrecision(3)), leH: 0.0005, fsHz, qms: 4.5, qes: 0.6 },
  frameMm: cone + 12, cutOutMm: cone - 14, depthMm: Math.round(cone * 0.42), magnetMm: Math.round(cone * 0.6), plusMark: cone > 180 ? 'red dot' : 'wide tab', holes: `4 x 5 mm on ${cone} mm`, massKg: Math.round(cone / 9) / 10, price,
})

const coil = { kind: 'motional' as const, nominalOhm: 4, reOhm: 3.5, leH: 0.9e-3, fsHz: 31, qms: 6.2, qes: 0.52 }

/**
 * Impedance of a vented two-way box, as if it had been measured: a coil, the two humps of a vented box on either side of its tuning, and
 * the crossover's hump. Magnitude and phase of one and the same circuit.
 */
function boxCurve(): [number, number, number][] {
  /** A resonance as a parallel circuit: its ohms at the top, where it is, and how sharp. */
  const hump = (hz: number, ohm: number, atHz: number, q: number) => {
    const x = q * (hz / atHz - atHz / hz)
    return { re: ohm / (1 + x * x), im: -ohm * x / (1 + x * x) }
  }
  return Array.from({ length: 91 }, (_, k) => Number((20 * 10 ** (k / 30)).toPrecision(4))).map((hz) => {
    const parts = [hump(hz, 34, 32, 4), hump(hz, 42, 78, 5), hump(hz, 11, 1500, 0.8), { re: 6.7, im: 2 * Math.PI * hz * 0.00009 }]
    const [re, im] = [parts.reduce((s, p) => s + p.re, 0), parts.reduce((s, p) => s + p.im, 0)]
    return [hz, Number(Math.hypot(re, im).toFixed(2)), Number((Math.atan2(im, re) * 180 / Math.PI).toFixed(1))]
  })
}

const SPEAKERS: SpeakerModel[] = [
  ceiling('ceiling-open', 100, 6, [0.75, 1.5, 3, 6], 88, 19), ceiling('ceiling-open', 130, 10, [1.25, 2.5, 5, 10], 89, 24), ceiling('ceiling-open', 165, 15, [1.25, 2.5, 5, 10, 15], 90, 29), ceiling('ceiling-open', 200, 20, [2.5, 5, 10, 20], 92, 36),
  ceiling('ceiling-can', 100, 16, [2, 4, 8, 16], 86, 62), ceiling('ceiling-can', 130, 24, [3, 6, 12, 24], 87, 74), ceiling('ceiling-can', 165, 40, [2.5, 5, 10, 20, 30], 89, 95, 'Ceiling 165 back-can, 30 W'), ceiling('ceiling-can', 200, 60, [7.5, 15, 30, 60], 91, 128), ceiling('ceiling-can', 250, 100, [25, 50, 100], 92, 176),
  lineUnit('surface', 'Surface 100, 16 W', 'On walls of small rooms.', 16, [2, 4, 8, 16], 86, 110, 100, 58), lineUnit('surface', 'Surface 130 weatherproof, 20 W', 'Under eaves and on walls outside.', 30, [2.5, 5, 10, 20], 88, 100, 80, 84),
  lineUnit('surface', 'Surface 165, 60 W', 'On walls, with some bass.', 60, [7.5, 15, 30, 60], 89, 90, 65, 118), lineUnit('surface', 'Surface 200, 100 W', 'On walls of halls and bars.', 100, [12.5, 25, 50, 100], 91, 90, 55, 168),
  lineUnit('pendant', 'Pendant 130, 24 W', 'Hangs in open ceilings.', 24, [3, 6, 12, 24], 87, 140, 90, 96), lineUnit('pendant', 'Pendant 165, 60 W', 'Hangs in high open ceilings.', 60, [7.5, 15, 30, 60], 89, 120, 70, 142),
  lineUnit('horn', 'Horn 150, 15 W', 'Calls over a yard.', 15, [2.5, 5, 10, 15], 103, 100, 350, 39), lineUnit('horn', 'Horn 200, 30 W', 'Calls over a wide yard or a roof.', 30, [5, 10, 20, 30], 105, 90, 300, 52), lineUnit('horn', 'Horn 300, 50 W', 'Calls over a field.', 50, [12.5, 25, 50], 107, 70, 250, 88),
  lineUnit('column', 'Column 4 × 75, 20 W', 'Speech in rooms with an echo.', 20, [2.5, 5, 10, 20], 92, 150, 150, 112), lineUnit('column', 'Column 8 × 75, 40 W', 'Speech in halls and churches.', 40, [5, 10, 20, 40], 95, 150, 130, 198),
  lineUnit('sub', 'Sub 200 in-wall, 60 W', 'Bass under ceiling units.', 60, [15, 30, 60], 88, 360, 38, 210), lineUnit('sub', 'Sub 250 ceiling, 100 W', 'Bass above ceiling units.', 100, [25, 50, 100], 90, 360, 34, 286),
  plain('sub', 'Sub 300, 300 W', 'Bass for a small stage.', 8, 300, 95, 42, 380), plain('sub', 'Sub 380, 500 W', 'Bass for a stage.', 8, 500, 97, 36, 560), plain('sub', 'Sub 250 for a vehicle, 200 W', 'Bass in a cabin.', 4, 200, 88, 35, 140),
  plain('box', 'Box 200, 100 W', 'Foyers and rehearsal.', 8, 100, 92, 65, 190), plain('box', 'Box 250, 200 W', 'Small stages, with a sub under it.', 8, 200, 95, 60, 290), plain('box', 'Box 300, 300 W', 'Stages.', 8, 300, 97, 52, 420), plain('box', 'Box 2 × 130, 60 W', 'Shelves and counters.', 16, 60, 90, 75, 150),
  plain('cabinet', 'Cabinet 1 × 300, 16 Ω, 60 W', 'One speaker, for a valve head.', 16, 60, 99, 80, 260), plain('cabinet', 'Cabinet 2 × 300, 8 Ω, 120 W', 'Two speakers, for a valve head.', 8, 120, 100, 75, 380), plain('cabinet', 'Cabinet 4 × 300, 16 Ω, 240 W', 'Four speakers, for a valve head.', 16, 240, 101, 70, 640),
  driver(100, 8, 20, 87, 110, 18), driver(130, 4, 30, 88, 85, 22), driver(130, 8, 30, 88, 85, 22),
  driver(165, 8, 50, 90, 62, 34), driver(200, 8, 80, 92, 48, 49), driver(300, 8, 150, 96, 46, 92), driver(300, 16, 60, 98, 80, 88),
  { ...plain('sub', 'Sub 250 dual coil, 120 W', 'Bass in a cabin; two coils of 4 Ω.', 8, 120, 88, 33, 165), members: { kind: 'members', joined: 'series', members: [coil, coil] } },
  { ...plain('box', 'Box 300 two-way, 300 W', 'Stages; its impedance is measured.', 8, 300, 97, 52, 460), curve: boxCurve() },
  {
    ...plain('cabinet', 'Cabinet 4 × 300 with a switch, 240 W', 'Four speakers of 16 Ω, mono or stereo, for a valve head.', 16, 240, 101, 70, 690),
    positions: [
      { jack: '16 Ω', switchTo: 'mono', plays: 'all', load: { kind: 'nominal', nominalOhm: 16 } }, { jack: '4 Ω', switchTo: 'mono', plays: 'all', load: { kind: 'nominal', nominalOhm: 4 } },
      { jack: '8 Ω left', switchTo: 'stereo', plays: 'half', load: { kind: 'nominal', nominalOhm: 8 } }, { jack: '8 Ω right', switchTo: 'stereo', plays: 'half', load: { kind: 'nominal', nominalOhm: 8 } },
    ],
  },
  { ...driver(200, 8, 100, 91, 42, 64), name: 'Driver 200 long throw, 8 Ω, 100 W', depthMm: 96 },
  plain('horn', 'Horn and driver, 8 Ω, 40 W', 'Reaches the back rows; behind a capacitor or its own output.', 8, 40, 106, 800, 130),
]

type Output = AmplifierModel['outputs'][number]
const lines = (count: number, powerW: number, ...volts: number[]): Output =>
  ({ count, points: [], lines: volts.map(lineV => ({ lineV, powerW })), floorOhm: null, valve: null })
const valve = (powerW: number, tapsOhm: number[], chosenBy: 'selector' | 'sockets'): Output => ({ count: 1, points: [], lines: [], floorOhm: null, valve: { powerW, tapsOhm, chosenBy } })
const loads = (count: number, floorOhm: number | null, ...points: [loadOhm: number, powerW: number][]): Output =>
  ({ count, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), lines: [], floorOhm, valve: null })
const way = (name: string, plus: string, minus: string, ...pair: [string, string]): Models['harness']['ways'][number] =>
  ({ name, terminals: [plus, minus], pair: [readConductor(pair[0]), readConductor(pair[1])] })
const amplifier = (name: string, purpose: string, outputs: Output[], price: number, more: Partial<AmplifierModel> = {}): AmplifierModel =>
  ({ ...unstatedModel('amplifier', name), purpose, outputs, price, ...more })
const AMPLIFIERS: AmplifierModel[] = [
  amplifier('Mixing amplifier 60 W', 'One line of a shop.', [lines(1, 60, V70, 100)], 240, { zones: 1, inputs: [{ count: 1, takes: ['microphone', 'line'], isOver: true }, { count: 1, takes: ['media'], isOver: false }], rackUnits: 2, highPassHz: 80 }), amplifier('Mixing amplifier 120 W', 'One line, several sources.', [lines(1, 120, V70, 100)], 330, { zones: 2, inputs: [{ count: 2, takes: ['microphone', 'line'], isOver: true }, { count: 2, takes: ['media', 'line'], isOver: false }], rackUnits: 2, highPassHz: 80 }),
  amplifier('Mixing amplifier 240 W', 'One line of a school floor.', [lines(1, 240, V70, 100)], 450, { zones: 5, inputs: [{ count: 3, takes: ['microphone', 'line'], isOver: true }, { count: 3, takes: ['media', 'line'], isOver: false }], rackUnits: 2, highPassHz: 80 }), amplifier('Line amplifier 4 × 240 W', 'Four lines of a building.', [lines(4, 240, V70)], 1380, { zones: 4, inputs: [{ count: 4, takes: ['line'], isOver: null }], rackUnits: 2, highPassHz: 60, limiter: true }),
  amplifier('Line amplifier 2 × 500 W', 'Two large lines.', [lines(2, 500, V70, 100)], 1240, { zones: 2, rackUnits: 2, highPassHz: 50, limiter: true }), amplifier('Line amplifier 8 × 120 W', 'Many small zones.', [lines(8, 120, V70)], 1690, { zones: 8, rackUnits: 2, highPassHz: 70, limiter: true }),
  amplifier('Power amplifier 2 × 300 W', 'Boxes of a small stage.', [loads(2, 4, [8, 180], [4, 300])], 420, { bridgedFloorOhm: 8, rackUnits: 2, limiter: true }), amplifier('Power amplifier 2 × 625 W', 'A stage; its full swing is a 70 V line.', [loads(2, 4, [8, 625], [4, 1000])], 780, { bridgedFloorOhm: 8, rackUnits: 2, limiter: true }),
  amplifier('Power amplifier 4 × 200 W', 'Boxes of several rooms.', [loads(4, 4, [8, 120], [4, 200])], 690, { bridgedFloorOhm: 8, rackUnits: 1, limiter: true }), amplifier('Vehicle amplifier 4 × 60 W', 'Deck or cabin.', [loads(4, 2, [4, 60], [2, 90])], 190, { made: 'vehicle', bridgedFloorOhm: 4, inputV: 1, inputOhm: 47_000, protection: 'Shuts down when it is too hot or a lead is short; comes back when it is switched off and on.' }),
  amplifier('Valve head 50 W', 'An instrument; the selector says for which load.', [valve(50, [4, 8, 16], 'selector')], 980, { made: 'amplifier', inputOhm: 1_000_000 }),
  amplifier('Valve head 18 W', 'A small instrument amplifier; a socket for each load.', [valve(18, [8, 16], 'sockets')], 640, { made: 'amplifier', inputOhm: 1_000_000 }),
  amplifier('Receiver 2 × 80 W', 'A living room or a tea room; of 4 Ω its maker says nothing.', [loads(2, null, [8, 80])], 260, { made: 'receiver', inputV: 0.2, inputOhm: 47_000 }),
]

const cable = (name: string, size: Models['cable']['size'], conductors: [string, string][], price: number, listing = ''): Models['cable'] =>
  ({ ...unstatedModel('cable', name), size, conductors: conductors.map(([base, stripe]) => ({ base, stripe })), listing, price })
const CABLES: Models['cable'][] = [
  cable('Pair 18 AWG', { awg: 18 }, [['red', ''], ['black', '']], 0.45, 'for walls, as its maker says; the local code decides'), cable('Pair 16 AWG', { awg: 16 }, [['red', ''], ['black', '']], 0.62, 'for walls, as its maker says; the local code decides'),
  cable('Pair 14 AWG', { awg: 14 }, [['red', ''], ['black', '']], 0.95, 'for walls, as its maker says; the local code decides'), cable('Pair 12 AWG', { awg: 12 }, [['red', ''], ['black', '']], 1.5),
  cable('Four cores 16 AWG', { awg: 16 }, [['red', ''], ['black', ''], ['white', ''], ['green', '']], 1.2, 'for air-handling spaces, as its maker says; the local code decides'),
  cable('Pair 1.5 mm²', { areaMm2: 1.5 }, [['white', ''], ['white', 'red']], 0.7), cable('Pair 2.5 mm²', { areaMm2: 2.5 }, [['white', ''], ['white', 'red']], 1.1), cable('Pair 4 mm²', { areaMm2: 4 }, [['clear', ''], ['clear', 'copper']], 1.9),
]
const control = (name: string, ratingW: number, more: Partial<Models['control']>): Models['control'] =>
  ({ ...unstatedModel('control', name), ratingW, linesV: [V70, 100], stepsDb: [0, 3, 6, 9, 12, 15, 18, 21, 24, 27], insertionDb: 0.4, hasOff: true, priorityRelay: false, ...more })
const CONTROLS: Models['control'][] = [
  control('Wall control 10 W', 10, { price: 22 }), control('Wall control 35 W', 35, { price: 31 }), control('Wall control 35 W, priority', 35, { priorityRelay: true, price: 44 }), control('Wall control 70 W', 70, { price: 42 }), control('Wall control 100 W', 100, { price: 54 }),
  control('Wall control 100 W, priority', 100, { priorityRelay: true, price: 69 }),
]
const transformer = (ratingW: number, tapsW: number[], price: number): Models['transformer'] =>
  ({ ...unstatedModel('transformer', `Line transformer ${ratingW} W`), ratingW, scales: dial(ratingW, ...tapsW), secondariesOhm: [4, 8, 16], insertionDb: 0.9, lowHz: ratingW > 50 ? 45 : 70, price })
const TRANSFORMERS: Models['transformer'][] = [transformer(10, [1.25, 2.5, 5, 10], 14), transformer(30, [3.75, 7.5, 15, 30], 26), transformer(60, [7.5, 15, 30, 60], 39), transformer(100, [25, 50, 100], 58)]

const HARNESSES: Models['harness'][] = [
  { ...unstatedModel('harness', 'Four-channel marine unit, plug'), purpose: 'The plug of a small four-channel unit: plain and black-striped.', ways: [
    way('Deck', '1+', '1-', 'white', 'white/black'), way('Saloon', '2+', '2-', 'orange', 'orange/black'), way('Wheelhouse', '3+', '3-', 'grey', 'grey/black'), way('Sub', '4+', '4-', 'violet', 'violet/black'),
  ] },
  { ...unstatedModel('harness', 'Line amplifier, four outputs, as printed'), purpose: 'The plug-in screw terminals on its back.', ways: ['1', '2', '3', '4'].map(no => ({ name: `Output ${no}`, terminals: [`${no}.70V`, `${no}.COM`], pair: null })) },
]

const BODIES: { [K in GearKind]: Models[K][] } = {
  speaker: SPEAKERS, amplifier: AMPLIFIERS, cable: CABLES, control: CONTROLS, transformer: TRANSFORMERS, harness: HARNESSES,
}
/** Ids that stay the same over a reset: the kind's number, then its own. */
const idOf = (kind: GearKind, k: number) => `6ea20000-0000-4000-8${GEAR_KINDS.indexOf(kind)}00-${String(k + 1).padStart(12, '0')}`
export const demoGear = GEAR_KINDS.flatMap(kind => BODIES[kind].map((body, k) => ({ id: idOf(kind, k), kind, body })))

/** A model of the library, by what it is called, as what is made of it names it. */
export function originOf(kind: GearKind, name: string): Origin {
  return { modelId: idOf(kind, BODIES[kind].findIndex(m => m.name === name)), version: 1, passed: null }
}

/** A speaker of the library as a kind of a job. */
export function kindOfGear(name: string, id: string): Kind {
  return { what: 'speaker', id, from: originOf('speaker', name), model: SPEAKERS.find(s => s.name === name)! }
}

/** A job whose speakers are of the kinds of the library, by what they are called. */
export function withKinds(job: Job): Job {
  const kinds: Kind[] = []
  const kindNamed = (name: string): Kind | null => {
    const known = kinds.find(k => k.model.name === name)
    if (known || !SPEAKERS.some(s => s.name === name)) return known ?? null
    kinds.push(kindOfGear(name, `kind-${kinds.length + 1}`))
    return kinds.at(-1)!
  }
  const all = outputsOf(job).flatMap(o => branchesOf(o.wiring)).flatMap(b => b.node.kind === 'speaker' ? [b.node] : [])
  const of = (s: Speaker, kind: Kind): Speaker => ({ ...s, ...fieldsOf(kind.model, s), kindId: kind.id })
  const made = all.reduce((j, s) => {
    const kind = kindNamed(s.name)
    return kind ? withBranch(j, s.id, b => ({ ...b, node: of(s, kind) })) : j
  }, job)
  return { ...made, kinds }
}
