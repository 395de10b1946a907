import { describe, expect, test } from '@jest/globals'
import { RESERVE_SCHOOLS } from '#core/schools/reserve'
import { POWER_SCHOOLS, schoolBandW } from '#core/schools/power'
import { bestTap, contradictionsOf, dividedDb, driveInto, floorOhm, gainOf, heldAt, isBridgedFloorStated, isFloorStated, isRated, lineKindOf, lineVoltageName, lineVoltsOf, lowestRatedOhm, mismatchDb, ratedV, ratedW, tapFit, timesPower, writeRating, type OutputRating, type SolidStateRating, type ValveRating } from '.'

const twoPoints: SolidStateRating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 600 }, { loadOhm: 8, powerW: 400 }], floorOhm: 2, mode: 'single', bridgedFloorOhm: null }

describe('solid-state output (common practice, no source)', () => {
  // The least and the most: apart only where no power is rated and it is allowed.
  test.each([
    [8, 400, 400, 'rated'], [4, 600, 600, 'rated'], [16, 200, 200, 'above'], [32, 100, 100, 'above'], [2, 300, 1200, 'not-rated'], [1.5, 225, 1600, 'under-floor'],
  ] as const)('into %d Ω: %d to %d W, %s', (loadOhm, powerW, mostW, basis) => {
    const drive = driveInto(twoPoints, loadOhm)!
    const watts = [drive.powerW, drive.mostW, drive.volts ** 2 / loadOhm, drive.mostVolts ** 2 / loadOhm].map(w => w.toFixed(3))
    expect(watts).toEqual([powerW, mostW, powerW, mostW].map(w => w.toFixed(3)))
    expect(drive.basis).toBe(basis)
  })
  test.each<[string, [number, number][], number | null, number, number | null, string]>([
    ['equal currents at two rated points: 75 W between', [[8, 100], [4, 50]], null, 6, 75, 'between'],
    ['a floor above the lowest rated load', [[4, 200], [8, 120]], 6, 5, null, 'under-floor'],
    ['and above a rated load itself', [[4, 200], [8, 120]], 6, 4, null, 'under-floor'],
    ['at that floor', [[4, 200], [8, 120]], 6, 6, 150.3, 'between'],
    ['a hair under a floor is a label', [[4, 200]], null, 3.99, 200.5, 'rated'],
  ])('%s', (_, points, floorOhm, loadOhm, powerW, basis) => {
    const drive = driveInto({ kind: 'solid-state', points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), floorOhm, mode: 'single', bridgedFloorOhm: null }, loadOhm)!
    expect(drive.basis).toBe(basis)
    if (powerW !== null) expect(drive.powerW).toBeCloseTo(powerW, 1)
  })
  test('volts at the rated points are 56.6 and 49.0', () =>
    expect([8, 4].map(z => driveInto(twoPoints, z)!.volts.toFixed(1))).toEqual(['56.6', '49.0']))
  test('between points the load line meets the straight line of volts against amps', () => {
    const { volts, basis } = driveInto(twoPoints, 6)!
    const [a, b] = [{ v: Math.sqrt(3200), i: Math.sqrt(50) }, { v: Math.sqrt(2400), i: Math.sqrt(150) }]
    expect(basis).toBe('between')
    expect(volts).toBeCloseTo(a.v + (b.v - a.v) * (volts / 6 - a.i) / (b.i - a.i), 9)
  })
  test('√(625 W × 8 Ω) is a 70 V line without a transformer', () =>
    expect(lineVoltageName(driveInto({ kind: 'solid-state', points: [{ loadOhm: 8, powerW: 625 }], floorOhm: null, mode: 'single', bridgedFloorOhm: null }, 8)!.volts)).toBe('70 V'))
  test('nothing known gives nothing', () => expect(driveInto({ kind: 'not-known' }, 8)).toBeNull())
})

// P(Z) = 2·P(Z/2) bridged: each half sees half the load; side by side twice. Common practice, no source.
test.each([['bridged', 16, 8], ['bridged', 8, 4], ['bridged', 11, 5.5], ['parallel', 4, 8], ['parallel', 2, 4], ['parallel', 8, 16]] as const)('%s into %d Ω: twice what a channel gives into %d Ω', (mode, loadOhm, eachOhm) => {
  const [both, each] = [driveInto({ ...twoPoints, mode }, loadOhm)!, driveInto(twoPoints, eachOhm)!]
  expect([both.powerW, both.mostW, both.volts ** 2 / loadOhm].map(w => w.toFixed(6))).toEqual([2 * each.powerW, 2 * each.mostW,
    2 * each.powerW].map(w => w.toFixed(6)))
  expect(both.basis).toBe(each.basis)
})

const VALVE: ValveRating = { kind: 'valve', powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: null }

