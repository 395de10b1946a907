import { describe, expect, test } from '@jest/globals'
import { LevelField, cellsOf } from '#core/room/level'
import { rectangle } from '#core/room/outline'
import { besidePlace, contourPath, nudgeM, planScale, rulerMarks, SHADE_MOST, shadeCells, shadeOf, snapped } from './floorPlan'

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
  test.each([[70, 0.5], [61, 0], [50, 0], [79, 1], [90, 1], [73, 12 / 18]])('%d dB about 70: %d', (db, shade) => expect(shadeOf(db, 70)).toBeCloseTo(shade, 9))
  test('each cell its ink, as dark as its level less the peaks; none where no level is known', () => {
    const pixels = new Uint8ClampedArray(8).fill(9)
    shadeCells(Float64Array.of(76, 90), { offsetDb: -6, aboutDb: 70, ink: [1, 2, 3] }, pixels)
    expect([...pixels]).toEqual([1, 2, 3, Math.round(SHADE_MOST * 255 / 2), 1, 2, 3, Math.round(SHADE_MOST * 255)])
    shadeCells(new Float64Array(0), { offsetDb: 0, aboutDb: 70, ink: [1, 2, 3] }, pixels)
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
