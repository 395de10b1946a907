import { describe, expect, test } from '@jest/globals'
import { NOISE_EXAMPLES, PEAK_SCHOOLS, targetDb, type SpaceUseId } from '#core/schools/loudness'
import { seeded } from '#core/testing/trees'
import type { InputError } from '#core/quantity/inputError'
import { circleM, OVERLAPS, overlapOf } from './coverage'
import { cover } from './cover'
import { layoutOf, outsideShare, outsideWords, turnedBy } from './layout'
import { cellsOf, LevelField, levelAtDb, offAxisDb, type Source } from './level'
import { areaM2, boxOf, contains, crossingWalls, rectangle, type Place } from './outline'
import { readFloor, writeFloor } from './sides'
import { statisticsOf } from './statistics'
import { lowestTap, wattSensitivityDb, wattsDb } from './tap'
import { alongWallsM, leadLengthsM, walkOrder } from './walls'

const at = (xM: number, yM: number): Place => ({ xM, yM })
const L = readFloor('12 right 4 right 3 left 5 right 9 right 9')

describe('floors', () => {
  test.each<[string, number, string | null]>([
    ['18 x 9 m', 162, '18 x 9 m'], ['18x9', 162, '18 x 9 m'], ['60 ft by 30 ft', 60 * 30 * 0.3048 ** 2, '18.288 x 9.144 m'], ['60 x 30 ft', 60 * 30 * 0.3048 ** 2, '18.288 x 9.144 m'], ['12 ft 6 in x 3 m', 3.81 * 3, '3.81 x 3 m'],
    ['12 right 4 right 3 left 5 right 9 right 9', 12 * 9 - 3 * 5, '12 right 4 right 3 left 5 right 9 right 9'], ['4 r 3 r 4 r 3', 12, '4 x 3 m'], ['4 left 3 left 4 left 3', 12, '4 left 3 left 4 left 3'],
    ['5 right 5.05 right 5 right 5', 25.25, '5 x 5.05 m'],
  ])('%s', (text, areaM, again) => {
    const floor = readFloor(text)
    expect(areaM2(floor)).toBeCloseTo(areaM, 0)
    expect(writeFloor(floor)).toBe(again)
    expect([boxOf(floor).fromXM, boxOf(floor).fromYM]).toEqual([0, 0])
  })
  test.each<[string, RegExp, number]>([
    ['', /No floor/, 0], ['12', /four walls/, 2], ['18 x', /No length/, 4], ['18 x 9 kg', /not a unit of length/, 7], ['0 x 9', /no length/, 0], ['12 right 4 right 3 left 5', /ends [\d.]+ m from/, 25], ['5 right 5 right 5 right 5.15', /ends 0\.15 m from/, 28], ['12 right x right 12 right 4', /not a length/, 9],
    ['6 right 2 right 3 right 4 left 3 left 2 right 6 right 4', /ends|cross/, 55], ['0.5 x 0.5', /half a square metre/, 0], [Array(64).fill('1').join(' right '), /at most 60|cross|ends/, 0],
  ])('no floor: %s', (text, says) => expect(() => readFloor(text)).toThrow(says))
  test('an error points into the text', () => {
    try { readFloor('18 x 9 kg') }
    catch (error) { expect((error as InputError).position).toBe(7) }
    expect.assertions(1)
  })
  test.each<[string, Place[], [number, number] | null]>([
    ['a square', rectangle(2, 2), null],
    ['a bow tie', [at(0, 0), at(2, 2), at(2, 0), at(0, 2)], [1, 3]],
    ['a corner on a wall', [at(0, 0), at(4, 0), at(4, 2), at(2, 0), at(0, 2)], [1, 3]],
    ['back over itself', [at(0, 0), at(4, 0), at(2, 0), at(2, 3)], [1, 2]],
    ['an L', L, null],
  ])('walls of %s', (_, outline, crossing) => expect(crossingWalls(outline)).toEqual(crossing))
  test('inside an L', () => expect([at(1, 1), at(11, 3), at(11, 5), at(8.9, 8.9), at(9.1, 4.1), at(-1, 1)].map(p => contains(L, p))).toEqual([true, true, false, true, false, false]))
})

