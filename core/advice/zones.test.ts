import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Edit } from '#core/job/edits'
import { readJob } from '#core/job/readJob'
import { toDocument } from '#core/job/document'
import { EditRefused } from '#core/job/refusal'
import type { Job } from '#core/job/schema'
import { hang } from '#core/hands/many/many'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { allSpeakers, branchesOf } from '#core/job/tree'
import { editWords, refusalWords } from '#core/job/words'
import { giveZone, makeZone, removeZone, speakersOfZone, zoneOf } from '#core/hands/zones'
import { counter, jobOf, outputOf } from '#core/testing/jobs'
import { evaluateJob } from '#core/line/evaluate'
import { zoneFacts, zoneWays } from './zones'

const job = jobOf('4 x 10 W on 70 V 100 W', '2 x 5 W on 70 V 100 W', '8 + 8')
const ids = allSpeakers(job).map(s => s.id)
const done = (on: Job, edit: Edit | null) => applyEdit(on, edit!).job
const zoned = (which: number[], on = job, id = 'z') => done(on, makeZone(on, which.map(k => ids[k]!), `zone ${id}`, () => id))
const controlled = (on: Job, which: number[], label = 'C1') => done(on, (putBefore(on, which.map(k => ids[k]!), unknownControl(label), counter(label)) as { edit: Edit }).edit)

test('made, given, taken out of, given up; one undo each; kept in a file; removed only when nobody is in it', () => {
  const one = zoned([0, 1, 4])
  expect([speakersOfZone(one, 'z').map(s => s.id), zoneOf(one, allSpeakers(one)[0]!)!.name, zoneOf(one, allSpeakers(one)[2]!)]).toEqual([[ids[0], ids[1], ids[4]], 'zone z', null])
  expect(readJob(toDocument(one))).toEqual(one)
  const made = applyEdit(job, makeZone(job, [ids[0]!], 'x', () => 'z')!)
  expect([applyEdit(made.job, made.inverse).job, editWords(made.job.zones.length > 0 ? makeZone(job, [ids[0]!], 'x', () => 'z')! : made.inverse)]).toEqual([job, 'zone made'])
  expect([giveZone(one, [ids[0]!], 'z'), makeZone(job, ['gone'], 'x', counter('q')), removeZone(job, 'z')]).toEqual([null, null, null])
  expect(speakersOfZone(done(one, giveZone(one, [ids[0]!, ids[2]!], null)), 'z').map(s => s.id)).toEqual([ids[1], ids[4]])
  const gone = applyEdit(one, removeZone(one, 'z')!)
  expect([gone.job.zones, speakersOfZone(gone.job, 'z'), applyEdit(gone.job, gone.inverse).job]).toEqual([[], [], one])
  const named = applyEdit(one, { kind: 'zone.set', zoneId: 'z', was: { name: 'zone z' }, to: { name: 'Shop' } })
  expect([named.job.zones[0]!.name, applyEdit(named.job, named.inverse).job]).toEqual(['Shop', one])
  for (const [edit, says] of [
    [{ kind: 'zone.remove', zoneId: 'z', was: null }, /3 speakers are in the zone/], [{ kind: 'zone.remove', zoneId: 'y', was: null }, /zone is no longer there/],
    [{ kind: 'zone.add', index: 0, zone: { id: 'z', name: 'twice' } }, /already there/], [{ kind: 'zone.set', zoneId: 'z', was: { name: 'other' }, to: { name: 'x' } }, /was changed in another window/],
  ] as [Edit, RegExp][]) {
    try {
      applyEdit(one, edit)
      throw new Error('was taken')
    }
    catch (error) {
      expect(error).toBeInstanceOf(EditRefused)
      expect(refusalWords((error as EditRefused).refusal)).toMatch(says)
    }
  }
})

test('a copy stays in its zone; in a job without it, it is in none', () => {
  const one = zoned([0])
  const [branch] = branchesOf(outputOf(one).wiring)
  const zoneOfCopy = (on: Job) => { const { edit, nodeIds } = hang(on, [branch!], { outputId: 'out2' }, counter('n')); return allSpeakers(done(on, edit)).find(s => s.id === nodeIds[0])!.zoneId }
  expect([zoneOfCopy(one), zoneOfCopy(job)]).toEqual(['z', null])
})

const means = (on: Job) => zoneFacts(on, evaluateJob(on)).map(({ means: m, outputs, drawW, speakers }) => `${m.kind}${m.kind === 'taps' ? '' : ` ${m.labels.join(' ')}`}; ${speakers.length} on ${outputs.join(' ')}, ${drawW} W`)
test.each<[string, Job, string[]]>([
  ['a part of a rail has its taps', zoned([0, 1]), ['taps; 2 on A1, 20 W']],
  ['all of a rail has its output', zoned([0, 1, 2, 3]), ['output A1; 4 on A1, 40 W']],
  ['all of two rails', zoned([0, 1, 2, 3, 4, 5]), ['output A1 A2; 6 on A1 A2, 50 W']],
  ['all of one rail and a part of another', zoned([0, 1, 2, 3, 4]), ['taps; 5 on A1 A2, 45 W']],
  ['behind a control of its own', controlled(zoned([0, 1]), [0, 1]), ['control C1; 2 on A1, 20 W']],
  ['behind one that others hang behind too', controlled(zoned([0, 1]), [0, 1, 2]), ['taps; 2 on A1, 20 W']],
  ['behind two', controlled(controlled(zoned([0, 3]), [0]), [3], 'C2'), ['control C1 C2; 2 on A1, 20 W']],
  ['one of it not behind it', controlled(zoned([0, 1, 3]), [0, 1]), ['taps; 3 on A1, 30 W']],
  ['plain speakers have no taps to add up', zoned([6, 7]), ['output A3; 2 on A3, null W']],
  ['nobody in it', done(zoned([0]), giveZone(zoned([0]), [ids[0]!], null)), ['taps; 0 on , 0 W']],
])('%s', (_, on, wanted) => expect(means(on)).toEqual(wanted))

test('the three ways for this job: what each needs, how many parts, what stays adjustable', () => {
  const short = (n: number) => Number(n.toFixed(2))
  const ways = (on: Job) => {
    const lines = evaluateJob(on)
    return zoneWays(on, lines, zoneFacts(on, lines)[0]!)
      .map(w => [w.kind, w.has, w.needsW?.map(short) ?? null, w.parts, w.stepsDb && [w.stepsDb.down, w.stepsDb.up].map(short)])
  }
  // 30 W by four fifths want 37.5 W; 10 W taps down to 1.25 W are 9.03 dB, up to 30 W 4.77 dB.
  expect(ways(zoned([0, 1, 3]))).toEqual([['output', false, [37.5], 1, null], ['control', false, [20, 10], 2, null], ['taps', true, null, 0, [9.03, 4.77]]])
  expect(ways(controlled(zoned([4, 5]), [4, 5]))).toEqual([['output', false, [12.5], 1, null], ['control', true, [10], 1, null], ['taps', false, null, 0, [6.02, 7.78]]])
  expect(ways(zoned([6, 7]))).toEqual([['output', true, null, 1, null], ['control', false, null, 1, null], ['taps', false, null, 0, null]])
})
