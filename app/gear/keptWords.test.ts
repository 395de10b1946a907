import { expect, test } from '@jest/globals'
import { keptWords } from './keptWords'

test.each([
  [0, true, null, 'saved'],
  [1, false, null, 'saving…'],
  [1, false, 0.428, 'saving… 42 % sent'],
  [1, false, 1, 'saving… sent, being written'],
  [3, true, null, 'server away: 3 kept here to send'],
])('%d waiting, away %s, %s sent: %s', (waiting, isAway, sentPart, says) => {
  expect(keptWords({ waiting, isAway, isStorageFull: false, sentPart })).toBe(says)
  expect(keptWords({ waiting, isAway, isStorageFull: true, sentPart }).startsWith(says)).toBe(true)
  expect(keptWords({ waiting, isAway, isStorageFull: true, sentPart }).includes('only until this page is left')).toBe(waiting > 0)
})
