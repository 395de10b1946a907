import { describe, expect, test } from '@jest/globals'
import { evaluateJob } from '#core/line/evaluate'
import { PLAYED, powerMatch } from '#core/advice/low/powerMatch'
import { jobOf } from '#core/testing/jobs'
import { EDGE, hertzTicks, impedanceScales, pathOf, placeLabels, sampleAt, spread, stepped, valueTicks, type ChartLabel } from './impedanceChart'
import * as chart from './matchChart'

/** Charts are places worked out from figures: what stands where, without a browser. */

const scales = impedanceScales([4, 40], 600, 300)

test('both axes by their logarithm, from edge to edge, with room above and below; a curve breaks where nothing is known', () => {
  expect([scales.x(20), scales.x(20_000), scales.x(632.4555)].map(Math.round)).toEqual([EDGE.left, 600 - EDGE.right, (EDGE.left + 600 - EDGE.right) / 2])
  expect([scales.y(40) > EDGE.top, scales.y(4) < 300 - EDGE.bottom, scales.y(4) > scales.y(40), scales.phase(-90), scales.phase(90)]).toEqual([true,
    true, true, 300 - EDGE.bottom, EDGE.top])
  expect(scales.y(Math.sqrt(4 * 40))).toBeCloseTo((EDGE.top + 300 - EDGE.bottom) / 2, 9)
  expect(pathOf(scales, [20, 200, 2000, 20_000], [8, 8, null, 8]).match(/M/g)).toHaveLength(2)
  expect(impedanceScales([], 600, 300).y(1)).toBeGreaterThan(impedanceScales([], 600, 300).y(10))
})

test('names along an axis keep their distance, and stay inside', () => {
  expect(spread([1, 2, 3, 4, 5, 9], v => 10 * v, 15, 60, 15)).toEqual([2, 4])
  expect(spread([2, 3], v => -10 * v, -10, -35, 10)).toEqual([2, 3])
  expect([hertzTicks(scales)[0], hertzTicks(scales).at(-1), hertzTicks(impedanceScales([4], 240, 300)).length < hertzTicks(scales).length,
    valueTicks(scales).includes(8)]).toEqual([20, 20_000, true, true])
})

describe('words on the chart', () => {
  const floor: ChartLabel = { says: 'not under 4 Ω', ys: [250], nearX: EDGE.left }
  const hz = Array.from({ length: 120 }, (_, k) => 20 * 1000 ** (k / 119))
  const flat = (y: number) => ({ hz, values: hz.map(() => y), at: (v: number) => v })
  const halves = (left: number, right: number) => ({ hz, values: hz.map(f => f < 632 ? left : right), at: (v: number) => v })
  const rows: [name: string, curves: ReturnType<typeof flat>[], wanted: ChartLabel[], expected: [number, number][]][] = [
    ['stand at the edge, a little in', [flat(100)], [floor], [[EDGE.left + 6, 250]]],
    ['where a curve runs through them, past the end of it', [halves(245, 100)], [floor], [[308, 250]]],
    ['at their second height rather than far aside', [flat(245)], [{ ...floor, ys: [250, 200] }], [[EDGE.left + 6, 200]]],
    ['nowhere clear: where they were wanted', [flat(245)], [floor], [[EDGE.left + 6, 250]]],
    ['in their middle, and never over the foot', [flat(100)], [{ says: '4 Ω at 632 Hz', ys: [268, 230], midX: 300 }], [[300 - 6.5 * 13 / 2, 230]]],
    ['nowhere clear of a curve: clear of other words at least', [flat(245)], [floor, floor], [[EDGE.left + 6, 250], [EDGE.left + 6 + 96, 250]]],
    ['two of one height side by side', [flat(100)], [floor, floor], [[EDGE.left + 6, 250], [EDGE.left + 6 + 96, 250]]],
    ['a step of the curve inside them', [halves(200, 260)], [{ says: '4 Ω at 632 Hz', ys: [230], midX: 302 }], [[302 - 42.25 + 48, 230]]],
  ]
  test.each(rows)('%s', (_, curves, wanted, expected) => {
    expect(placeLabels(scales, curves, wanted).map(({ x, y }) => [Math.round(x), y])).toEqual(expected.map(([x, y]) => [Math.round(x), y]))
  })
})

test('the cursor: nearest sample by logarithm, a step by arrows, ten with shift, ends by Home and End', () => {
  const hz = [20, 200, 2000, 20_000]
  expect([0, scales.x(62), scales.x(64), scales.x(6500), 9999].map(px => sampleAt(scales, hz, px))).toEqual([0, 0, 1, 3, 3])
  expect([
    ['ArrowRight', false],
    ['ArrowUp', true],
    ['ArrowLeft', false],
    ['ArrowDown', true],
    ['Home', false],
    ['End', false],
    ['PageUp', false],
    ['PageDown', false],
    ['q', false],
  ].map(([key, far]) => stepped(30, key as string, 100, far as boolean)))
    .toEqual([31, 40, 29, 20, 0, 99, 50, 10, null])
  expect([stepped(0, 'ArrowLeft', 4, false), stepped(3, 'ArrowRight', 4, true)]).toEqual([0, 3])
})

describe('the match chart', () => {
  const job = jobOf('8 ohm 100 W on 300 W at 4, 180 W at 8, from 2')
  const match = powerMatch(evaluateJob(job)[0]!, job.practice, [], PLAYED[0]!)!
  const places = chart.matchScales(match, 640, 320)
  test('load across, watts up; bands lie on each other; every school has its span, the strip beside the scale', () => {
    expect([places.x(8) > places.x(4), places.y(100) > places.y(200), places.right < 640]).toEqual([true, true, true])
    const [continuous, program, peak] = chart.bands(places, match)
    expect([continuous!.top, program!.top, peak!.top].map(y => Math.round(places.y.invert(y)))).toEqual([100, 200, 400])
    expect([continuous!.bottom, program!.bottom, peak!.bottom]).toEqual([320 - chart.EDGE.bottom, continuous!.top, program!.top])
    const spans = chart.spans(places, match)
    expect([spans.map(s => s.number), spans.filter(s => s.isChosen).length, spans.every(s => s.x > places.right
      && s.x + chart.spanWidth(640) <= 641 && s.bottom > s.top)]).toEqual([[1, 2, 3, 4, 5, 6, 7], 1, true])
    expect(spans.filter(s => s.isOpen).every(s => s.bottom === 320 - chart.EDGE.bottom)).toBe(true)
    expect([chart.ohmTicks(places).includes(8), chart.wattTicks(places).includes(100)]).toEqual([true, true])
  })
  test('what it gives is a line, and a field where it is not rated; without ratings there are no bands', () => {
    const { line, between } = chart.capabilityPaths(places, match)
    expect([line.startsWith('M'), between.startsWith('M')]).toEqual([true, true])
    const rated = { ...match, gives: match.gives.map(g => ({ ...g, mostW: g.powerW })) }
    expect([chart.capabilityPaths(places, rated).between, chart.bands(places, { ...match, stands: null })]).toEqual(['', []])
  })
})