describe('coverage', () => {
  // Handbook value by hand: H 3.6, e 1.2, 90°: D = 2 × 2.4 × tan 45° = 4.8.
  test.each<[number, number, number | null, number | null]>([[3.6, 1.2, 90, 4.8], [2.7, 1.65, 90, 2.1], [3, 1.2, 120, 6.235], [3, 1.2, 180, null], [1, 1.2, 90, null], [3, 1.2, null, null]])('height %d, ears %d, %s°: circle %s m', (heightM, earsM, deg, acrossM) =>
    acrossM === null ? expect(circleM(heightM, earsM, deg)).toBeNull() : expect(circleM(heightM, earsM, deg)).toBeCloseTo(acrossM, 3))
  test('the factors are those that the text names: 0.71 and 0.87 of the circle, its whole, its half', () =>
    expect(OVERLAPS.map(o => Number(o.factor.toFixed(2)))).toEqual([1, 0.71, 0.87, 0.5]))
  // Derived: among endless rows no place is outside every circle, and with a hundredth more it is.
  test.each(OVERLAPS.filter(o => o.factor > 0.5 && o.factor < 1))('$id leaves no gap, a wider one does', ({ factor, pattern }) => {
    const farthest = (spacing: number) => {
      const row = pattern === 'hexagonal' ? spacing * Math.sqrt(3) / 2 : spacing
      let most = 0
      for (let i = 0; i <= 60; i++) for (let j = 0; j <= 60; j++) {
        const p = [i / 60 * spacing, j / 60 * 2 * row]
        let nearest = Infinity
        for (let r = -2; r <= 4; r++) for (let c = -2; c <= 3; c++) nearest = Math.min(nearest, Math.hypot(p[0]! - (c + (pattern === 'hexagonal' && r % 2 ? 0.5 : 0)) * spacing, p[1]! - r * row))
        most = Math.max(most, nearest)
      }
      return most
    }
    expect(farthest(factor)).toBeLessThanOrEqual(0.5 + 1e-9)
    expect(farthest(factor * 1.02)).toBeGreaterThan(0.5)
  })
})

