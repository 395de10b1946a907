import type { Amplifier, Job, Kind, Practice } from '#core/job/schema'
import { findOutput } from '#core/job/tree'

/** What a line is judged by beside itself: the rules chosen, the kinds that its speakers are of, its amplifier's high-pass. */
export interface Around { practice: Practice, kinds: readonly Kind[], highPassHz: Amplifier['highPassHz'] }

export function aroundOf(job: Pick<Job, 'practice' | 'kinds' | 'amplifiers'>, outputId: string): Around {
  return { practice: job.practice, kinds: job.kinds, highPassHz: findOutput(job, outputId)?.amplifier.highPassHz ?? null }
}
