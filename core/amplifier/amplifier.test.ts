import { describe, expect, test } from '@jest/globals'
import { RESERVE_SCHOOLS } from '#core/practice/reserve'
import { POWER_SCHOOLS, schoolBandW } from '#core/practice/power'
import { driveInto, floorOhm, isRated, lineKindOf, lineVoltageName, lineVoltsOf, lowestRatedOhm, ratedW, writeRating, type OutputRating, type SolidStateRating } from '.'

const twoPoints: SolidStateRating = { kind: 'solid-state', points: [{ loadOhm: 4, powerW: 600 }, { loadOhm: 8, powerW: 400 }], floorOhm: 2 }

describe('solid-state output (common practice, no source)', () => {
  test.each([
    [8, 400, 'rated'], [4, 600, 'rated'], [16, 200, 'above'], [32, 100, 'above'], [2, 300, 'not-rated'], [1.5, 225, 'under-floor'],
  ] as const)('into %d Ω: %d W, %s', (loadOhm, powerW, basis) => {
    const drive = driveInto(twoPoints, loadOhm)!
    expect([drive.powerW.toFixed(3), drive.basis]).toEqual([powerW.toFixed(3), basis])
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
  const asked = Object.fromEntries(RESERVE_SCHOOLS.map(s => [s.id, s.requiredW({ tapsW: 100, wireLossW: 0 }).toFixed(1)]))
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
    ['solid state', twoPoints, ['low-impedance', true, 600, null, 2, 4, '600 W at 4, 400 W at 8, from 2']],
    ['its floor not stated: the lowest rated load', { kind: 'solid-state', points, floorOhm: null }, ['low-impedance', true, 600, null, 4, 4, '600 W at 4, 400 W at 8']],
    ['a 70 V line', { kind: 'constant-voltage', lineV: 70.71, powerW: 240 }, ['constant-voltage', true, 240, 70.71, null, null, '70 V 240 W']],
    ['a 100 V line of a power not known', { kind: 'constant-voltage', lineV: 100, powerW: null }, ['constant-voltage', false, null, 100, null, null, '100 V']],
    ['nothing known', { kind: 'not-known' }, [null, false, null, null, null, null, '']],
  ])('%s', (_, rating, answers) => expect([lineKindOf, isRated, ratedW, lineVoltsOf, floorOhm, lowestRatedOhm, writeRating].map(ask => ask(rating))).toEqual(answers))
})