describe('layouts', () => {
  // Against the area of a disc and of squares: plane geometry.
  test.each<[string, Place[], Place[], number, number]>([
    ['one circle in a square that it touches', rectangle(4, 4), [{ xM: 2, yM: 2 }], 4, 1 - Math.PI / 4], ['a circle about it', rectangle(4, 4), [{ xM: 2, yM: 2 }], 5.7, 0], ['none', rectangle(4, 4), [], 4, 1],
    ['half of it', rectangle(8, 4), [{ xM: 2, yM: 2 }], 5.656, 0.5 - (Math.PI * 2.828 ** 2 / 4 - 4) / 32],
  ])('outside every circle: %s', (_, outline, places, circle, share) => {
    expect(outsideShare(outline, places, circle)).toBeCloseTo(share, 2)
    expect(outsideWords(share) === '').toBe(share === 0)
  })
  test('rows offset leave a little at the walls, rows and columns none', () => {
    const left = (spacingM: number, pattern: 'square' | 'hexagonal') => outsideShare(rectangle(18, 9), layoutOf(rectangle(18, 9), { spacingM, pattern, turnDeg: 0 })!.places, 4.8)
    expect([left(4.8 * Math.SQRT1_2, 'square'), left(4.8 * Math.sqrt(3) / 2, 'hexagonal')]).toEqual([0, expect.closeTo(0.01, 1)])
  })
  const laid = (outline: Place[], spacingM: number, pattern: 'square' | 'hexagonal' = 'square', turnDeg = 0) => layoutOf(outline, { spacingM, pattern, turnDeg })
  test.each<[string, Place[], number, 'square' | 'hexagonal', number, number, number, number]>([
    ['least overlap of the example', rectangle(18, 9), 3.394, 'square', 0, 6, 3, 18],
    ['edge to edge', rectangle(18, 9), 4.8, 'square', 0, 4, 2, 8],
    ['centre to centre', rectangle(18, 9), 2.4, 'square', 0, 8, 4, 32],
    ['offset', rectangle(18, 9), 4.157, 'hexagonal', 0, 5, 3, 16],
    ['rows of an offset grid lie closer', rectangle(12, 12.4), 4.2, 'hexagonal', 0, 3, 4, 14],
    ['one is enough', rectangle(2, 2), 5, 'square', 0, 1, 1, 1],
    ['a step that goes in exactly', rectangle(9.6, 4.8), 4.8, 'square', 0, 2, 1, 2],
    ['a quarter turn', rectangle(18, 9), 4.8, 'square', 90, 2, 4, 8],
    ['an L has fewer', L, 3, 'square', 0, 4, 3, 10],
  ])('%s', (_, outline, spacingM, pattern, turnDeg, columns, rows, count) => {
    const found = laid(outline, spacingM, pattern, turnDeg)!
    expect([found.columns, found.rows, found.places.length]).toEqual([columns, rows, count])
    expect(found.places.every(p => contains(outline, p))).toBe(true)
    expect(Math.max(found.alongM, found.acrossM)).toBeLessThanOrEqual(spacingM + 1e-6)
  })
  test('more than can be drawn are refused', () => expect([laid(rectangle(100, 100), 4), laid(rectangle(1000, 1000), 0.1)]).toEqual([null, null]))
  test('turning keeps distances', () => expect(turnedBy(at(3, 1), at(1, 1), 90)).toEqual({ xM: expect.closeTo(1, 9) as unknown as number, yM: expect.closeTo(3, 9) as unknown as number }))
})

