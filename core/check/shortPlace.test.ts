import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { cabled, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import type { Output, Speaker } from '#core/job/schema'
import type { Branch } from '#core/job/sections/wiring/schema'
import { withBranch } from '#core/job/tree'
import { shortDistance } from './shortDistance'
import { shortPlaces, type ShortPlace } from './shortPlace'
import { shortWords } from './shortWords'
import { always } from '#core/testing/runs'

const line = cabled(jobOf('8 || 8 || 8 || 8'), { cable: { awg: 16 }, lengthM: 10 })

// ASTM B258: 16 AWG is 13.17 Ω/km a conductor, 26.34 out and back.
test.each<[string, number, string]>([
  ['a third of the way', 0.395, '10.7 to 19.8 m, about 15.0, after 01, before 02'],
  ['at the rack', 0.02, '0.0 to 4.8 m, about 0.8, after the rack, before 01'],
  ['near the far end it may lie beyond', 1.04, '34.0 to beyond, about 39.5, after 03, before 04'],
])('16 AWG, 10 m between: %s', (_, ohm, expected) => {
  const { lowM, distanceM, highM, after, before } = shortPlaces(outputOf(line), ohm)[0]!
  expect(`${lowM.toFixed(1)} to ${highM === null ? 'beyond' : `${highM.toFixed(1)} m`}, about ${distanceM.toFixed(1)}, after ${after ?? 'the rack'}, before ${before}`).toBe(expected)
})

test('along one size it is the span of the cable table; more ohms than there is copper, or no cable stated, say nothing', () => {
  always(fc.property(fc.double({ min: 0, max: 0.8, noNaN: true }), (ohm) => {
    const [along, table] = [shortPlaces(outputOf(line), ohm)[0]!, shortDistance(ohm, { awg: 16 })]
    for (const key of ['lowM', 'distanceM', 'highM'] as const) expect(along[key]).toBeCloseTo(table[key], 9)
  }), 200)
  expect([shortPlaces(outputOf(line), 3), shortPlaces(outputOf(jobOf('8')), 0.4)]).toEqual([[], []])
})

test('thicker cable first: each metre by its own size', () => {
  const [first] = nodeIds(outputOf(line))
  const thick = withBranch(line, first!, b => ({ ...b, lead: { cable: { areaMm2: 2.5 }, lengthM: 10 } }))
  // IEC 60228: 2.5 mm² is 7.98 Ω/km; 0.1596 Ω to 01, then 26.34 mΩ a metre.
  expect(shortPlaces(outputOf(thick), 0.1596 + 5 * 0.02634)[0]!.distanceM).toBeCloseTo(15, 2)
  // Its nearest is still in the thick: 0.165 Ω by copper a twentieth over its table.
  expect(shortPlaces(outputOf(thick), 0.265)[0]!.lowM).toBeCloseTo(0.165 / (0.01596 * 1.05), 2)
})

describe('where the line branches', () => {
  const on = (id: string, lengthM: number | null, children?: Branch[], kind: 'chain' | 'star' | 'series' = 'chain'): Branch => ({
    lead: lengthM === null ? null : { cable: { awg: 16 }, lengthM },
    node: children ? { kind, id, children } : { ...outputOf(line).wiring.children[0]!.node as Speaker, id, label: id },
  })
  const of = (...children: Branch[]) => ({ ...outputOf(line), wiring: { ...outputOf(line).wiring, children } })
  // A metre of the pair is 26.34 mΩ [P: ASTM B258].
  const told = (output: Output, m: number) => shortPlaces(output, m * 0.02634).map(p => `${p.after ?? 'rack'}-${p.before} ${p.distanceM.toFixed(1)}`)
  const branched = of(on('01', 10), on('b', 10, [on('02', null), on('03', 15)]), on('04', 10), on('05', 10))
  const star = of(on('s', 10, [on('01', 5), on('02', 12), on('03', 8)], 'star'))
  test.each<[string, Output, number, string[]]>([
    ['before the branch there is one place', branched, 15, ['01-02 15.0']],
    ['behind it the run, and the branch', branched, 25, ['02-04 25.0', '02-03 25.0']],
    ['farther than the branch goes: on the run alone', branched, 38, ['04-05 38.0']],
    ['a star: on each arm that is long enough', star, 17, ['01-02 17.0', '01-03 17.0']],
    ['where arms begin', star, 12, ['01-01 12.0', '01-02 12.0', '01-03 12.0']],
    ['a series lets no pair through', of(on('01', 10), on('x', 10, [on('02', 5), on('03', 5)], 'series')), 22, ['01-02 20.0']],
  ])('%s', (_, output, m, wanted) => expect(told(output, m)).toEqual(wanted))
  test('in words', () => expect(shortWords(shortPlaces(branched, 25 * 0.02634) as [ShortPlace, ...ShortPlace[]], 'metric')).toMatch(/between 02 and 04, or between 02 and 03 \(about 25 m\): the line branches, open a joint and read again\./))
})

test('in words', () => expect([0.395, 0.02, 1.04].map(ohm => shortWords([shortPlaces(outputOf(line), ohm)[0]!], 'metric').split('. ')[0])).toEqual([
  'As a short it lies about 15 m along, 10.7 m to 19.8 m from the rack: between 01 and 02', 'As a short it lies about 0.8 m along, 0 m to 4.8 m from the rack: before 01',
  'As a short it lies about 39.5 m along, 34 m or farther from the rack: between 03 and 04',
]))
