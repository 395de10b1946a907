import { describe, expect, test } from '@jest/globals'
import { readCable, writeCable } from './cable'
import { InputError } from './inputError'
import { readQuantity } from './read'
import { writeDb, writeQuantity } from './write'

describe('reading quantities', () => {
  // Foot and inch: NIST SP 811 (exact). The rest is the definition of the prefixes.
  test.each([
    ['length', '12 ft', 3.6576], ['length', '3.6 m', 3.6], ['length', '3,6m', 3.6], ['length', '12 ft 6 in', 3.81], ['length', '12\'6"', 3.81],
    ['length', '45', 45], ['length', ' 250 cm ', 2.5], ['length', '0', 0],
    ['resistance', '2k2', 2200], ['resistance', '4R7', 4.7], ['resistance', '8 ohms', 8], ['resistance', '8\u2126', 8], ['resistance', '4.7 k\u03a9', 4700],
    ['resistance', '1M', 1e6], ['resistance', '200 mohm', 0.2], ['resistance', '0', 0],
    ['voltage', '70.7 V', 70.7], ['voltage', '300 mV', 0.3], ['current', '0.4 A', 0.4], ['current', '250mA', 0.25],
    ['power', '1.25 W', 1.25], ['power', '0.5 kW', 500], ['power', '20watts', 20],
    ['frequency', '1 kHz', 1000], ['frequency', '1k2', 1200],
  ] as const)('%s “%s” is %d', (kind, text, value) => expect(readQuantity(kind, text)).toBeCloseTo(value, 9))

  test.each([
    ['length', '', 0, 'No length'], ['length', '12 ftx', 3, 'ftx'], ['length', '12 ft 6', 7, 'needs a unit'], ['length', 'long', 0, 'long'],
    ['length', '99 km', 0, '10 km'], ['length', '-3 m', 0, '-3 m'], ['power', '0 W', 0, 'nothing'], ['resistance', '8 W', 2, '“W”'], ['length', '1e5', 1, 'e'],
  ] as const)('%s “%s” is refused at %d', (kind, text, position, says) => {
    const error = caught(() => readQuantity(kind, text))
    expect([error.position, error.message.includes(says), error.expected.length > 0]).toEqual([position, true, true])
  })

  test.each([['16 AWG', '16 AWG'], ['awg16', '16 AWG'], ['#18', '18 AWG'], ['1.5 mm²', '1.5 mm²'], ['2,5mm2', '2.5 mm²']])('cable “%s”', (text, written) =>
    expect(writeCable(readCable(text))).toBe(written))

  test.each([['16', 'say which'], ['99 AWG', '99 AWG'], ['7 mm²', '7 mm²'], ['thick', 'not a cable'], ['', 'No cable']])('cable “%s” is refused', (text, says) =>
    expect(caught(() => readCable(text)).message).toContain(says))
})

test.each([
  [26.5, 'Ω', '26.5 Ω'], [0.0123, 'Ω', '0.0123 Ω'], [2200, 'Ω', '2.2 kΩ'], [188.66, 'W', '188.7 W'], [75, 'W', '75 W'], [31.249999999999993, 'W', '31.3 W'], [31.2499, 'W', '31.2 W'], [12_500, 'W', '12.5 kW'], [0, 'V', '0 V'], [64.876, 'V', '64.9 V'],
] as const)('%d %s is written “%s”', (value, unit, text) => expect(writeQuantity(value, unit)).toBe(text))

test('a level is written with its sign', () => expect([writeDb(-0.748), writeDb(0), writeDb(-0.001)]).toEqual(['−0.75 dB', '0.00 dB', '0.00 dB']))

function caught(run: () => unknown): InputError {
  try {
    run()
  }
  catch (error) {
    if (error instanceof InputError) return error
    throw error
  }
  throw new Error('nothing was refused')
}
