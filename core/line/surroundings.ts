import { modeOf, writeRating } from '#core/amplifier/index'
import type { Amplifier, Band, Job, Kind, Practice } from '#core/job/schema'
import { UNSTATED_AMPLIFIER } from '#core/job/sections/wiring/schema'
import { findOutput, outputsOf, speakersOf } from '#core/job/tree'
import { labelledOhm } from '#core/network/element'
import { arrivalsAt, type Arrival } from './sources'

/** Coils of one unit that have terminals of their own: where each is wired, and by what it is driven, as text to compare. */
export interface UnitCoils { unit: string, of: number, parts: { output: string, driven: string }[] }

/** An output that plays a part of the range, and which system it is of. */
export interface BandOf { outputId: string, label: string, band: Band }

/** Inputs that one source feeds, by its name: as many as are said, else one for each channel. */
export interface Fed { source: string, inputs: number, inputOhm: number | null }

/** What lines of a job are to each other, found once for all of them. */
export interface Shared { coils: readonly UnitCoils[], bands: readonly BandOf[], fed: readonly Fed[] }

/** What of its amplifier a line is judged by. */
export type AmplifierAround = Pick<Amplifier, 'name' | 'made' | 'gainDb' | 'inputV' | 'inputOhm' | 'inputs' | 'protection' | 'highPassHz'>

/**
 * What a line is judged by beside itself: the rules chosen, the kinds that its speakers are of, its amplifier and what feeds it, coils of its units on other
 * lines, the other bands of its system. `fed`: what hangs on each of its sources. `arrivals`: all that comes in at it, through mixers too.
 */
export interface Around {
  practice: Practice
  kinds: readonly Kind[]
  amplifier: AmplifierAround
  coils: readonly UnitCoils[]
  bands: readonly BandOf[]
  fed: readonly Fed[]
  arrivals: readonly Arrival[]
}

export function aroundOf(job: Pick<Job, 'practice' | 'kinds' | 'amplifiers'>, outputId: string, { coils, bands, fed }: Shared = sharedOf(job)): Around {
  const found = findOutput(job, outputId)
  const amplifier = found?.amplifier ?? NO_AMPLIFIER
  return {
    practice: job.practice, kinds: job.kinds, amplifier, coils, bands: bandsBeside(bands, found?.output.band ?? null),
    fed: fedAt(fed, amplifier), arrivals: found ? arrivalsAt(job, found.amplifier) : [],
  }
}

const NO_AMPLIFIER: AmplifierAround = { name: '', ...UNSTATED_AMPLIFIER }

/** What hangs on each source that comes in at an amplifier. */
export const fedAt = (fed: readonly Fed[], { inputs }: Pick<Amplifier, 'inputs'>): Fed[] => fed.filter(f => inputs.some(i => i.source?.name === f.source))

/** All bands of its system, its own among them. */
export const bandsBeside = (bands: readonly BandOf[], own: Band | null): readonly BandOf[] => own === null
  ? []
  : bands.filter(b => b.band.system === own.system)

export function sharedOf(job: Pick<Job, 'amplifiers'>): Shared {
  const outputs = outputsOf(job)
  return { coils: coilsOf(job), bands: outputs.flatMap(({ id, label, band }) => band ? [{ outputId: id, label, band }] : []), fed: fedOf(job) }
}

/** Units of which coils are wired by themselves. What drives a coil: the rating, how many stand on that output, and the coil's own ohms. */
function coilsOf(job: Pick<Job, 'amplifiers'>): UnitCoils[] {
  const units = new Map<string, UnitCoils>()
  for (const output of outputsOf(job)) {
    const speakers = speakersOf(output.wiring)
    for (const { load } of speakers) {
      if (load.kind !== 'coil') continue
      const unit = units.get(load.unit) ?? { unit: load.unit, of: load.of, parts: [] }
      unit.parts.push({ output: output.label, driven: `${writeRating(output.rating)} ${speakers.length} ${labelledOhm(load)}` })
      units.set(load.unit, unit)
    }
  }
  return [...units.values()]
}

/** Inputs side by side: 1/Z adds up; not known where one of them is not. Source: parallel resistors. */
function fedOf(job: Pick<Job, 'amplifiers'>): Fed[] {
  const sources = new Map<string, { inputs: number, siemens: number | null }>()
  for (const { inputs, outputs, inputOhm } of job.amplifiers) {
    const channels = Math.max(1, outputs.reduce((sum, o) => sum + (modeOf(o.rating) === 'single' ? 1 : 2), 0))
    for (const { source, count, takes } of inputs) {
      if (!source) continue
      const many = count ?? channels
      const so = sources.get(source.name) ?? { inputs: 0, siemens: 0 }
      // What is stated of the inputs is stated of those for a line: a microphone's is another.
      const ohm = takes.length > 0 && !takes.includes('line') ? null : inputOhm
      sources.set(source.name, { inputs: so.inputs + many, siemens: so.siemens === null || ohm === null ? null : so.siemens + many / ohm })
    }
  }
  return [...sources].map(([source, { inputs, siemens }]) => ({ source, inputs, inputOhm: siemens === null || siemens === 0 ? null : 1 / siemens }))
}
