import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { CLASS5_OHM_PER_KM, type Cable } from '#core/quantity/cable'
import { always } from '#core/testing/runs'
import { leadOhm } from '#core/network/cable'
import { METER_OFF_OHM, shortDistance } from './shortDistance'

const near = (value: number) => expect.closeTo(value, 1)

/** Ω/km of solid copper at 20 °C. Source: ASTM B258 (rounded tables, from memory). */
const BY_TABLE: [awg: number, ohmPerKm: number][] = [[22, 52.96], [18, 20.95], [16, 13.17], [14, 8.286], [12, 5.211]]

describe('by the tables of cables', () => {
  test.each(BY_TABLE)('%d AWG', (awg, ohmPerKm) => expect(shortDistance(1, { awg }).distanceM / (1000 / (2 * ohmPerKm))).toBeCloseTo(1, 2))
  test.each([...CLASS5_OHM_PER_KM])('%d mm²', (areaMm2, ohmPerKm) => expect(shortDistance(0.5, { areaMm2 }).distanceM).toBeCloseTo(0.5 / (2 * ohmPerKm / 1000), 9))
})

test.each<[string, () => unknown, unknown]>([
  ['0.42 Ω on 16 AWG, leads nulled', () => shortDistance(0.42, { awg: 16 }), { distanceM: near(15.94), lowM: near(11.57), highM: near(20.77) }],
  ['the same with leads of 0.1 Ω', () => shortDistance(0.42, { awg: 16 }, 0.1), { distanceM: near(12.14), lowM: near(7.95), highM: near(16.77) }],
  ['a tenth of an ohm is four metres of it', () => shortDistance(0.1, { awg: 16 }).distanceM, near(3.8)],
  ['so little that it may be at the very beginning', () => shortDistance(0.08, { awg: 16 }).lowM, 0],
  ['a little less than the leads: at the beginning, or a few metres on', () => shortDistance(0.15, { awg: 16 }, 0.2), { distanceM: 0, lowM: 0, highM: near(2.0) }],
])('%s', (_, found, expected) => expect(found()).toEqual(expected))

test('less than the leads by more than a meter can be off is no reading', () => {
  expect(() => shortDistance(0.2, { awg: 16 }, 0.31)).toThrow('less than the leads')
  expect(shortDistance(0.21, { awg: 16 }, 0.3).distanceM).toBe(0)
})

test('a short that is put somewhere along any cable, read as well as a meter can, lies within the span that is told', () => {
  const cables: Cable[] = [{ awg: 22 }, { awg: 18 }, { awg: 16 }, { awg: 12 }, { areaMm2: 1.5 }, { areaMm2: 4 }]
  const off = (most: number) => fc.double({ min: -most, max: most, noNaN: true })
  const upTo = (most: number) => fc.double({ min: 0, max: most, noNaN: true })
  const given = [fc.constantFrom(...cables), upTo(300), upTo(0.5), off(METER_OFF_OHM), off(0.05)] as const
  always(fc.property(...given, (cable, lengthM, leadsOhm, meterOff, copperOff) => {
    const ohm = leadsOhm + leadOhm({ cable, lengthM }) * (1 + copperOff) + meterOff
    if (ohm < 0) return
    const { distanceM, lowM, highM } = shortDistance(ohm, cable, leadsOhm)
    expect([lowM <= lengthM + 1e-9, highM >= lengthM - 1e-9, lowM <= distanceM, distanceM <= highM]).toEqual([true, true, true, true])
  }), 300)
})
