import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { withBranch } from '#core/job/tree'
import { shortDistance } from './shortDistance'
import { shortPlace } from './shortPlace'
import { shortWords } from './shortWords'
import { always } from '#core/testing/runs'

const line = cabled(jobOf('8 || 8 || 8 || 8'), { cable: { awg: 16 }, lengthM: 10 })

// ASTM B258: 16 AWG is 13.17 Ω/km a conductor, 26.34 out and back.
test.each<[string, number, string]>([
  ['a third of the way', 0.395, '10.7 to 19.8 m, about 15.0, after 01, before 02'],
  ['at the rack', 0.02, '0.0 to 4.8 m, about 0.8, after the rack, before 01'],
  ['near the far end it may lie beyond', 1.04, '34.0 to beyond, about 39.5, after 03, before 04'],
])('16 AWG, 10 m between: %s', (_, ohm, expected) => {
  const { lowM, distanceM, highM, after, before } = shortPlace(outputOf(line), ohm)!
  expect(`${lowM.toFixed(1)} to ${highM === null ? 'beyond' : `${highM.toFixed(1)} m`}, about ${distanceM.toFixed(1)}, after ${after ?? 'the rack'}, before ${before}`).toBe(expected)
})

test('along one size it is the span of the cable table; more ohms than there is copper, or no cable stated, say nothing', () => {
  always(fc.property(fc.double({ min: 0, max: 0.8, noNaN: true }), (ohm) => {
    const [along, table] = [shortPlace(outputOf(line), ohm)!, shortDistance(ohm, { awg: 16 })]
    for (const key of ['lowM', 'distanceM', 'highM'] as const) expect(along[key]).toBeCloseTo(table[key], 9)
  }), 200)
  expect([shortPlace(outputOf(line), 3), shortPlace(outputOf(jobOf('8')), 0.4)]).toEqual([null, null])
})

test('thicker cable first: each metre by its own size', () => {
  const [first] = nodeIds(outputOf(line))
  const thick = withBranch(line, first!, b => ({ ...b, lead: { cable: { areaMm2: 2.5 }, lengthM: 10 } }))
  // IEC 60228: 2.5 mm² is 7.98 Ω/km; 0.1596 Ω to 01, then 26.34 mΩ a metre.
  expect(shortPlace(outputOf(thick), 0.1596 + 5 * 0.02634)!.distanceM).toBeCloseTo(15, 2)
  // Its nearest is still in the thick: 0.165 Ω by copper a twentieth over its table.
  expect(shortPlace(outputOf(thick), 0.265)!.lowM).toBeCloseTo(0.165 / (0.01596 * 1.05), 2)
})

test('in words', () => expect([0.395, 0.02, 1.04].map(ohm => shortWords(shortPlace(outputOf(line), ohm)!, 'metric').split('. ')[0])).toEqual([
  'As a short it lies about 15 m along, 10.7 m to 19.8 m from the rack: between 01 and 02', 'As a short it lies about 0.8 m along, 0 m to 4.8 m from the rack: before 01',
  'As a short it lies about 39.5 m along, 34 m or farther from the rack: between 03 and 04',
]))
