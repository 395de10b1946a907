import { expect, test } from '@jest/globals'
import { jobOf, outputOf } from '#core/testing/jobs'
import { speakersOf } from '#core/job/tree'
import { applyEdit } from '#core/job/apply'
import { removeEach, setEach } from '#core/hands/many/many'
import { allAlike, held, inOrder, NONE, stillThere, toggled, upTo, type Choice } from './choice'

const order = ['a', 'b', 'c', 'd']
const one = (nodeId: string | null, anchorId = nodeId): Choice => ({ nodeId, anchorId, chosen: NONE })
const drawn = ({ nodeId, anchorId, chosen }: Choice) => `${nodeId} from ${anchorId}: ${[...chosen].join('')}`

test.each<[string, Choice, string]>([
  ['up to one on the right', upTo(order, one('b'), 'd'), 'd from b: bcd'], ['and back past where it began', upTo(order, upTo(order, one('b'), 'd'), 'a'), 'a from b: ab'],
  ['up to itself is one alone', upTo(order, one('b'), 'b'), 'b from b: '], ['with nothing looked at', upTo(order, one(null), 'c'), 'c from c: '],
  ['from another rail: that one alone', upTo(order, one('z'), 'c'), 'c from c: '], ['what is not on the rail', upTo(order, one('b'), 'z'), 'z from z: '],
  ['one more', toggled(one('b'), 'd'), 'd from d: bd'], ['and one less: the other alone', toggled(toggled(one('b'), 'd'), 'd'), 'b from b: '],
  ['one less of three', toggled(upTo(order, one('a'), 'c'), 'b'), 'c from c: ac'], ['the only one stays', toggled(one('b'), 'b'), 'b from b: '], ['the first', toggled(one(null), 'c'), 'c from c: '],
])('%s', (_, choice, wanted) => expect(drawn(choice)).toBe(wanted))

test('in wiring order, whatever order they were chosen in; what is gone is no longer chosen', () => {
  const job = jobOf('4 x 5 W on 70 V', '2 x 8 parallel')
  const [a, b] = speakersOf(outputOf(job).wiring).map(s => s.id) as [string, string]
  const [other] = speakersOf(outputOf(job, 1).wiring).map(s => s.id) as [string]
  const chosen = held([other, b, a])
  expect(inOrder(job, chosen)).toEqual([a, b, other])
  expect(stillThere(job, chosen)).toBe(chosen)
  expect(stillThere(job, NONE)).toBe(NONE)
  expect([...stillThere(applyEdit(job, removeEach(job, [b]).edit!).job, chosen)]).toEqual([a, other])
  expect(stillThere(applyEdit(job, removeEach(job, [a, b]).edit!).job, chosen).size).toBe(0)
})

test('alike in everything, by tap, by name; on one rail or on all', () => {
  const plain = jobOf('2 x 5 W on 70 V', '5 W + 10 W on 70 V')
  const [a, b] = speakersOf(outputOf(plain).wiring).map(s => s.id) as [string, string]
  const [c, d] = speakersOf(outputOf(plain, 1).wiring).map(s => s.id) as [string, string]
  const job = applyEdit(plain, setEach(plain, [a, d], { name: 'Horn' }).edit!).job
  const like = speakersOf(outputOf(job).wiring)[0]!
  expect([allAlike(job, like, 'all', null), allAlike(job, like, 'tap', null), allAlike(job, like, 'tap', 'out1'), allAlike(job, like, 'name', null)]).toEqual([[a], [a, b, c], [a, b], [a, d]])
  const rated = applyEdit(plain, setEach(plain, [a], { continuousW: 30 }).edit!).job
  expect(allAlike(rated, speakersOf(outputOf(rated).wiring)[1]!, 'all', 'out1')).toEqual([b])
  const driven = applyEdit(plain, setEach(plain, [a], { driverOhm: 8 }).edit!).job
  expect(allAlike(driven, speakersOf(outputOf(driven).wiring)[1]!, 'all', 'out1')).toEqual([b])
})
