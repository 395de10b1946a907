import { onceEach } from '#core/quantity/once'
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

/** What all lines of a job have to tell, by model. */
export interface Taught {
  lines: ReadonlyMap<string, readonly (Lesson & { outputId: string, frequencyHz: number })[]>
  coils: ReadonlyMap<string, Teaches['coils']>
  /** Of the coils of a model, at a tone: worked out once for all lines. */
  ofCoils: (key: string, frequencyHz: number) => Lesson
}

export function gathered(all: readonly Teaches[]): Taught {
  const lines = new Map<string, (Lesson & { outputId: string, frequencyHz: number })[]>()
  const coils = new Map<string, Teaches['coils']>()
  const put = <T>(map: Map<string, T[]>, key: string, item: T) => {
    const list = map.get(key)
    if (list) list.push(item)
    else map.set(key, [item])
  }
  for (const { outputId, line, coils: own } of all) {
    if (line) put(lines, line.key, { ...line, outputId })
    for (const coil of own) put(coils, coil.key, coil)
  }
  const atTone = onceEach((frequencyHz: number) => onceEach((key: string) => ofCoils(coils.get(key)!, frequencyHz)))
  return { lines, coils, ofCoils: (key, frequencyHz) => atTone(frequencyHz)(key) }
}

/** What they tell of the models on this line, by the tone of a reading; null where that is nothing. */
export function lessonsOf(output: Output, taught: Taught): ((frequencyHz: number) => Lessons) | null {
  const keys = [...modelsOn(output)].filter(key => taught.coils.has(key) || taught.lines.get(key)?.some(l => l.outputId !== output.id))
  return keys.length === 0 ? null : onceEach((frequencyHz: number) => lessonsFor(output, keys, taught, frequencyHz))
}

/** For a reading at a tone: from lines of the same model where one was read so, else from coils. */
function lessonsFor(output: Output, keys: readonly string[], taught: Taught, frequencyHz: number): Lessons {
  const lessons = new Map<string, Lesson>()
  for (const key of keys) {
    const lines = (taught.lines.get(key) ?? []).filter(l => l.outputId !== output.id && l.frequencyHz === frequencyHz)
    if (lines.length > 0) lessons.set(key, middleOf(lines))
    else if (taught.coils.has(key) && frequencyHz >= LOWEST_OF_COILS_HZ) lessons.set(key, taught.ofCoils(key, frequencyHz))
  }
  return lessons
}

/** In steps of half a percent: a reading more that says the same makes no line judged anew. */
const stepped = (log: number): number => Math.round(log * 200) / 200
const told = (centre: number, low: number, high: number, from: string): Lesson => ({ centre: stepped(centre), low: stepped(low), high: stepped(high), from })

/** Of several lines the one in the middle: one that hides a fault does not lead the others. */
function middleOf(lines: readonly Lesson[]): Lesson {
  const { centre, low, high } = [...lines].sort((a, b) => a.centre - b.centre)[lines.length >> 1]!
  return told(centre, low, high, placesOf(lines.map(l => l.from)))
}

/** Of coils: the copper is known, and the inductance is an ordinary one's. */
function ofCoils(coils: Teaches['coils'], frequencyHz: number): Lesson {
  const sorted = [...coils].sort((a, b) => a.ohm / a.labelOhm - b.ohm / b.labelOhm)
  const { ohm, labelOhm } = sorted[sorted.length >> 1]!
  const [least, most] = COIL_H.map(henry => Math.log(Math.hypot(ohm, 2 * Math.PI * frequencyHz * henry) / labelOhm)) as [number, number]
  const half = Math.hypot((most - least) / 2, UNITS / Math.sqrt(coils.length))
  return told((least + most) / 2, half, half, placesOf(coils.map(c => c.place)))
}

/** The first of them; of more than three the number would change with each reading. */
function placesOf(places: readonly string[]): string {
  if (places.length === 1) return places[0]!
  return places.length <= 3 ? `${places[0]} and ${places.length - 1} more` : `${places[0]} and others`
}
