import { writeRating } from '#core/amplifier/index'
import type { Amplifier, Job, Kind, Practice } from '#core/job/schema'
import { findOutput, outputsOf, speakersOf } from '#core/job/tree'
import { labelledOhm } from '#core/network/element'

/** Coils of one unit that have terminals of their own: where each is wired, and by what it is driven, as text to compare. */
export interface UnitCoils { unit: string, of: number, parts: { output: string, driven: string }[] }

/**
 * What a line is judged by beside itself: the rules chosen, the kinds that its speakers are of, its amplifier's high-pass, coils of its units
 * on other lines.
 */
export interface Around { practice: Practice, kinds: readonly Kind[], highPassHz: Amplifier['highPassHz'], coils: readonly UnitCoils[] }

export function aroundOf(job: Pick<Job, 'practice' | 'kinds' | 'amplifiers'>, outputId: string, coils = coilsOf(job)): Around {
  return { practice: job.practice, kinds: job.kinds, highPassHz: findOutput(job, outputId)?.amplifier.highPassHz ?? null, coils }
}

/** Units of which coils are wired by themselves. What drives a coil: the rating, how many stand on that output, and the coil's own ohms. */
export function coilsOf(job: Pick<Job, 'amplifiers'>): UnitCoils[] {
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