// Three quarters of the tap quietly, half not at all; two to four times flies back. Common practice, no source; the power lost is the ideal transformer's.
test.each([
  [8, 'matched', 50, 8, 'matched'], [7.3, 'matched', 45.6, 8, 'matched'], [7, 'a-little-low', 43.8, 4, 'below-tap'], [6, 'a-little-low', 37.5, 4, 'below-tap'], [5.9, 'too-low', 36.9, 4, 'under-floor'], [4, 'too-low', 25, 4, 'under-floor'],
  [3, 'too-low', 18.8, null, 'under-floor'], [8.8, 'matched', 45.5, 8, 'matched'], [9, 'a-little-high', 44.4, 8, 'above-tap'], [15.9, 'a-little-high', 25.2, 16, 'above-tap'], [16, 'far-too-high', 25, 16, 'above-tap'], [32, 'far-too-high', 12.5, 16, 'above-tap'],
] as const)('a valve output of 50 W with taps of 4, 8 and 16 Ω, %d Ω on the 8 Ω tap', (loadOhm, fit, powerW, best, basis) => {
  const drive = driveInto(VALVE, loadOhm)!
  expect([tapFit(loadOhm, 8), drive.powerW.toFixed(1), drive.mostW, bestTap(VALVE.tapsOhm, loadOhm), drive.basis]).toEqual([fit, powerW.toFixed(1),
    drive.powerW, best, basis])
  expect(10 ** (mismatchDb(loadOhm, 8) / 10) * 50).toBeCloseTo(drive.powerW, 9)
  expect(drive.volts ** 2 / loadOhm).toBeCloseTo(drive.powerW, 9)
})
test('two 16 Ω on one head are 8, two 8 are 4, two 4 are 2: which no common head has', () =>
  expect([16, 8, 4].map(each => bestTap([4, 8, 16], each / 2))).toEqual([8, 4, null]))

test('100 W of taps by every school of reserve (common practice, no source)', () => {
  const draw = { tapsW: 100, reachedW: 100, lostW: 0, assumedW: 100 * (10 ** 0.1 - 1) }
  const asked = Object.fromEntries(RESERVE_SCHOOLS.map(s => [s.id, s.requiredW(draw).toFixed(1)]))
  expect(asked).toEqual({ 'add-a-fifth': '120.0', 'use-four-fifths': '125.0', 'add-three-tenths': '130.0', 'up-to-nine-tenths': '111.1', 'count-it': '138.5' })
})

test('a box of 800 W program, 400 W continuous, by the schools of matching (common practice, no source)', () => {
  const bands = Object.fromEntries(POWER_SCHOOLS.map((s) => {
    const { fromW, toW } = schoolBandW(s, 400)
    return [s.id, `${fromW}-${toW}`]
  }))
  expect(bands).toEqual({
    'careful': '400-600', 'even': '760-840', 'twice-continuous': '800-800', 'room-to-spare': '1200-1600', 'dense-material': '0-400',
    'instrument-cabinet': '0-200', 'vehicle-sub': '400-500',
  })
})

