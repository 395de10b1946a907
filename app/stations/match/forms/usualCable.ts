import type { Job } from '#core/job/schema'
import { branchesOf, cableOn, findPlace, outputsOf } from '#core/job/tree'
import { writeCable, type Cable } from '#core/quantity/cable'
import type { Units } from '#core/quantity/units'

/** The cable most at hand for some speakers: the first that is on their line already; null for none: a length alone chooses no size. */
export function usualCableOf(job: Job, ids: readonly string[]): Cable | null {
  const output = ids[0] === undefined ? undefined : findPlace(job, ids[0])?.output
  return output ? cableOn(output.wiring) : null
}

/** A size as people of these units write it: what a field of cable shows until one is stated. */
export const cableExample = (units: Units): string => units === 'metric' ? '1.5 mm²' : '16 AWG'

/** What is on every shelf, the sizes of a person's own units first. Common practice, no source. */
const ON_THE_SHELF: Record<Units, readonly Cable[]> = {
  metric: [{ areaMm2: 0.75 }, { areaMm2: 1.5 }, { areaMm2: 2.5 }, { awg: 18 }, { awg: 16 }],
  imperial: [{ awg: 18 }, { awg: 16 }, { awg: 14 }, { areaMm2: 1.5 }, { areaMm2: 2.5 }],
}

/** Sizes to choose from by a press: those that the job is drawn in, else those on every shelf. */
export function sizesAtHand(job: Job, units: Units): readonly Cable[] {
  const leads = outputsOf(job).flatMap(o => branchesOf(o.wiring)).flatMap(({ lead }) => lead?.cable ?? [])
  const drawn = new Map(leads.map(cable => [writeCable(cable), cable]))
  return drawn.size > 0 ? [...drawn.values()].slice(0, 5) : ON_THE_SHELF[units]
}
