import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { findSpeaker, speakersOf } from '#core/job/tree'
import { jobOf, outputOf } from '#core/testing/jobs'
import { checkKey, proveLine } from './proof'
import { predictLine } from './predict'
import { driverAsRead, labelThatReads } from './driverAsRead'

// A 4 Ω coil reads 3 to 3.6, an 8 Ω one 5.5 to 7.2, a 16 Ω one 11 to 14: common practice, no source.
test.each<[number, number | null]>([[3.2, 4], [3.6, 4], [6.4, 8], [7.2, 8], [13, 16], [1.5, 2], [5.5, null], [4.5, 6], [0.4, null], [40, null], [3.7, null], [28, 32], [22.45, null], [22.3, 25], [22.6, 32]])('a coil of %d Ω is labelled %j', (ohm, label) =>
  expect(labelThatReads(ohm)).toBe(label))

const line = '5 W on 70 V'
const read = (text: string, ohm: number | 'open', driverOhm: number | null) => {
  const plain = jobOf(text)
  const { id, load } = speakersOf(outputOf(plain).wiring)[0]!
  const edits: Edit[] = [
    ...load.kind === 'tap' && driverOhm !== null ? [{ kind: 'speaker.set' as const, nodeId: id, was: { driverOhm: null }, to: { driverOhm } }] : [],
    { kind: 'reading.add', reading: { id: 'r', at: '2026-05-04T09:00:00Z', kind: 'coil-dcr', outputId: 'out1', nodeId: id, value: ohm === 'open' ? { is: 'open' } : { is: 'ohm', ohm }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false } },
  ]
  const job = edits.reduce((j, e) => applyEdit(j, e).job, plain)
  const output = outputOf(job)
  const proof = proveLine(job, output, predictLine(output))
  const found = driverAsRead(findSpeaker(job, id)!.speaker, proof.standing.get(checkKey('coil-dcr', id)) ?? null)
  if (!found) return null
  const { speaker } = findSpeaker(applyEdit(job, found.edit).job, id)!
  return [found.labelOhm, speaker.load.kind === 'tap' ? speaker.driverOhm : speaker.load.kind === 'nominal' ? speaker.load.nominalOhm : speaker.load.kind]
}
test.each<[string, number | 'open', number | null, number[] | null]>([
  ['8', 3.2, null, [4, 4]], ['8', 6.4, null, null], ['8', 'open', null, null], ['8', 40, null, null], [line, 13, 8, [16, 16]], [line, 6.4, 8, null], [line, 3.2, null, [4, 4]],
])('“%s” whose coil reads %s where a driver of %s is drawn', (text, ohm, driver, expected) => expect(read(text, ohm, driver)).toEqual(expected))

/** Readings that say nothing of another driver. 3.2 Ω is what a coil of 4 Ω reads. */
const speaker = speakersOf(outputOf(jobOf('8')).wiring)[0]!
const seen = (kind: string, grade: string, value: object) => ({ reading: { kind, value }, verdict: { grade } }) as never
const wrong = seen('coil-dcr', 'stop', { is: 'ohm', ohm: 3.2 })
const four = { kind: 'nominal' as const, nominalOhm: 4 }
test.each<[string, typeof speaker, never | null, number | null]>([
  ['read wrong', speaker, wrong, 4], ['not read', speaker, null, null], ['read right', speaker, seen('coil-dcr', 'good', { is: 'ohm', ohm: 3.2 }), null], ['of the line', speaker, seen('line-impedance', 'stop', { is: 'ohm', ohm: 3.2 }), null],
  ['of the ear', speaker, seen('sound', 'stop', { is: 'silent' }), null],
  ['drawn so already', { ...speaker, load: four }, wrong, null],
  ['of several members', { ...speaker, load: { kind: 'members', joined: 'series', members: [four, four] } }, wrong, null],
  ['a tap whose driver is that', { ...speaker, load: { kind: 'tap', tapW: 5, ratedV: 70, tapsW: [5], insertionDb: null, tapMeans: null }, driverOhm: 4 }, wrong, null],
  ['a tap with another', { ...speaker, load: { kind: 'tap', tapW: 5, ratedV: 70, tapsW: [5], insertionDb: null, tapMeans: null }, driverOhm: 8 }, wrong, 4],
])('a speaker %s', (_, which, standing, labelOhm) => expect(driverAsRead(which, standing)?.labelOhm ?? null).toBe(labelOhm))
