import { nominalOhmOf } from '#core/network/tree'
import type { Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'

/**
 * What readings have told of the units of one model: they lie to the same side of their label, so that one that was read narrows what is
 * right for all. Logarithms, two sigma to each side of `centre`; `from` is the place that it was learned from.
 */
export interface Lesson { centre: number, low: number, high: number, from: string }
export type Lessons = ReadonlyMap<string, Lesson>
export const NO_LESSONS: Lessons = new Map()

/** What one line has to tell. */
export interface Teaches {
  outputId: string
  /** Coils that read as they should: the part of the label that they read. */
  coils: { key: string, ohm: number, labelOhm: number, place: string }[]
  /** Its impedance as it should be, where all of it is of one model. */
  line: (Lesson & { key: string, frequencyHz: number }) | null
}

/** Units of one model: of one kind of the job; of no kind, those alike on the same line. */
export function keyOfModel(outputId: string, { kindId, load, driverOhm }: Pick<Speaker, 'kindId' | 'load' | 'driverOhm'>): string {
  return kindId ?? `${outputId} ${load.kind} ${load.kind === 'tap' ? driverOhm : nominalOhmOf(load)}`
}

/** Models on a line, once. */
const models = new WeakMap<Output, ReadonlySet<string>>()
export function modelsOn(output: Output): ReadonlySet<string> {
  const known = models.get(output) ?? new Set(speakersOf(output.wiring).map(speaker => keyOfModel(output.id, speaker)))
  models.set(output, known)
  return known
}

/** Inductance of an ordinary coil, H. Common practice, no source. */
const COIL_H = [0.1e-3, 0.8e-3] as const
/** Below it the cone's resonance still lifts the impedance of small units, which copper does not tell. Common practice, no source. */
const LOWEST_OF_COILS_HZ = 800
/** Units of one model about their middle, two sigma. Common practice, no source. */
const UNITS = 0.1

/** What all lines have to tell of those on this one, by frequency; null where that is nothing. */
export function lessonsOf(output: Output, all: readonly Teaches[]): ((frequencyHz: number) => Lessons) | null {
  const keys = modelsOn(output)
  const own = all.filter(t => t.coils.some(c => keys.has(c.key)) || (t.line && t.outputId !== output.id && keys.has(t.line.key)))
  if (own.length === 0) return null
  const known = new Map<number, Lessons>()
  return (frequencyHz) => {
    const lessons = known.get(frequencyHz) ?? lessonsFor(output, own, frequencyHz)
    known.set(frequencyHz, lessons)
    return lessons
  }
}

/** For a reading at a frequency: from lines of the same model where one was read so, else from coils. */
function lessonsFor(output: Output, all: readonly Teaches[], frequencyHz: number): Lessons {
  const lessons = new Map<string, Lesson>()
  for (const key of modelsOn(output)) {
    const lines = all.flatMap(t => t.line?.key === key && t.line.frequencyHz === frequencyHz && t.outputId !== output.id ? [t.line] : [])
    const coils = all.flatMap(t => t.coils.filter(c => c.key === key))
    const lesson = lines.length > 0 ? middleOf(lines) : coils.length > 0 && frequencyHz >= LOWEST_OF_COILS_HZ ? ofCoils(coils, frequencyHz) : null
    if (lesson) lessons.set(key, lesson)
  }
  return lessons
}

/** Of several lines the one in the middle: one that hides a fault does not lead the others. */
function middleOf(lines: readonly Lesson[]): Lesson {
  const sorted = [...lines].sort((a, b) => a.centre - b.centre)
  return { ...sorted[sorted.length >> 1]!, from: placesOf(lines.map(l => l.from)) }
}

/** Of coils: the copper is known, and the inductance is an ordinary one's. */
function ofCoils(coils: Teaches['coils'], frequencyHz: number): Lesson {
  const sorted = [...coils].sort((a, b) => a.ohm / a.labelOhm - b.ohm / b.labelOhm)
  const { ohm, labelOhm } = sorted[sorted.length >> 1]!
  const [least, most] = COIL_H.map(henry => Math.log(Math.hypot(ohm, 2 * Math.PI * frequencyHz * henry) / labelOhm)) as [number, number]
  const half = Math.hypot((most - least) / 2, UNITS / Math.sqrt(coils.length))
  return { centre: (least + most) / 2, low: half, high: half, from: placesOf(coils.map(c => c.place)) }
}

const placesOf = (places: readonly string[]): string => places.length === 1 ? places[0]! : `${places[0]} and ${places.length - 1} more`
