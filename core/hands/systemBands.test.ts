import { expect, test } from '@jest/globals'
import { jobOf } from '#core/testing/jobs'
import { applyEdit } from '#core/job/apply'
import { likelyBand, setBand } from './systemBands'
import type { Band, Job } from '#core/job/schema'

const band = (system: string, fromHz: number | null, toHz: number | null): Band => ({ system, fromHz, toHz, slopeDb: 24, setDb: 3 })
const jobWith = (...bands: (Band | null)[]): Job => bands.reduce((job, b, k) => b ? applyEdit(job, setBand(job, `out${k + 2}`, b)!).job : job, jobOf('8', ...bands.map(() => '8')))

test.each<[string, (Band | null)[], [string, number | null, number | null, number | null]]>([
  ['the first of a job', [null], ['Stage', 100, null, null]],
  ['the lower part that is lacking, with the same slope', [band('Left', 120, null)], ['Left', null, 120, 24]],
  ['the upper part that is lacking', [band('Left', null, 2000)], ['Left', 2000, null, 24]],
  ['a middle lacks below first', [band('Left', 120, 2000)], ['Left', null, 120, 24]],
  ['a whole system lacks nothing', [band('Stage', 100, null), band('Stage', null, 100)], ['Stage 2', 100, null, null]],
])('%s', (_, others, [system, fromHz, toHz, slopeDb]) => expect(likelyBand(jobWith(...others), 'out1')).toEqual({ system, fromHz, toHz, slopeDb, setDb: null }))

test('its own band is no other: asked again it is proposed the same', () => {
  const set = applyEdit(jobOf('8'), setBand(jobOf('8'), 'out1', band('Stage', 100, null))!).job
  expect(likelyBand(set, 'out1')).toMatchObject({ system: 'Stage', fromHz: 100, toHz: null })
})

test('set, the same again is nothing, everything again', () => {
  const set = jobWith(band('Left', 120, null))
  expect([setBand(set, 'out2', band('Left', 120, null)), setBand(set, 'nope', null)]).toEqual([null, null])
  expect(applyEdit(set, setBand(set, 'out2', null)!).job).toEqual(jobOf('8', '8'))
})
