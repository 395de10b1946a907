import { expect, test } from '@jest/globals'
import { findWirings, type Wirings } from './finder'
import { readUnits } from './readUnits'
import { powerSchool, type PowerSchoolId } from '#core/schools/power'
import { overRated, powerText, refusedWords, wiringsWords } from './words'

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
test('who gets more than the chosen school lets them: where the sheet says so, too', () => {
  const over = (powerW: number[], ratings: (number | null)[], school: PowerSchoolId) => overRated({ powerW, amplifierW: 100 }, ratings, powerSchool(school))
  // Twice continuous and a tenth beside it; dense material as much as it stands.
  expect([over([88, 88, 89], [40, null, 40], 'twice-continuous'), over([44, 45], [40, 40], 'dense-material'), overRated({ powerW: [0.5], amplifierW: null }, [0.1], powerSchool('careful'))]).toEqual([1, 1, 0])
})
test('a load above every tap is not too low, it matches none', () => {
  const valve = { kind: 'valve' as const, powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: null }
  const { refused } = findWirings({ units: readUnits('4 x 8'), rating: valve, isFair: false }) as Wirings
  expect([refusedWords(refused), refused.filter(r => r.isTooLow).map(r => r.loadOhm)]).toEqual(['2 are too low a load; 6 match none of its taps', expect.arrayContaining([2, 3.2])])
})
