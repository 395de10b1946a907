import { expect, test } from '@jest/globals'
import { findWirings, type Wirings } from './finder'
import { readUnits } from './readUnits'
import { overRated, powerText, wiringsWords } from './words'

const RATING = { kind: 'solid-state' as const, points: [{ loadOhm: 8, powerW: 180 }, { loadOhm: 4, powerW: 300 }], floorOhm: 4, mode: 'single' as const, bridgedFloorOhm: null }
const find = (text: string, isFair: boolean) => findWirings({ units: readUnits(text), rating: RATING, isFair }) as Wirings
test.each<[string, string, string]>([
  ['four alike', wiringsWords(find('4 x 8', true)), '10 different wirings; in 6 the power falls otherwise; 1 is too low a load. What is left, the simplest first:'],
  ['two of which none is left', wiringsWords(find('2 x 1', true)), '2 different wirings; 2 are too low a load. None is left.'],
  ['sixteen', wiringsWords(find('16 x 8', true)), '4507352 different wirings; 5 are too low a load. Of so many only those of equal groups are gone through. What is left, the simplest first:'],
  ['eight that differ', wiringsWords(find('4, 5, 6, 7, 8, 9', false)).replace(/\d+ are/, 'so many are'), '5504 different wirings; many are too low a load. The 200 simplest of what is left:'],
  ['even', powerText({ powerW: [45, 45], amplifierW: 90 }), '45 W each'], ['one', powerText({ powerW: [90], amplifierW: 90 }), '90 W'], ['uneven', powerText({ powerW: [30, 60], amplifierW: 90 }), '30 to 60 W'],
  ['no output', powerText({ powerW: [0.2, 0.8], amplifierW: null }), 'the most gets 4 times the least'], ['no output, even', powerText({ powerW: [0.5, 0.5], amplifierW: null }), 'all the same'],
])('%s', (_, said, wanted) => expect(said).toBe(wanted))
test('who gets more than is stated', () => {
  expect([overRated({ powerW: [45, 45, 45], amplifierW: 135 }, [40, null, 45]), overRated({ powerW: [0.5], amplifierW: null }, [0.1])]).toEqual([1, 0])
})