describe('what may be asked of any output', () => {
  const { points } = twoPoints
  test.each<[string, OutputRating, unknown[]]>([
    ['solid state', twoPoints, ['low-impedance', true, 600, null, 2, true, 4, '600 W at 4, 400 W at 8, from 2']],
    ['its floor not stated: the lowest rated load', { kind: 'solid-state', points, floorOhm: null, mode: 'single', bridgedFloorOhm: null }, ['low-impedance', true, 600, null, 4, false, 4, '600 W at 4, 400 W at 8']],
    ['a 70 V line', { kind: 'constant-voltage', lineV: 70.71, powerW: 240 }, ['constant-voltage', true, 240, 70.71, null, false, null, '70 V 240 W']],
    ['a 100 V line of a power not known', { kind: 'constant-voltage', lineV: 100, powerW: null }, ['constant-voltage', false, null, 100, null, false, null, '100 V']],
    ['two channels bridged: twice the floor', { ...twoPoints, mode: 'bridged' }, ['low-impedance', true, 1200, null, 4, true, 8, '2 x 600 W at 4, 400 W at 8, from 2 bridged']],
    ['two bridged, with a floor of their own', { ...twoPoints, mode: 'bridged', bridgedFloorOhm: 6 }, ['low-impedance', true, 1200, null, 6, true, 8, '2 x 600 W at 4, 400 W at 8, from 2 bridged from 6']],
    ['of one channel that floor is not', { ...twoPoints, bridgedFloorOhm: 6 }, ['low-impedance', true, 600, null, 2, true, 4, '600 W at 4, 400 W at 8, from 2']],
    ['side by side: half of it', { kind: 'solid-state', points, floorOhm: null, mode: 'parallel', bridgedFloorOhm: null }, ['low-impedance', true, 1200, null, 2, false, 2, '2 x 600 W at 4, 400 W at 8 in parallel']],
    ['a valve output on its 8 Ω tap', VALVE, ['low-impedance', true, 50, null, 6, false, null, 'valve 50 W at 4/8/16, tap 8']],
    ['a valve output of which little is known', { ...VALVE, powerW: null, tapOhm: null }, ['low-impedance', false, null, null, null, false, null, 'valve at 4/8/16']],
    ['nothing known', { kind: 'not-known' }, [null, false, null, null, null, false, null, '']],
  ])('%s', (_, rating, answers) => expect([lineKindOf, isRated, ratedW, lineVoltsOf, floorOhm, isFloorStated, lowestRatedOhm, writeRating].map(ask => ask(rating))).toEqual(answers))
  test('volts, gain, and what a source keeps: definitions of power and decibel, the voltage divider', () => {
    const bridged: OutputRating = { ...twoPoints, mode: 'bridged' }
    const line: OutputRating = { kind: 'constant-voltage', lineV: 100, powerW: null }
    expect([twoPoints, bridged, VALVE, { ...VALVE, tapOhm: null }, line, { kind: 'not-known' } as const].map(r => ratedV(r)?.toFixed(2) ?? null)).toEqual(['56.57', '113.14', '20.00', null, '100.00', null])
    const gain = (r: OutputRating, gainDb: number | null, inputV: number | null) => gainOf(r, { gainDb, inputV })?.toFixed(2) ?? null
    expect([gain(twoPoints, 32, 1), gain(bridged, 32, null), gain(twoPoints, null, 1), gain(bridged, null, 1), gain(line, null, null), gain({ kind: 'not-known' }, null, 1)]).toEqual(['32.00', '38.02', '35.05', '41.07', null, null])
    expect([dividedDb(600, 600).toFixed(2), dividedDb(100, 10_000).toFixed(3), [{ ...twoPoints, bridgedFloorOhm: 6 }, { ...bridged, bridgedFloorOhm: 6 }, bridged].map(isBridgedFloorStated)]).toEqual(['-6.02', '-0.086', [false, true, false]])
  })
  test('a limiter holds volts, lowers the most where nothing is rated, and allows nothing that is not allowed', () => {
    const held = (loadOhm: number, limiterV: number | null) => {
      const { volts, powerW, mostVolts, mostW, basis } = heldAt(driveInto(twoPoints, loadOhm)!, limiterV, loadOhm)
      return [volts, powerW, mostVolts, mostW].map(v => Number(v.toFixed(1))).concat(basis as never)
    }
    expect([held(8, 40), held(8, null), held(8, 56.6), held(2, 40), held(2, 20), held(1, 1)]).toEqual([
      [40, 200, 40, 200, 'limited'], [56.6, 400, 56.6, 400, 'rated'], [56.6, 400, 56.6, 400, 'rated'], [24.5, 300, 40, 800, 'not-rated'], [20, 200, 20, 200, 'limited'], [12.2, 150, 49, 2400, 'under-floor'],
    ])
  })
})

// V = √(P·Z), I = √(P/Z) of both points, by hand: 8 Ω at 100 W is 28.28 V and 3.54 A.
test.each<[string, [number, number][], string[]]>([
  ['one load rated twice', [[8, 100], [8, 120]], ['twice']], ['the same twice is once', [[8, 100], [8, 100]], []], ['two per cent more volts are rounding', [[8, 100], [4, 204]], []], ['four are not', [[8, 100], [4, 217]], ['more-volts']],
  ['less current into less', [[8, 100], [4, 47]], ['less-amps']], ['as much is its limit', [[8, 100], [4, 50]], []], ['of three, each beside its neighbour', [[8, 100], [4, 220], [2, 90]], ['more-volts', 'less-amps']],
])('what ratings say against each other: %s', (_, points, why) =>
  expect(contradictionsOf({ ...twoPoints, points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })) }).map(c => c.why)).toEqual(why))

test('as if it gave twice its power: what is its own doubles, a line keeps its volts, nothing stays nothing', () => {
  const valve: OutputRating = { kind: 'valve', powerW: 50, tapsOhm: [8], tapOhm: 8, chosenBy: null }
  const line: OutputRating = { kind: 'constant-voltage', lineV: 70, powerW: 100 }
  expect([twoPoints, valve, { ...valve, powerW: null }, line, { kind: 'not-known' } as OutputRating].map(r => ratedW(timesPower(r, 2)))).toEqual([1200, 100, null, 100, null])
  expect(driveInto(timesPower(twoPoints, 2), 8)!.powerW).toBeCloseTo(800, 9)
})
