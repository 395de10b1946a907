import { expect, test } from '@jest/globals'
import type { Kept } from './keptEdit'
import { isQueue, readQueue, writeQueue } from './queueFile'

const kept = (id: string): Kept => ({
  jobId: 'j', jobName: 'Hall', at: 1, refused: null,
  stamped: { id, by: 'w', who: null, undoes: null, edit: { kind: 'job.set', was: { name: 'Hall' }, to: { name: id } } },
})

test('what waits goes out and comes in as it was, its photos too', () => {
  const text = writeQueue([kept('a'), kept('b')], ['{"jobId":"j"}'])
  expect([isQueue(text), readQueue(text)]).toEqual([true, { kept: [kept('a'), kept('b')], photos: ['{"jobId":"j"}'] }])
})

test.each<[string, string, RegExp]>([
  ['another file', '{"format":"plain-match job"}', /no file of what waited/], ['cut off', writeQueue([kept('a')], []).slice(0, -9), /cut off/],
  ['an edit of tomorrow', writeQueue([kept('a'), kept('b')], []).replace('\\"name\\":\\"b\\"', '\\"tomorrow\\":1'), /Edit no\. 2 in it cannot be read/],
  ['edits that are none', '{"format":"plain-match queue","edits":["x"]}', /no file of what waited/],
])('%s is refused whole, with the reason', (_, text, says) => expect(() => readQueue(text)).toThrow(says))

test('a job is not taken for it', () => expect(isQueue('{"format":"plain-match job","version":16}')).toBe(false))
