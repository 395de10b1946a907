import { expect, test } from '@jest/globals'
import { Records } from '#core/job/records'
import type { Reading } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { levelTaken, levelTyped } from './levelTaken'

test.each<[string, string, string, unknown]>([
  ['plain', '81.5', '', { db: 81.5, headV: null }], ['a comma, with its unit and weighting', '81,5 dB(A)', '24 V', { db: 81.5, headV: 24 }], ['a bare letter', '70 dBC', '0.5', { db: 70, headV: 0.5 }],
  ['a sentence', 'quite loud', '', expect.stringMatching(/between 20 and 150 dB/)], ['nothing', '', '', expect.stringMatching(/between/)], ['more than there is', '180', '', expect.stringMatching(/between/)],
  ['volts that are none', '80', 'loud', expect.stringMatching(/./)],
])('%s', (_, db, volts, wanted) => expect(levelTyped(db, volts)).toEqual(wanted))

test('as the last on that line; another line and one taken back say nothing', () => {
  const job = jobOf('2 x 5 W on 70 V', '2 x 5 W on 70 V')
  const read = (id: string, line: number, headV: number, withdrawn = false): Reading => ({
    id, at: '2026-05-04T09:30:00Z', kind: 'level', outputId: outputOf(job, line).id, nodeId: nodeIds(outputOf(job, line))[0]!, value: { is: 'level', db: 80, weighting: 'C', signal: 'speech-noise', headV }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn,
  })
  const readings = Records.of([read('a', 0, 10), read('b', 0, 20), read('c', 0, 30, true), read('d', 1, 40)])
  expect([levelTaken({ readings }, 'out1'), levelTaken(job, 'out1')]).toEqual([{ weighting: 'C', signal: 'speech-noise', headV: 20 }, { weighting: 'A', signal: 'pink-noise', headV: null }])
})