describe('level', () => {
  const source = (over: Partial<Source> = {}): Source => ({ xM: 0, yM: 0, heightM: 3, aim: null, atMetreDb: 90, coverageDeg: 90, ...over })
  // Inverse square: 6.02 dB a doubling, 20 dB a tenfold [P: any table of it]. Handbook: ceilings 2.7 to 4.6 m, ears at 1.65: ×2.8, 9 dB.
  test.each<[string, Source[], Place, number, number]>([
    ['a metre below', [source({ heightM: 2 })], at(0, 0), 1, 90],
    ['two metres', [source()], at(0, 0), 1, 90 - 6.02],
    ['ten metres', [source({ heightM: 11 })], at(0, 0), 1, 70],
    ['a ceiling raised', [source({ heightM: 4.6 })], at(0, 0), 1.65, 90 - 20 * Math.log10(2.95)],
    ['two alike: 3 dB', [source(), source()], at(0, 0), 1, 90 - 6.02 + 3.01],
    ['ten alike: 10 dB', Array.from({ length: 10 }, () => source()), at(0, 0), 1, 90 - 6.02 + 10],
    ['one 10 dB below adds 0.41', [source(), source({ atMetreDb: 80 })], at(0, 0), 1, 90 - 6.02 + 0.41],
    ['at half its angle: 6 dB, and farther off', [source()], at(2, 0), 1, 90 - 6 - 20 * Math.log10(Math.hypot(2, 2))],
    ['aimed level, on its axis', [source({ aim: { turnDeg: 0, tiltDeg: 0 }, heightM: 1 })], at(4, 0), 1, 90 - 12.04],
    ['aimed away', [source({ aim: { turnDeg: 180, tiltDeg: 0 }, heightM: 1 })], at(4, 0), 1, 90 - 12.04 - 18],
    ['tilted down onto the place', [source({ aim: { turnDeg: 90, tiltDeg: 45 } })], at(0, 2), 1, 90 - 20 * Math.log10(Math.hypot(2, 2))],
    ['all round', [source({ coverageDeg: 360 })], at(50, 0), 3, 90 - 33.98],
    ['an ear at the grille', [source({ heightM: 1 })], at(0, 0), 1, 90 + 12.04],
  ])('%s', (_, sources, place, earsM, db) => expect(levelAtDb(sources, place, earsM)).toBeCloseTo(db, 1))
  test.each<[number, number, number]>([[0, 90, 0], [45, 90, 6], [22.5, 90, 1.5], [60, 120, 6], [90, 90, 18], [180, 360, 0]])('%d° beside the axis of one of %d°: %d dB', (angle, coverage, db) => expect(offAxisDb(angle, coverage)).toBeCloseTo(db, 9))
  test('nothing sounds: no level', () => expect(levelAtDb([], at(0, 0), 1)).toBeNull())

  /** The same by another way: angles from the dot product of unit vectors, levels summed as pressures squared. */
  function independentDb(sources: readonly Source[], p: Place, earsM: number): number {
    const meanSquare = sources.map((s) => {
      const [dx, dy, dz] = [p.xM - s.xM, p.yM - s.yM, earsM - s.heightM]
      const r = Math.hypot(dx, dy, dz)
      const [t, d] = s.aim ? [s.aim.turnDeg * Math.PI / 180, s.aim.tiltDeg * Math.PI / 180] : [0, Math.PI / 2]
      const cos = (dx * Math.cos(t) * Math.cos(d) + dy * Math.sin(t) * Math.cos(d) - dz * Math.sin(d)) / r
      const angle = Math.acos(Math.max(-1, Math.min(1, cos))) * 180 / Math.PI
      const pressurePa = 20e-6 * 10 ** ((s.atMetreDb - (s.coverageDeg >= 360 ? 0 : Math.min(18, 24 * (angle / s.coverageDeg) ** 2))) / 20) / Math.max(r, 0.25)
      return pressurePa ** 2
    })
    return 20 * Math.log10(Math.sqrt(meanSquare.reduce((a, b) => a + b)) / 20e-6)
  }
  test('a field agrees with an independent summation at every cell, and after one has moved, gone and come', () => {
    const rand = seeded(11)
    for (let k = 0; k < 60; k++) {
      const outline = rand() < 0.5 ? rectangle(4 + 20 * rand(), 3 + 12 * rand()) : L
      const { lengthM, widthM } = boxOf(outline)
      const any = (): Source => ({
        xM: rand() * lengthM, yM: rand() * widthM, heightM: 2.4 + 6 * rand(), aim: rand() < 0.5 ? null : { turnDeg: 360 * rand(), tiltDeg: 60 * rand() },
        atMetreDb: 70 + 30 * rand(), coverageDeg: 40 + 320 * Math.round(rand()) * rand(),
      })
      const sources = new Map(Array.from({ length: 1 + Math.floor(6 * rand()) }, (_, i) => [String(i), any()]))
      const cells = cellsOf(outline, 60)
      const field = new LevelField(cells, 1.2)
      for (const change of [() => {}, () => sources.set('0', any()), () => sources.delete('1'), () => sources.set('new', any())]) {
        change()
        field.set(sources)
        const levels = field.levelsDb()
        const placeOf = (cell: number) => at(cells.from.xM + cell % cells.columns * cells.stepM, cells.from.yM + Math.floor(cell / cells.columns) * cells.stepM)
        const off = [...cells.inside].map((cell, i) => Math.abs(levels[i]! - independentDb([...sources.values()], placeOf(cell), 1.2)))
        expect(Math.max(...off)).toBeLessThan(1e-6)
      }
    }
  })
  test.each<[string, Partial<Source>]>([
    ['along', { xM: 1 }],
    ['across', { yM: 1 }],
    ['up', { heightM: 4 }],
    ['louder', { atMetreDb: 91 }],
    ['wider', { coverageDeg: 120 }],
    ['turned', { aim: { turnDeg: 1, tiltDeg: 0 } }],
    ['tilted', { aim: { turnDeg: 0, tiltDeg: 1 } }],
  ])('a source that moves %s is worked out anew', (_, over) => {
    const field = new LevelField(cellsOf(rectangle(4, 3), 12), 1.2)
    const now = source({ aim: over.aim ? { turnDeg: 0, tiltDeg: 0 } : null })
    field.set(new Map([['a', now]]))
    const before = field.levelsDb()
    field.set(new Map([['a', { ...now, ...over }]]))
    expect(field.levelsDb()).not.toEqual(before)
  })
  test('cells fill the floor', () => {
    for (const outline of [rectangle(18, 9), L]) {
      const { inside, stepM } = cellsOf(outline)
      expect(inside.length * stepM ** 2 / areaM2(outline)).toBeCloseTo(1, 1)
    }
  })
  test('statistics', () => expect(statisticsOf(Float64Array.from([70, 72, 74, 76, 78, 80, 82, 84, 86, 88, 90]))).toEqual({
    meanDb: 80, spreadDb: expect.closeTo(6.633, 3) as unknown as number, p10Db: 72, p90Db: 88, within3Db: 3 / 11,
  }))
  test('none of nothing', () => expect(statisticsOf(new Float64Array(0))).toBeNull())
})

