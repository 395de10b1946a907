import type { Edit } from '#core/job/edits'
import type { Band, Job } from '#core/job/schema'
import { same } from '#core/quantity/same'
import { findOutput, outputsOf } from '#core/job/tree'

/** Where boxes and subs are usually parted. Common practice, no source. */
export const USUAL_CROSSOVER_HZ = 100

/**
 * The band that an output most likely plays, when it is said that it plays a part of the range: what another system of this job lacks, else the upper
 * part of a new one.
 */
export function likelyBand(job: Pick<Job, 'amplifiers'>, outputId: string): Band {
  const others = outputsOf(job).filter(o => o.id !== outputId).flatMap(o => o.band ?? [])
  const lacking = others.find(({ system }) => {
    const own = others.filter(b => b.system === system)
    return !(own.some(b => b.fromHz === null) && own.some(b => b.toHz === null))
  })
  const slopeDb = lacking?.slopeDb ?? null
  if (lacking && lacking.fromHz !== null) return { system: lacking.system, fromHz: null, toHz: lacking.fromHz, slopeDb, setDb: null }
  if (lacking) return { system: lacking.system, fromHz: lacking.toHz, toHz: null, slopeDb, setDb: null }
  const taken = new Set(others.map(b => b.system))
  let system = 'Stage'
  for (let k = 2; taken.has(system); k++) system = `Stage ${k}`
  return { system, fromHz: USUAL_CROSSOVER_HZ, toHz: null, slopeDb: null, setDb: null }
}

/** An output plays a part of the range, or everything (null). */
export function setBand(job: Job, outputId: string, band: Band | null): Edit | null {
  const output = findOutput(job, outputId)?.output
  return !output || same(output.band, band) ? null : { kind: 'output.set', outputId, was: { band: output.band }, to: { band } }
}
