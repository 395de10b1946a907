import type { Job } from '#core/job/schema'
import { cabled, jobOf } from '#core/testing/jobs'

/** 1,000 speakers: 25 lines of 40 taps on cable. */
export function largeJob(): Job {
  const job = jobOf(...Array.from({ length: 25 }, () => '40 x 5 W on 70 V 300 W'))
  return { ...cabled(job, { cable: { awg: 14 }, lengthM: 5 }), name: 'A thousand speakers' }
}
