import { expect, test } from '@jest/globals'
import { E_SERIES, nearestPreferred, nextPreferred, readCapacitance, readInductance, writeCapacitance, writeInductance } from './parts'

// IEC 60063: 10^(k/n) to two figures, but for 2.7, 3.3, 3.9, 4.7 and 8.2 of E12, which are set by hand.
test.each(['E6', 'E12'] as const)('%s is the geometric series of IEC 60063 with its five exceptions', (name) => {
  const set: Record<string, number> = { 2.6: 2.7, 3.2: 3.3, 3.8: 3.9, 4.6: 4.7, 8.3: 8.2 }
  const series = E_SERIES[name]
  expect(series).toEqual(series.map((_, k) => 10 ** (k / series.length)).map(v => Number(v.toFixed(1))).map(v => set[v] ?? v))
})
test.each<[number, number]>([[99.5e-6, 100e-6], [0.95, 1], [4.5e-6, 4.7e-6], [75e-6, 82e-6], [9.2e-6, 10e-6], [1.09e-3, 1e-3], [1.1e-3, 1.2e-3]])('%d is nearest to %d', (value, preferred) => expect(nearestPreferred(value)).toBe(preferred))
test.each<[number, number, number]>([[1e-4, 1.2e-4, 8.2e-5], [8.2e-6, 1e-5, 6.8e-6], [1.5, 1.8, 1.2], [2e-3, 2.2e-3, 1.8e-3], [9.9, 10, 8.2]])('from %d up to %d, down to %d', (value, up, down) => expect([nextPreferred(value, 1), nextPreferred(value, -1)]).toEqual([up, down]))
test.each<[string, number]>([['100', 1e-4], ['100 uF', 1e-4], ['100µF', 1e-4], ['4,7 mfd', 4.7e-6], ['470 nF', 4.7e-7]])('capacitor “%s”', (text, farad) => {
  expect(readCapacitance(text)).toBe(farad)
  expect(readCapacitance(writeCapacitance(farad))).toBe(farad)
})
test.each<[string, number]>([['2.2', 2.2e-3], ['2.2 mH', 2.2e-3], ['330 uH', 3.3e-4]])('coil “%s”', (text, henry) => {
  expect(readInductance(text)).toBe(henry)
  expect(readInductance(writeInductance(henry))).toBe(henry)
})
test.each(['', 'many', '100 ohm', '0', '-3'])('“%s” is neither', (text) => {
  expect(() => readCapacitance(text)).toThrow(/capacitor/)
  expect(() => readInductance(text)).toThrow(/coil/)
})
