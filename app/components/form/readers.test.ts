import { expect, test } from '@jest/globals'
import { copperOhm } from '#core/job/sections/wiring/through'
import { sourceOhm } from '#core/job/sections/wiring/schema'
import { inputOhm } from '#core/gear/amplifier'
import { highPassOf, lengthsOf, quantityOf, quantityOrNot, tapsOf, withinOrNot } from './readers'

/** What a field takes is what the job takes: what lies outside is refused where it was typed, in the words of the schema. */
test.each<[string, (typed: string) => unknown, string, unknown]>([
  ['ohms of a speaker', quantityOf('resistance'), '8', 8], ['the least', quantityOf('resistance'), '0.05', 0.05],
  ['under it', quantityOf('resistance'), '0.04', /^This must be at least 0.05 Ω/], ['over the most', quantityOf('resistance'), '1 MΩ', /at most 100000 Ω/],
  ['none', quantityOrNot('resistance'), ' ', null], ['nor of nothing', quantityOf('resistance'), ' ', /No resistance given/],
  ['copper of a coil', quantityOrNot('resistance', copperOhm), '0.02', 0.02], ['too much of it', quantityOrNot('resistance', copperOhm), '2k', /at most 1000 Ω/],
  ['an input', quantityOrNot('resistance', inputOhm), '1 MΩ', 1e6], ['not an input', quantityOrNot('resistance', inputOhm), '0.5', /at least 1 Ω/],
  ['a source of nothing', quantityOrNot('resistance', sourceOhm), '0', 0], ['power', quantityOf('power'), '1 kW', 1000],
  ['too little', quantityOf('power'), '0.0001', /at least 0.001 W/], ['a frequency', quantityOf('frequency'), '1k2', 1200], ['too high', quantityOf('frequency'), '200 kHz', /at most 100000 Hz/],
  ['taps', tapsOf, '10, 5 2.5 W; 5', [2.5, 5, 10]], ['no taps', tapsOf, 'W', /No taps given/],
  ['lengths in order', lengthsOf('metric'), '20, then 6', [20, 6]], ['a bare number in feet', lengthsOf('imperial'), '10', [3.048]],
  ['within bounds', withinOrNot(0, 60, 'It', ' dB'), '6 dB', 6], ['outside them', withinOrNot(0, 60, 'It', ' dB'), '61', /It lies between 0 and 60 dB/],
  ['a high-pass', highPassOf, '70 Hz', 70], ['none of it', highPassOf, 'none', 'none'], ['not stated', highPassOf, '', null], ['too high', highPassOf, '2000', /between 1 and 1000 Hz/],
])('%s', (_, read, typed, expected) => {
  if (expected instanceof RegExp) expect(() => read(typed)).toThrow(expected)
  else expect(read(typed)).toEqual(expected)
})
