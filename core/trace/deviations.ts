import { copperBand, bandAt } from '#core/check/readingBands'
import { keyOfModel, type Lessons } from '#core/check/lessons'
import type { Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { nominalOhmOf, singleLoads } from '#core/network/tree'
import { onceEach } from '#core/quantity/once'
import { bell, normalAt } from './chances'

/**
 * How far the units of a line may be from their plan, together: units of one model lie to the same side, so that what one reading tells of a model is true
 * for all others. A number of samples, each a whole line's worth of models, spread evenly over what is usual; each reading weighs them.
 * What lost: a bell about the label for each reading by itself, which counted one and the same deviation anew with each reading and was too sure.
 */
export interface Deviations {
  samples: number
  /** Place of a speaker's model in the lists; undefined for what is no speaker of the drawing. */
  modelOf: ReadonlyMap<string, number>
  models: number
  /** Logarithm of what the impedance of a model is, against what is computed, at a tone: model by model, sample by sample. */
  impedance: (frequencyHz: number) => readonly Float64Array[]
  /** The same of its copper, against what an ohmmeter is expected to read. */
  copper: readonly Float64Array[]
  /** One sigma of each unit about its model. */
  own: ReadonlyMap<string, number>
  /** Logarithm of each sample's weight by what other lines have told. */
  logWeight: Float64Array
}

/** Samples of a line: a fourth as many put one line in fifty into another tenth; four times as many put none. */
const SAMPLES = 64

/** Copper of a coil, as a part of its label. Common practice, no source. */
const COPPER = [0.7, 0.9] as const
/** What is expected of it where nothing else is known: the middle, as the bands of check have it. */
const COPPER_MIDDLE = 0.8
/** Inductance of an 8 Ω coil, H; of others as their ohms. Behind transformers hang small drivers. Common practice, no source. */
const INDUCTANCE_H = { tap: [0.1e-3, 0.8e-3], nominal: [0.1e-3, 1e-3] } as const
/** Below it the cone's resonance still lifts small units, which neither copper nor inductance tells: one sigma more. Common practice, no source. */
const RESONANCE_BELOW_HZ = 800
const RESONANCE = 0.12
/** A known curve against the batch: one sigma. Common practice, no source. */
const KNOWN_SHARED = 0.04
/** Each unit about its model, one sigma: twice that is the tenth of check's bands; a transformer has its own beside it. Common practice, no source. */
const OWN = { tap: 0.06, nominal: 0.05, known: 0.05 } as const

/** A lesson is no surer than the samples are apart. */
const LEAST_LESSON = 0.02

export function deviationsOf(output: Output, lessons: ReadonlyMap<number, Lessons>, readAtCoil: ReadonlySet<string>): Deviations {
  const speakers = speakersOf(output.wiring)
  const keys = [...new Set(speakers.map(s => keyOfModel(output.id, s)))]
  const firstOf = keys.map(key => speakers.find(s => keyOfModel(output.id, s) === key)!)
  const even = evenPoints(3 * keys.length)
  const at = (k: number, sample: number) => even(3 * k, sample)
  const copper = firstOf.map((speaker, k) => Float64Array.from({ length: SAMPLES }, (_, s) => isLabel(speaker)
    ? Math.log(coilPart(at(k,
        s)) / COPPER_MIDDLE)
    : KNOWN_SHARED * normalAt(at(k, s))))
  const impedance = onceEach((hz: number) => firstOf.map((speaker, k) => Float64Array.from({ length: SAMPLES }, (_, s) => {
    const band = bandOf(speaker, hz)
    if (band === 'known') return KNOWN_SHARED * normalAt(at(k, s))
    const [least, most] = INDUCTANCE_H[band]
    const reactance = 2 * Math.PI * hz * (least + (most - least) * even(3 * k + 1, s)) / 8
    return Math.log(Math.hypot(coilPart(at(k, s)), reactance)) + (hz < RESONANCE_BELOW_HZ ? RESONANCE * normalAt(even(3 * k + 2, s)) : 0)
  })))
  const logWeight = new Float64Array(SAMPLES)
  keys.forEach((key, k) => {
    // What its own coils tell is read here, sample by sample: not once more.
    if (speakers.some(s => readAtCoil.has(s.id) && keyOfModel(output.id, s) === key)) return
    // One tone speaks for all of them: they are of the same readings.
    const hz = [...lessons.keys()].find(tone => lessons.get(tone)!.has(key))
    const lesson = hz === undefined ? undefined : lessons.get(hz)!.get(key)!
    if (lesson) impedance(hz!)[k]!.forEach((ln, s) => {
      const off = ln - lesson.centre
      logWeight[s]! += Math.log(bell(off, Math.max(LEAST_LESSON, (off < 0 ? lesson.low : lesson.high) / 2)) + 1e-9)
    })
  })
  return {
    samples: SAMPLES, models: keys.length, impedance, copper, logWeight,
    modelOf: new Map(speakers.map(s => [s.id, keys.indexOf(keyOfModel(output.id, s))])),
    own: new Map(speakers.map(s => [s.id, OWN[bandOf(s, 1000)]])),
  }
}

const coilPart = (share: number) => COPPER[0] + (COPPER[1] - COPPER[0]) * share

function bandOf({ load }: Speaker, hz: number): keyof typeof OWN {
  const kinds = new Set(singleLoads(load).map(single => bandAt(single, hz)))
  return kinds.has('tap') ? 'tap' : kinds.has('nominal') ? 'nominal' : 'known'
}

function isLabel({ load }: Speaker): boolean {
  return singleLoads(load).some(single => single.kind === 'tap' || copperBand(single) === 'nominal')
}

/** What a coil is by its label; of a tap its driver's, null where that is not known. */
export function coilLabelOhm({ load, driverOhm }: Speaker): number | null {
  return load.kind === 'tap' ? driverOhm : nominalOhmOf(load)
}

/** Points spread evenly over a cube of so many sides, the same each time. Source: Roberts, additive recurrences with the generalised golden ratio. */
function evenPoints(sides: number): (side: number, point: number) => number {
  let ratio = 2
  for (let k = 0; k < 40; k++) ratio = (1 + ratio) ** (1 / (sides + 1))
  return (side, point) => (0.5 + (point + 1) / ratio ** (side + 1)) % 1
}
