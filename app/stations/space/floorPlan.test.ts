import { describe, expect, test } from '@jest/globals'
import { LevelField, cellsOf } from '#core/room/level'
import { rectangle } from '#core/room/outline'
import { besidePlace, contourPath, legendRows, nudgeM, planScale, rulerMarks, SHADE_MOST, shadeCells, shadeOf, shadeRange, snapped, wayPath } from './floorPlan'

describe('scale', () => {
  test.each<[number, number, number, number, number]>([[10, 5, 854, 644, 80], [10, 5, 854, 244, 40], [1, 1, 854, 644, 120], [800, 400, 300, 300, 4]])('%d by %d m in %d by %d px: %d px a metre', (l, w, width, height, px) => {
    const scale = planScale(rectangle(l, w), width, height)
    expect(scale.pxPerM).toBeCloseTo(px, 6)
    const { xM, yM } = scale.placeAt(scale.x(l / 3), scale.y(w / 4))
    expect([xM, yM]).toEqual([expect.closeTo(l / 3, 9), expect.closeTo(w / 4, 9)])
  })
  test('ruler at round figures of the person’s units', () => {
    expect(rulerMarks(10, 40, 'metric').map(m => m.text)).toEqual(['0', '2', '4', '6', '8', '10'])
    expect(rulerMarks(9.144, 40, 'imperial').map(m => [m.text, Number(m.m.toFixed(3))])).toEqual([['0', 0], ['5', 1.524], ['10', 3.048], ['15', 4.572], ['20', 6.096], ['25', 7.62], ['30', 9.144]])
  })
})

describe('shades', () => {
  const range = { fromDb: 61, toDb: 79 }
  test.each([[70, 0.5], [61, 0], [50, 0], [79, 1], [90, 1], [73, 12 / 18]])('%d dB between 61 and 79: %d', (db, shade) => expect(shadeOf(db, range)).toBeCloseTo(shade, 9))
  test.each<[string, { p10Db: number, p90Db: number } | null, number | null, number, number]>([
    ['what was found and what is wanted', { p10Db: 68, p90Db: 74 }, 70, 65, 77], ['a little above all that was found', { p10Db: 60, p90Db: 66 }, 70, 57, 73],
    ['nine above: not in the shades', { p10Db: 60, p90Db: 66 }, 75, 57, 69], ['nine below: neither', { p10Db: 75, p90Db: 80 }, 66, 71.5, 83.5],
    ['an even floor is not made to look uneven', { p10Db: 70, p90Db: 70.5 }, null, 64.25, 76.25], ['nothing known', null, 70, 64, 76],
  ])('%s', (_, found, wanted, fromDb, toDb) => expect(shadeRange(found, wanted)).toEqual({ fromDb, toDb }))
  test('rows of the legend are 3 dB apart from what is wanted, loudest first, within the shades', () => {
    expect(legendRows({ fromDb: 65, toDb: 77 }, 70).map(r => [r.db, r.isAbout, Number(r.shade.toFixed(3))]))
      .toEqual([[76, false, 0.917], [73, false, 0.667], [70, true, 0.417], [67, false, 0.167]])
    expect(legendRows({ fromDb: 75, toDb: 83 }, 66).map(r => [r.db, r.isAbout])).toEqual([[81, false], [78, false], [75, false]])
  })
  test('a way runs along first, then across, from where the cable comes in', () => {
    expect(wayPath({ xM: 0, yM: 0 }, [{ xM: 2, yM: 1 }, { xM: 4, yM: 1 }], { x: m => 10 * m, y: m => 10 * m })).toBe('M0.0 0.0H20.0V10.0H40.0V10.0')
  })
  test('each cell its ink, as dark as its level less the peaks; none where no level is known', () => {
    const pixels = new Uint8ClampedArray(8).fill(9)
    shadeCells(Float64Array.of(76, 90), { offsetDb: -6, range, ink: [1, 2, 3] }, pixels)
    expect([...pixels]).toEqual([1, 2, 3, Math.round(SHADE_MOST * 255 / 2), 1, 2, 3, Math.round(SHADE_MOST * 255)])
    shadeCells(new Float64Array(0), { offsetDb: 0, range, ink: [1, 2, 3] }, pixels)
    expect([...pixels]).toEqual(Array(8).fill(0))
  })
})

test('the line of a level is the circle that it is known to be: one speaker all round, as loud at every place as far', () => {
  const outline = rectangle(10, 10)
  const cells = cellsOf(outline)
  const field = new LevelField(cells, 1)
  field.set(new Map([['a', { xM: 5, yM: 5, heightM: 1, aim: null, atMetreDb: 90, coverageDeg: 360 }]]))
  const scale = planScale(outline, 554, 544)
  // 90 dB at a metre, 80.46 at three.
  const path = contourPath(cells, field.gridDb(), 90 - 20 * Math.log10(3), scale)
  const corners = path.split(/[ML]/).filter(Boolean).map(p => p.split(' ').map(Number)).map(([x, y]) => scale.placeAt(x!, y!))
  expect(corners.length).toBeGreaterThan(40)
  for (const { xM, yM } of corners) expect(Math.hypot(xM - 5, yM - 5)).toBeCloseTo(3, 1)
  expect([contourPath(cells, field.gridDb(), 200, scale), contourPath(cells, new Float64Array(0), 70, scale)]).toEqual(['', ''])
})

test('places in reading order, round and round', () => {
  const spots = [{ id: 'c', xM: 5, yM: 4 }, { id: 'a', xM: 1, yM: 1.2 }, { id: 'b', xM: 5, yM: 1 }]
  expect([besidePlace(spots, null, 1), besidePlace(spots, 'a', 1), besidePlace(spots, 'b', 1), besidePlace(spots, 'c', 1), besidePlace(spots, 'a', -1), besidePlace(spots, null, -1), besidePlace([], null, 1)].map(s => s?.id)).toEqual(['a', 'b', 'c', 'a', 'c', 'c', undefined])
})

test('on tenths of a metre or quarters of a foot; arrows go that far, ten times with Shift', () => {
  expect([snapped({ xM: 1.234, yM: 0.05 }, 'metric'), snapped({ xM: 1.234, yM: 0 }, 'imperial')]).toEqual([{ xM: 1.2, yM: 0.1 }, { xM: 1.219, yM: 0 }])
  expect([nudgeM('metric', false), nudgeM('metric', true), nudgeM('imperial', true)]).toEqual([0.1, 1, expect.closeTo(0.762, 9)])
})
