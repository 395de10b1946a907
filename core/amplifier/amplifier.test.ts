import { describe, expect, test } from '@jest/globals'
import { RESERVE_SCHOOLS } from '#core/practice/reserve'
import { POWER_SCHOOLS, schoolBandW } from '#core/practice/power'
import { driveInto, floorOhm, isFloorStated, isRated, lineKindOf, lineVoltageName, lineVoltsOf, lowestRatedOhm, ratedW, writeRating, type OutputRating, type SolidStateRating } from '.'

const twoPoints: SolidStateRating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 600 }, { loadOhm: 8, powerW: 400 }], floorOhm: 2 }

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
    const drive = driveInto({ kind: 'solid-state', points: points.map(([loadOhm, powerW]) => ({ loadOhm, powerW })), floorOhm }, loadOhm)!
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
    expect(lineVoltageName(driveInto({ kind: 'solid-state', points: [{ loadOhm: 8, powerW: 625 }], floorOhm: null }, 8)!.volts)).toBe('70 V'))
  test('nothing known gives nothing', () => expect(driveInto({ kind: 'not-known' }, 8)).toBeNull())
})

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
    ['its floor not stated: the lowest rated load', { kind: 'solid-state', points, floorOhm: null }, ['low-impedance', true, 600, null, 4, false, 4, '600 W at 4, 400 W at 8']],
    ['a 70 V line', { kind: 'constant-voltage', lineV: 70.71, powerW: 240 }, ['constant-voltage', true, 240, 70.71, null, false, null, '70 V 240 W']],
    ['a 100 V line of a power not known', { kind: 'constant-voltage', lineV: 100, powerW: null }, ['constant-voltage', false, null, 100, null, false, null, '100 V']],
    ['nothing known', { kind: 'not-known' }, [null, false, null, null, null, false, null, '']],
  ])('%s', (_, rating, answers) => expect([lineKindOf, isRated, ratedW, lineVoltsOf, floorOhm, isFloorStated, lowestRatedOhm, writeRating].map(ask => ask(rating))).toEqual(answers))
})
