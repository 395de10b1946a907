import { expect, test } from '@jest/globals'
import { always } from '#core/testing/runs'
import fc from 'fast-check'
import { quick } from './answer'
import { parseQuick } from './parse'
import { tradeWords } from './tradeWords'

/** As people of the trade write it, and as the grammar has it: one line, one answer. */
test.each([
  ['12 @ 5W on 70V', '12 x 5 W on 70 V'], ['12 speakers at 5 W on 70 V', '12 x 5 W on 70 V'], ['10 units @ 10 w each on 100 v', '10 x 10 W on 100 V'],
  ['8 ohm 100 W rms on 300 W at 8', '8 ohm 100 W on 300 W at 8'], ['8 ohm 100 W continuous on 300 W at 8', '8 ohm 100 W on 300 W at 8'], ['8 on 300 W rms at 8', '8 on 300 W at 8'],
  ['8ohm/100W on 300 W at 8', '8 ohm 100 W on 300 W at 8'], ['100W/8Ω on 300 W at 8', '8 ohm 100 W on 300 W at 8'], ['4 pcs 8 ohm parallel on 300 W at 2', '4 x 8 ohm parallel on 300 W at 2'],
  ['4 of 8 ohm parallel', '4 x 8 ohm parallel'], ['8 ohm and 4 ohm in series', '8 ohm + 4 ohm'], ['8 ohm and 4 ohm in parallel on 300 W at 2', '8 ohm || 4 ohm on 300 W at 2'],
  ['8 ohm with 100 W at 8', '8 ohm on 100 W at 8'], ['8 ohm on 100 VA at 8', '8 ohm on 100 W at 8'], ['10 x 5 W on 70 Vrms 100 W', '10 x 5 W on 70 V 100 W'],
  ['two 8s parallel on 300 W at 4', '2 x 8 parallel on 300 W at 4'], ['8 ‖ 8 on 300 W at 4', '8 || 8 on 300 W at 4'], ['4 columns 8 ohm parallel on 300 W at 2', '4 x 8 ohm parallel on 300 W at 2'],
  ['8 on 300 W at 4 bridgeable', '8 on 300 W at 4'], ['5 W; 10 W on 70 V', '5 W + 10 W on 70 V'],
])('%s is %s', (said, plain) => {
  const of = (text: string) => {
    const { kind, loadOhm, drawW, grade, output, findings } = quick(text).evaluation
    return { kind, loadOhm, drawW, grade, rating: output.rating, codes: findings.map(f => f.code) }
  }
  expect(of(said)).toEqual(of(plain))
})

test.each([
  ['in series with one more', '8 ohm in series with 4 ohm', 12], ['an amplifier at its rated load', '8 @ 100 W at 8', 8], ['a rating with a point', '8 ohm 1.5 W on 100 W at 8', 8],
])('what was said before means the same: %s', (_, text, loadOhm) => expect(quick(text).evaluation.loadOhm).toBe(loadOhm))

test.each([['1.500 W', '8 on 1.500 W at 8', /“1\.500”: 1500, or 1\.5\?/], ['1,500 W', '8 on 1,500 W at 8', /“1,500”: 1500, or 1\.5\?/], ['ohms of three places are no thousands', '8.125', null]] as const)('%s', (_, text, says) => {
  if (says) expect(() => parseQuick(text)).toThrow(says)
  else expect(parseQuick(text).text).toBe(text)
})

test('a line is bounded, and says so', () => expect(() => parseQuick(`8${' || 8'.repeat(200)}`)).toThrow(/longer than 600 characters/))

test('whatever is typed stays as long as it was', () => {
  const word = fc.constantFrom('8', '100', ' ', 'w', 'ohm', 'at', '@', 'on', 'with', 'and', 'in series', 'rms', '/', 'pcs', 'of', 's', 'columns', ';', 'va', 'vrms', '70', 'v', 'x')
  always(fc.property(fc.array(word, { maxLength: 14 }), words => tradeWords(words.join(' ')).length === words.join(' ').length), 400)
})