describe('power', () => {
  test.each<[number | null, '1 W' | '2.83 V' | null, number | null, number | null]>([[89, '1 W', 4, 89], [89, '2.83 V', 8, 89], [89, '2.83 V', 4, 85.99], [89, '2.83 V', 16, 92.01], [89, '2.83 V', null, null], [89, null, 8, null], [null, '1 W', 8, null]])('%s dB at %s into %s Ω is %s dB for a watt', (sensitivityDb, sensitivityAt, nominalOhm, db) =>
    db === null
      ? expect(wattSensitivityDb({ sensitivityDb, sensitivityAt, nominalOhm })).toBeNull()
      : expect(wattSensitivityDb({ sensitivityDb, sensitivityAt, nominalOhm })).toBeCloseTo(db, 2))
  test('twice the watts are 3 dB', () => expect(wattsDb(10) - wattsDb(5)).toBeCloseTo(3.01, 2))
  test.each<[number, number | null]>([[0.1, 1.25], [1.25, 1.25], [1.26, 2.5], [10, 10], [10.1, null]])('%d W: tap %s', (needed, tap) => expect(lowestTap([0, 10, 1.25, 2.5, 5], needed, w => w)).toBe(tap))
  test.each<[SpaceUseId, number | null, number | null, number | null]>([
    ['quiet-background', 50, null, 53], ['masking', 40, null, 45], ['masking', 46, null, 48], ['masking', 52, null, 52],
    ['lively-background', 58, null, 64],
    ['foreground', 65, null, 75],
    ['speech', 65, null, 80],
    ['speech', 85, null, 95],
    ['speech', 97, null, 97],
    ['event', 92, null, 95],
    ['foreground', 65, 4, 69],
    ['speech', 65, -3, 62],
    ['speech', null, null, null],
  ])('%s in %s dB of noise, own %s: %s dB', (use, noise, own, db) => expect(targetDb(use, noise, own)).toBe(db))
  test('described levels rise, peaks agree with the parts of the peak that music has: a third, an eighth, of which a full sine is a half', () => {
    expect(NOISE_EXAMPLES.map(n => n.db)).toEqual(NOISE_EXAMPLES.map(n => n.db).toSorted((a, b) => a - b))
    expect(PEAK_SCHOOLS.map(p => p.db)).toEqual([0, Math.round(10 * Math.log10(3 / 2)), Math.round(10 * Math.log10(8 / 2))])
  })
})

