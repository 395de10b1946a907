import { expect, test } from '@jest/globals'
import { everyEdit } from '#core/testing/everyEdit'
import { jobOf } from '#core/testing/jobs'
import { applyEdit } from './apply'
import type { Edit } from './edits'
import { historyWords } from './historyWords'
import type { Job } from './schema'
import { plainSpace } from './sections/spaces/schema'
import { speakersOf, outputsOf } from './tree'

const start: Job = { ...jobOf('4 x 5 W on 70 V 60 W', '8 + 8 on 100 W at 4'), spaces: [{ ...plainSpace('dining', 'Dining'), heightM: 3 }], zones: [{ id: 'z', name: 'Bar' }] }
const [a1] = outputsOf(start)
const ids = speakersOf(a1!.wiring).map(s => s.id)
const tap = (nodeId: string, was: number, to: number): Edit => {
  const { load } = speakersOf(a1!.wiring).find(s => s.id === nodeId)!
  return { kind: 'speaker.set', nodeId, was: { load: { ...load, tapW: was } as never }, to: { load: { ...load, tapW: to } as never } }
}
const batch = (...edits: Edit[]): Edit => ({ kind: 'batch', edits } as Edit)
const space = (was: object, to: object): Edit => ({ kind: 'space.set', spaceId: 'dining', was, to } as Edit)
const cable = { awg: 16 as const }

const rows: [string, Edit, string][] = [
  ['a figure with its unit', space({ heightM: 3 }, { heightM: 3.2 }), 'Dining: height 3 m → 3.2 m'],
  ['two fields', space({ heightM: 3, noiseDb: null }, { heightM: 4, noiseDb: 60 }), 'Dining: height 3 m → 4 m, noise not stated → 60 dB'],
  ['four fields', space({ heightM: 3, noiseDb: null, earsM: 1, rackM: 0 }, { heightM: 4, noiseDb: 60, earsM: 2, rackM: 5 }), 'Dining: height 3 m → 4 m, noise not stated → 60 dB, height of ears 1 m → 2 m, 1 more'],
  ['one of a list of words', space({ use: 'quiet-background' }, { use: 'lively-background' }), 'Dining: use quiet background → lively background'],
  ['typed words stand as they are', space({ name: 'A-B' }, { name: 'Dining-room' }), 'Dining: name “A-B” → “Dining-room”'],
  ['what has no few words', space({ outline: [] }, { outline: [1] }), 'Dining: floor changed'],
  ['another id says nothing', space({ kindId: 'a' }, { kindId: 'b' }), 'Dining: kind changed'],
  ['a tap', tap(ids[1]!, 5, 10), 'A1 02: tap or impedance 5 W → 10 W'],
  ['the same words of it', tap(ids[1]!, 5, 5), 'A1 02: tap or impedance changed'],
  ['several, alike', batch(tap(ids[0]!, 5, 10), tap(ids[1]!, 5, 10)), 'A1 01, A1 02: tap or impedance 5 W → 10 W'],
  ['several, from different', batch(tap(ids[0]!, 5, 10), tap(ids[1]!, 2.5, 10)), 'A1 01, A1 02: tap or impedance → 10 W'],
  ['several, to different', batch(tap(ids[0]!, 5, 10), tap(ids[1]!, 5, 20)), 'A1 01, A1 02: tap or impedance changed'],
  ['many are counted', batch(...ids.map(id => tap(id, 5, 10))), '4 speakers: tap or impedance 5 W → 10 W'],
  ['a cable', { kind: 'lead.set', nodeId: ids[0]!, was: null, to: { cable, lengthM: 6 } }, 'A1 01: lead not stated → 6 m of 16 AWG'],
  ['units of the job', { kind: 'job.set', was: { units: null }, to: { units: 'imperial' } }, 'job details: units not stated → imperial'],
  ['the amplifier', { kind: 'output.set', outputId: 'out1', was: { limiterV: null }, to: { limiterV: 40 } }, 'A1: limiter not stated → 40 V'],
  ['added', { kind: 'zone.add', index: 0, zone: { id: 'y', name: 'Yard' } }, 'zone made: Yard'],
  ['taken away, by what it was', { kind: 'space.remove', spaceId: 'gone', was: plainSpace('gone', 'Cellar') }, 'space removed: Cellar'],
  ['moved', { kind: 'node.move', nodeId: ids[2]!, parentId: 'x', index: 0 }, 'speaker moved: A1 03'],
  ['a place', { kind: 'spot.set', spaceId: 'dining', spotId: 's', was: { xM: 1, yM: 1 }, to: { xM: 2, yM: 1 } }, 'place moved: Dining'],
  ['a thing that is gone', { kind: 'speaker.set', nodeId: 'gone', was: { label: 'a' }, to: { label: 'b' } }, '1 speaker: label “a” → “b”'],
  ['of several kinds the one that leads', batch({ kind: 'kind.add', index: 0, item: { what: 'speaker', id: 'k', from: null, model: { name: 'Pendant' } } } as never, tap(ids[0]!, 5, 10)), 'kind made: Pendant'],
  ['what none leads', batch({ kind: 'output.set', outputId: 'out1', was: {}, to: {} }, { kind: 'amplifier.set', amplifierId: 'amp', was: {}, to: {} }), 'change'],
]
test.each(rows)('%s', (_, edit, says) => expect(historyWords(edit, start)).toBe(says))

test('what a section says of several together says more than one of them would', () => {
  const [amplifier] = start.amplifiers
  const edit = batch({ kind: 'amplifier.remove', amplifierId: 'amp', was: amplifier! }, { kind: 'amplifier.add', index: 0, amplifier: amplifier! })
  expect(historyWords(edit, start)).toBe('wired as another variant')
})

test('lengths as a person reads them; without the job, in short', () => {
  const higher = space({ heightM: 3 }, { heightM: 3.2 })
  expect([historyWords(higher, start, 'imperial'), historyWords(higher, { ...start, units: 'imperial' }), historyWords(higher, { ...start, units: 'imperial' }, 'metric'), historyWords(higher, null)])
    .toEqual(['Dining: height 9.84 ft → 10.5 ft', 'Dining: height 9.84 ft → 10.5 ft', 'Dining: height 3 m → 3.2 m', '1 space: height 3 m → 3.2 m'])
})

test('every kind of edit is called by what it is about, and nothing stands there as code', () => {
  let job = jobOf('3 x 5 W on 70 V 60 W', '8 + 8 on 100 W at 4')
  const said = everyEdit(job).map((edit) => {
    const words = historyWords(edit, job)
    job = applyEdit(job, edit).job
    return words
  })
  for (const words of said) expect(words).not.toMatch(/undefined|null|NaN|\[object|every-(?!amp)/)
  expect(said.filter(words => words.includes(':')).length).toBeGreaterThan(20)
  expect(said).toEqual(expect.arrayContaining([
    'job details: note not stated → “an edit of every kind”', 'rule of practice: rule for valve outputs match exactly → up is safe', 'N--out: rating not known → 100 W at 70.71 V',
    'N--out a group: control or transformer none → C9', 'reading: A1 N1', 'speaker removed: A1 C9', 'output removed: N--out',
  ]))
})
