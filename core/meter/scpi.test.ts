import { describe, expect, test } from '@jest/globals'
import { READING_KINDS } from '#core/job/sections/readings/kinds'
import { readsByWire } from './byWire'
import { newMeterSchema } from './meters'
import { readError, readIdentity, readMeasured } from './scpi'

/** What meters say, as IEEE 488.2 (NR1, NR2, NR3, *IDN?) and SCPI-99 (9.9E37, 9.91E37, SYSTem:ERRor?) write it; both from memory. */

const said = (run: () => unknown) => {
  try {
    return run()
  }
  catch (error) {
    return (error as Error).message
  }
}
describe('ohms', () => {
  test.each<[string, unknown]>([
    ['6', { is: 'ohm', ohm: 6 }], ['+6.213', { is: 'ohm', ohm: 6.213 }], [' 6.2130E+00 ', { is: 'ohm', ohm: 6.213 }], ['.5', { is: 'ohm', ohm: 0.5 }], ['1.2e3', { is: 'ohm', ohm: 1200 }],
    ['+9.90000000E+37', { is: 'open' }], ['9.9E37', { is: 'open' }], ['1E+38', { is: 'open' }], ['-9.9E37', { is: 'open' }], ['8.9E36', { is: 'ohm', ohm: 8.9e36 }],
    ['-0.02', { is: 'ohm', ohm: 0 }], ['-0.6', expect.stringMatching(/less than nothing/)], ['9.91E37', expect.stringMatching(/no reading/)],
    ['', expect.stringMatching(/not a number/)], ['OL', expect.stringMatching(/“OL”, which is not a number/)], ['6.2 OHM', expect.stringMatching(/not a number/)], ['0x10', expect.stringMatching(/not a number/)],
    ['1,2', expect.stringMatching(/not a number/)], ['Infinity', expect.stringMatching(/not a number/)], ['NaN', expect.stringMatching(/not a number/)], ['\u0007', expect.stringMatching(/“·”/)],
  ])('%j', (answer, value) => expect(said(() => readMeasured('ohm', answer))).toEqual(value))
})
test.each<[string, unknown]>([['21.3', { is: 'celsius', celsius: 21.3 }], ['9.9E37', { is: 'over-range' }]])('degrees: %j', (answer, value) => expect(readMeasured('celsius', answer)).toEqual(value))
test.each<[string, unknown]>([['-1.8E-2', { is: 'volts', volts: -0.018 }], ['9.9E37', { is: 'over-range' }]])('volts: %j', (answer, value) => expect(readMeasured('volts', answer)).toEqual(value))
test.each<[string, unknown]>([
  ['SOMEBODY,BENCH 6,00123,1.04', { name: 'SOMEBODY BENCH 6', isStandIn: false }], ['Plain Match,simulated bench meter,0,1.0', { name: 'Plain Match simulated bench meter', isStandIn: true }], ['ANY,0,0,0', { name: 'ANY', isStandIn: false }],
  ['HTTP/1.1 400 Bad Request', expect.stringMatching(/not what a meter says of itself/)], ['a,b,c', expect.stringMatching(/not what a meter/)], ['', expect.stringMatching(/not what a meter/)],
])('who it is: %j', (answer, value) => expect(said(() => readIdentity(answer))).toEqual(value))
test.each<[string, unknown]>([['+0,"No error"', null], ['0,"No error"', null], ['-113,"Undefined header"', 'Undefined header'], ['-113,""', 'error -113'], ['6.2', expect.stringMatching(/whether it understood/)]])('whether it understood: %j', (answer, value) => expect(said(() => readError(answer))).toEqual(value))
test('only what direct current reads is read by wire', () => expect(READING_KINDS.filter(readsByWire)).toEqual(['leg-earth', 'pair-apart', 'pair-through', 'line-dcr', 'coil-dcr']))
test.each<[string, boolean]>([['192.168.1.40', true], ['meter.local', true], ['fe80::1', true], ['[::1]', true], ['http://x', false], ['a b', false], ['10.0.0.1:5025', false], ['', false], ['-x', false], ['x;y', false]])('an address: “%s”', (host, ok) => {
  expect(newMeterSchema.safeParse({ name: 'Bench', host, fourWire: false }).success).toBe(ok)
})
