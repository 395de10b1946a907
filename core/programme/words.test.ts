import { expect, test } from '@jest/globals'
import { clipRow, clipVerdict } from './words'

const row = (overdriveDb: number, highW: number, rated: number | null) =>
  clipRow(overdriveDb, { totalW: 50, highW, cleanHighW: 2, harmonicShare: 0.0514 }, rated)
test('a row says what it comes to, and how much more than clean', () => {
  expect(row(6, 7, 10)).toEqual({ overdriveDb: 6, says: '6 dB over', totalW: '50 W', highW: '7 W', eachW: '7 W', times: '3.5 times', strange: '5.1 %', ofRated: 0.7 })
  expect([row(0, 2, null).says, row(0, 2, null).times, row(0, 2, null).ofRated]).toEqual(['peaks just reach it', '', null])
})
test('of four columns alike each gets a quarter: held against the rating of one', () => {
  const each = clipRow(6, { totalW: 50, highW: 7, cleanHighW: 2, harmonicShare: 0 }, 5, 0.25)
  expect([each.highW, each.eachW, each.ofRated]).toEqual(['7 W', '1.75 W', 0.35])
})
test.each<[string, number | null, number[], RegExp]>([
  ['not stated', null, [2, 3, 7, 9], /not stated: whether it is safe is not known/], ['always less', 10, [2, 3, 7, 10], /stands 10 W: as far as 10 dB over it gets less/],
  ['from 6 dB on', 5, [2, 3, 7, 9], /^From 6 dB over on/], ['without clipping', 1, [2, 3, 7, 9], /without any clipping/],
])('%s', (_, rated, highs, wanted) => expect(clipVerdict(highs.map((w, k) => row([0, 3, 6, 10][k]!, w, rated)), rated)).toMatch(wanted))
