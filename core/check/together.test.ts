import { describe, expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import type { Job, Reading, ReadingValue } from '#core/job/schema'
import { jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { howFacts, type PolarityHow } from '#core/job/sections/readings/hows'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { agree, disagreementsOn } from './disagree'
import { roomsToWalk, sharedRooms } from './sharing'
import { roomsOf, walkOfJob } from './walkOrder'

/** Several people on one job: who contradict each other, and who goes where. What counts as a contradiction: common practice, no source. */

const plan = jobOf('4 x 5 W on 70 V 60 W')
const ids = nodeIds(outputOf(plan))
let count = 0
const reading = (who: string | null, value: ReadingValue, more: Partial<Reading> = {}): Reading => ({
  id: `r${count++}`, at: `2026-05-04T09:00:${String(count % 60).padStart(2, '0')}Z`, kind: 'how' in value ? howFacts(value.how).kind : value.is === 'ohm' || value.is === 'open' ? 'coil-dcr' : value.is === 'tap' ? 'tap-found' : 'sound',
  outputId: 'out1', nodeId: ids[1]!, value, note: '', frequencyHz: null, supersedes: null, taken: null, who, withdrawn: false, ...more,
})
const read = (job: Job, ...all: Reading[]) => all.reduce((j, r) => applyEdit(j, { kind: 'reading.add', reading: r }).job, job)
const ohm = (n: number): ReadingValue => ({ is: 'ohm', ohm: n })
const turned = (is: 'right-way' | 'reversed' | 'cannot-tell', how: PolarityHow = 'battery-run', against: string | null = null): ReadingValue => ({ is, how, against })
const found = (job: Job) => disagreementsOn(job, outputOf(job)).map(d => [d.earlier.who, d.later.who, d.nodeId])

describe('what two can both have read of one thing', () => {
  test.each<[string, ReadingValue, ReadingValue, boolean]>([
    ['leads of half an ohm', ohm(5.6), ohm(6.1), true], ['a tenth and half an ohm', ohm(100), ohm(111.6), true], ['more than that', ohm(100), ohm(111.8), false], ['far apart at a small coil', ohm(3.2), ohm(4.2), false],
    ['nothing and half an ohm', ohm(0), ohm(0.5), true], ['open, and ohms', { is: 'open' }, ohm(6), false], ['open twice', { is: 'open' }, { is: 'open' }, true],
    ['one way round, and the other', turned('right-way'), turned('reversed'), false], ['one could not tell', turned('right-way'), turned('cannot-tell'), true],
    ['plays, silent', { is: 'plays' }, { is: 'silent' }, false], ['plays, scratchy', { is: 'plays' }, { is: 'scratchy' }, false],
    ['another tap', { is: 'tap', tapW: 5, ratedV: 70.7 }, { is: 'tap', tapW: 10, ratedV: 70.7 }, false], ['another scale', { is: 'tap', tapW: 5, ratedV: 70.7 }, { is: 'tap', tapW: 5, ratedV: 100 }, false],
    ['70 and 70.7 V', { is: 'tap', tapW: 5, ratedV: 70 }, { is: 'tap', tapW: 5, ratedV: 70.7 }, true], ['off is off on any scale', { is: 'tap', tapW: 0, ratedV: 70 }, { is: 'tap', tapW: 0, ratedV: 100 }, true],
    ['levels of two moments', { is: 'level', db: 70, weighting: 'A', signal: 'pink-noise', headV: null }, { is: 'level', db: 90, weighting: 'A', signal: 'pink-noise', headV: null }, true],
  ])('%s', (_, a, b, both) => expect([agree(a, b), agree(b, a)]).toEqual([both, both]))
})

describe('who disagree', () => {
  const [anna, ben] = [reading('anna', ohm(6)), reading('ben', { is: 'open' })]
  const repair = { id: 'fix', at: '2026-05-04T12:00:00Z', outputId: 'out1', nodeId: ids[1]!, fault: 'open-at-drop' as const, note: '', who: null, withdrawn: false }
  test.each<[string, Job, unknown[]]>([
    ['two people', read(plan, anna, ben), [['anna', 'ben', ids[1]]]], ['one person who read twice: he saw it change', read(plan, anna, { ...ben, who: 'anna' }), []],
    ['the desk is a person, too', read(plan, { ...anna, who: null }, ben), [[null, 'ben', ids[1]]]], ['at two speakers', read(plan, anna, { ...ben, nodeId: ids[2]! }), []],
    ['one took his back', applyEdit(read(plan, anna, ben), { kind: 'reading.withdraw', readingId: ben.id, withdrawn: true } as never).job, []],
    ['one says that his was wrong', read(plan, anna, ben, reading('ben', ohm(6.1), { supersedes: ben.id })), []],
    ['one read once more and agrees', read(plan, anna, ben, reading('ben', ohm(5.9))), []], ['a third decides nothing: two still contradict', read(plan, anna, ben, reading('cid', ohm(6))), [['ben', 'cid', ids[1]]]],
    ['repaired in between', read(applyEdit(read(plan, anna), { kind: 'repair.add', repair }).job, { ...ben, at: '2026-05-04T12:30:00Z' }), []],
    ['which way round, by two ways through the whole run', read(plan, reading('anna', turned('right-way')), reading('ben', turned('reversed', 'pulse'))), [['anna', 'ben', ids[1]]]],
    ['the unit alone: it says nothing of the run', read(plan, reading('anna', turned('right-way', 'battery-driver')), reading('ben', turned('reversed'))), []],
    ['the unit alone, by two', read(plan, reading('anna', turned('right-way', 'battery-driver')), reading('ben', turned('reversed', 'battery-driver'))), [['anna', 'ben', ids[1]]]],
    ['beside two neighbours, which may differ', read(plan, reading('anna', turned('right-way', 'ear', ids[0])), reading('ben', turned('reversed', 'ear', ids[2]))), []],
    ['beside one neighbour', read(plan, reading('anna', turned('right-way', 'ear', ids[0])), reading('ben', turned('reversed', 'neighbour', ids[0]))), [['anna', 'ben', ids[1]]]],
    ['an impedance at two tones', read(plan, reading('anna', ohm(80), { kind: 'line-impedance', nodeId: null, frequencyHz: 330 }), reading('ben', ohm(50), { kind: 'line-impedance', nodeId: null, frequencyHz: 1000 })), []],
  ])('%s', (_, job, said) => expect(found(job)).toEqual(said))
})

describe('a walk that is shared out', () => {
  const spot = (k: number) => ({ id: `s${k}`, xM: 1, yM: 1, heightM: null, aim: null, nodeId: ids[k]! })
  const spaces = [{ ...plainSpace('hall', 'Hall'), spots: [spot(0), spot(1)] }, { ...plainSpace('bar', 'Bar'), spots: [spot(2)] }]
  const job = (shares: [string, string | null][]): Job => ({ ...plan, spaces, shares: shares.map(([roomId, who]) => ({ roomId, who, name: who ?? 'the desk' })) })
  const goes = (shares: [string, string | null][], who: string | null, done: string[] = []) => {
    const of = job(shares)
    return roomsToWalk(sharedRooms(of, roomsOf(of, walkOfJob(of, 'room')), who), room => !done.includes(room.id)).map(r => r.id)
  }
  const ALL = ['at-the-rack', 'hall', 'bar', 'in-no-room']
  test.each<[string, [string, string | null][], string | null, string[], string[]]>([
    ['with nobody: everywhere', [], 'anna', [], ALL], ['one’s own rooms first', [['hall', 'anna']], 'anna', [], ['hall']],
    ['one’s own are done: what is nobody’s', [['hall', 'anna'], ['bar', 'ben']], 'anna', ['hall'], ['at-the-rack', 'hall', 'in-no-room']],
    ['never into another’s', [['hall', 'ben']], 'anna', [], ['at-the-rack', 'bar', 'in-no-room']], ['the desk has its own', [['at-the-rack', null]], null, [], ['at-the-rack']],
    ['what is the desk’s is nobody else’s', [['at-the-rack', null]], 'anna', [], ['hall', 'bar', 'in-no-room']],
  ])('%s', (_, shares, who, done, rooms) => expect(goes(shares, who, done)).toEqual(rooms))

  const give = (of: Job, was: string | null, to: string | null) => {
    const sharer = (who: string | null) => ({ sharer: who === null ? null : { who, name: who } })
    return applyEdit(of, { kind: 'share.set', roomId: 'hall', was: sharer(was), to: sharer(to) })
  }
  test('a room that another took meanwhile is told by who; two rooms are taken at once by two; taking back undoes it', () => {
    const taken = give(job([['bar', 'ben']]), null, 'anna')
    expect(taken.job.shares).toEqual([{ roomId: 'bar', who: 'ben', name: 'ben' }, { roomId: 'hall', who: 'anna', name: 'anna' }])
    expect(applyEdit(taken.job, taken.inverse).job.shares).toEqual([{ roomId: 'bar', who: 'ben', name: 'ben' }])
    expect(() => give(taken.job, null, 'ben')).toThrow(expect.objectContaining({ refusal: expect.objectContaining({ code: 'changed-meanwhile', now: { who: 'anna', name: 'anna' } }) }))
  })
})