describe('cover', () => {
  const asked = { outline: rectangle(18, 9), heightM: 3.6, earsM: 1.2, coverageDeg: 90, overlap: 'least' as const, turnDeg: 0, wattDb: 89, targetDb: 76, tapsW: [] }
  test('the power needed brings the mean to the target; a tap is the next above it; the highest where none is enough', () => {
    const bare = cover(asked)!
    expect([bare.layout.places.length, bare.circleM, bare.spacingM, bare.meanDb])
      .toEqual([18, expect.closeTo(4.8, 6), expect.closeTo(3.394, 3), expect.closeTo(76, 9)])
    const tapped = cover({ ...asked, tapsW: [0.01, 0.25, 0.5] })!
    expect([tapped.tapW, tapped.meanDb - 76])
      .toEqual([[0.01, 0.25, 0.5].find(w => w >= bare.neededW), expect.closeTo(10 * Math.log10(tapped.tapW! / bare.neededW), 6)])
    const short = cover({ ...asked, targetDb: 120, tapsW: [1, 2] })!
    expect([short.tapW, short.meanDb < 120]).toEqual([null, true])
    expect(bare.p10Db < bare.meanDb && bare.meanDb < bare.p90Db && bare.within3Db > 0.8).toBe(true)
  })
  test('closer is evener', () => expect((['edge', 'least', 'centre'] as const).map(overlap => cover({ ...asked, overlap })!.spreadDb)).toEqual([...(['edge', 'least', 'centre'] as const).map(overlap => cover({ ...asked, overlap })!.spreadDb)].sort((a, b) => b - a)))
  test('no circle, no answer', () => expect([cover({ ...asked, coverageDeg: 180 }), cover({ ...asked, earsM: 4 }), cover({ ...asked, outline: rectangle(300, 300) })]).toEqual([null, null, null]))
  test('names are known', () => expect(OVERLAPS.map(o => overlapOf(o.id))).toEqual([...OVERLAPS]))
})

describe('cable along walls', () => {
  const grid = [at(1, 1), at(4, 1), at(7, 1), at(1, 4), at(4, 4), at(7, 4)]
  const length = (places: Place[], order: number[], from: Place) =>
    order.reduce((sum, k, i) => sum + alongWallsM(i === 0 ? from : places[order[i - 1]!]!, places[k]!), 0)
  test('to and fro', () => expect(walkOrder(grid, at(0, 0))).toEqual([0, 1, 2, 5, 4, 3]))
  test('from the far corner it begins there', () => expect(walkOrder(grid, at(8, 5))[0]).toBe(5))
  test('every place once, and within a tenth of the shortest of all orders of seven', () => {
    const rand = seeded(5)
    const orders = (items: number[]): number[][] => items.length < 2
      ? [items]
      : items.flatMap((x, k) => orders(items.toSpliced(k, 1)).map(rest => [x, ...rest]))
    const all = orders([0, 1, 2, 3, 4, 5])
    const ratios = Array.from({ length: 60 }, () => {
      const places = Array.from({ length: 6 }, () => at(Math.round(rand() * 12), Math.round(rand() * 8)))
      const found = walkOrder(places, at(0, 0))
      expect(found.toSorted()).toEqual([0, 1, 2, 3, 4, 5])
      return length(places, found, at(0, 0)) / Math.min(...all.map(order => length(places, order, at(0, 0))))
    })
    expect(ratios.reduce((a, b) => a + b) / ratios.length).toBeLessThan(1.1)
    expect(Math.max(...ratios)).toBeLessThan(1.6)
  })
  test.each<[number | null, number, (number | null)[]]>([[20, 0.1, [24.2, 3.3, 3.3]], [20, 0, [22, 3, 3]], [null, 0.1, [null, 3.3, 3.3]]])('rack %s m away, slack %d: %j', (rackM, slack, lengths) => expect(leadLengthsM(grid, [0, 1, 2], { from: at(0, 0), rackM, slack })).toEqual(lengths))
})
