import { expect, test } from '@jest/globals'
import { MOST_CONDUCTORS, signWords, tripsFor, type Pole } from './bareRun'

test('every number of conductors: told apart, both poles on every trip, in as few trips as three answers a trip allow', () => {
  for (let count = 2; count <= MOST_CONDUCTORS; count++) {
    const codes = tripsFor(count)
    const trips = codes[0]!.length
    // Information: 3 answers a trip tell no more than 3^trips apart.
    const distinct = new Set(codes.map(c => c.join())).size
    expect([count, codes.length, distinct, 3 ** trips >= count, 3 ** (trips - 1) < count]).toEqual([count, count, count, true, true])
    for (let trip = 0; trip < trips; trip++) expect([count, trip, (['plus', 'minus'] as Pole[]).every(pole => codes.some(code => code[trip] === pole))]).toEqual([count, trip, true])
  }
})

/** A meter between two conductors at the far end: the sign of the first against the second; nothing where either is open or both are on one pole. */
const meter = (a: Pole, b: Pole): number => a === 'open' || b === 'open' || a === b ? 0 : a === 'plus' ? 1 : -1

test('what the meter shows between them names each: whoever stands at the far end needs no colours', () => {
  for (const count of [2, 3, 4, 8, 9, 10, 27]) {
    const codes = tripsFor(count)
    const found = codes.map((_, k) => codes[0]!.map((_, trip) => {
      const signs = codes.map(other => meter(codes[k]![trip]!, other[trip]!))
      return signs.includes(1) ? 'plus' : signs.includes(-1) ? 'minus' : 'open'
    }))
    expect(found).toEqual(codes)
  }
})

test('a pair is one trip; four pairs are two; what is not a number of conductors is refused', () => {
  expect([tripsFor(2).map(signWords), tripsFor(8)[0]!.length, tripsFor(10)[0]!.length]).toEqual([['plus', 'minus'], 2, 3])
  for (const count of [1, 0, 2.5, MOST_CONDUCTORS + 1]) expect(() => tripsFor(count)).toThrow(RangeError)
})
