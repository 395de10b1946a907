import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, counter, jobOf } from '#core/testing/jobs'

/** 1,000 speakers: 25 lines of 40 taps on cable. */
export function largeJob(): Job {
  const job = jobOf(...Array.from({ length: 25 }, () => '40 x 5 W on 70 V 300 W'))
  return { ...cabled(job, { cable: { awg: 14 }, lengthM: 5 }), name: 'A thousand speakers' }
}

/** The same with a control before thirty of each line, turned down, and a stated loss in it and in every transformer. */
export function controlledJob(): Job {
  const job = largeJob()
  const ids = counter('control')
  const controlled = outputsOf(job).reduce((current, { wiring }, k) => {
    const behind = speakersOf(wiring).slice(5, 35).map(s => s.id)
    const put = putBefore(current, behind, { ...unknownControl(`C${k + 1}`), setDb: 6, ratingW: 200, lineV: 70.71, insertionDb: 0.4 }, ids)
    return put !== null && typeof put === 'object' ? applyEdit(current, put.edit).job : current
  }, job)
  const lossy = outputsOf(controlled).flatMap(o => speakersOf(o.wiring)).flatMap(s => s.load.kind === 'tap'
    ? [{ kind: 'speaker.set' as const, nodeId: s.id, was: { load: s.load }, to: { load: { ...s.load, insertionDb: 1, tapMeans: 'line-gives' as const } } }]
    : [])
  return applyEdit(controlled, { kind: 'batch', edits: lossy }).job
}
