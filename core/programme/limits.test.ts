import { expect, test } from '@jest/globals'
import { boostTimes, highPassFit, HIGH_PASS_WORDS, hotCoil, limiterFor, type HighPassFit } from './limits'

// √(P·Z), dBu re 0.7746 V: definitions; 400 W at 8 Ω are 56.57 V, and 32 dB of gain are ×39.81.
test.each([[400, 8, 32, 24, 56.569, 1.421, 5.271, -18.729], [100, 4, 26, 18, 20, 1.0024, 2.239, -15.761], [1, 8, 0, 0, 2.8284, 2.8284, 11.249, 11.249]])('%d W at %d Ω through %d dB, full scale %d dBu', (continuousW, loadOhm, gainDb, fullScaleDbu, outV, inV, inDbu, dbfs) => {
  const set = limiterFor({ continuousW, loadOhm, gainDb, fullScaleDbu })
  expect([set.outV, set.inV, set.inDbu, set.dbfs]).toEqual([expect.closeTo(outV, 2), expect.closeTo(inV, 2), expect.closeTo(inDbu, 2), expect.closeTo(dbfs, 2)])
  expect(limiterFor({ continuousW, loadOhm, gainDb, fullScaleDbu: null }).dbfs).toBeNull()
})
// +6 dB is four times, +10 dB ten times (definition of the decibel).
test.each([[0, 1], [3, 2], [6, 3.98], [10, 10], [12, 15.8]])('a boost of %d dB asks %d times the power', (db, times) => expect(boostTimes(db) / times).toBeCloseTo(1, 2))
// Copper at 0.00393 a kelvin: +200 K is 1.79 times the resistance, 2.5 dB (handbook of the trade).
test('a coil hotter by 200 K', () => {
  expect(hotCoil(200).times).toBeCloseTo(1.786, 3)
  expect(hotCoil(200).lossDb).toBeCloseTo(-2.52, 2)
  expect(hotCoil(0)).toEqual({ times: 1, lossDb: -0 })
})
// Common practice, no source.
test.each<[number | null, number, HighPassFit]>([[null, 40, 'none'], [31, 40, 'too-low'], [32, 40, 'right'], [40, 40, 'right'], [48, 40, 'right'], [49, 40, 'above']])('a high-pass of %s Hz on a box tuned to %d Hz: %s', (corner, tuning, fit) => {
  expect(highPassFit(corner, tuning)).toBe(fit)
  expect(HIGH_PASS_WORDS[fit].length).toBeGreaterThan(20)
})
