import { describe, expect, test } from '@jest/globals'
import fc from 'fast-check'
import { applyEdit } from '#core/job/apply'
import { together, type Edit } from '#core/job/edits'
import { Records } from '#core/job/records'
import type { Job, Reading, Turn } from '#core/job/schema'
import { outputsOf, speakersOf } from '#core/job/tree'
import { isGroup } from '#core/network/tree'
import type { Group } from '#core/job/sections/wiring/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { joinWithNext } from '#core/hands/intents'
import { crossAt, likeLine, namePair, readPair, runsOn, saySplice, spliceAt } from '#core/hands/splices'
import { counter, jobOf, nodeIds, outputOf } from '#core/testing/jobs'
import { leftSo, stateCoils, swapped } from './correct'
import { plusFirst, plusOf } from './plus'
import { polarityOf, type PolarityReport } from './report'
import { polarityReport } from './said'
import { groupWords, jointWords, swapWords, turnsWords } from './words'
import { always } from '#core/testing/runs'

const done = (job: Job, ...edits: (Edit | null)[]): Job => edits.reduce<Job>((j, edit) => edit ? applyEdit(j, edit).job : j, job)
const pair = (text: string) => readPair(text)!
/** Every lead of the job named and joined as these turns say, by node; what is not named here is straight. */
const drawn = (job: Job, turns: Record<string, Partial<Record<'start' | 'end', Turn | null>>> = {}): Job => outputsOf(job).flatMap(nodeIds)
  .reduce((j, id) => done(j, saySplice(j, id, { start: 'straight', end: 'straight', ...turns[id] })), job)
const said = ({ leaves }: PolarityReport) => leaves.map(({ drawn: d, read, taken }) => `${d ?? '?'}${read ?? '?'}${taken ?? '?'}`).join(' ')
const read = (nodeId: string, is: 'right-way' | 'reversed' | 'cannot-tell', how: 'battery-run' | 'battery-driver' | 'ear' | 'pulse' = 'battery-run', more: Partial<Reading> & { against?: string } = {}): Reading => {
  const { against = null, ...rest } = more
  return {
    id: `${nodeId}-${how}-${rest.at ?? ''}`.replace(/[^\w-]/g, ''), at: '2026-05-04T09:00:00Z', kind: how === 'ear' || how === 'pulse' ? 'polarity-heard' : 'polarity', outputId: 'out1', nodeId,
    value: { is, how, against }, note: '', frequencyHz: null, supersedes: null, taken: null, who: null, withdrawn: false, ...rest,
  }
}
const withRead = (job: Job, ...readings: Reading[]): Job => ({ ...job, readings: Records.of(readings) })

describe('drawn and read are two things', () => {
  const plain = jobOf('8 || 8 || 8')
  const [a, b, c] = nodeIds(outputOf(plain)) as [string, string, string]
  test.each<[string, Job, string]>([
    // Of each speaker: drawn, read, taken for.
    ['nothing said', plain, '??? ??? ???'],
    ['a crossed splice before the second turns the third, too', drawn(plain, { [b]: { start: 'crossed' } }), '0?0 1?1 1?1'],
    ['crossed terminals turn one', drawn(plain, { [b]: { end: 'crossed' } }), '0?0 1?1 0?0'],
    ['two crossings cancel', drawn(plain, { [b]: { start: 'crossed' }, [c]: { start: 'crossed' } }), '0?0 1?1 0?0'],
    ['behind a joint that nobody knows', drawn(plain, { [b]: { start: null } }), '0?0 ??? ???'],
    ['what was read stands before what is drawn, and does not change it', withRead(drawn(plain), read(b, 'reversed')), '0?0 011 0?0'],
    ['of the unit alone it says nothing', withRead(plain, read(a, 'right-way', 'battery-driver')), '??? ??? ???'],
    ['nobody could tell', withRead(plain, read(a, 'cannot-tell')), '??? ??? ???'],
    ['by ear it follows from the one beside, over two', withRead(plain, read(a, 'right-way'), read(b, 'reversed', 'ear', { against: a }), read(c, 'right-way', 'ear', { against: b })), '?00 ?11 ?11'],
    ['by ear beside one that nobody knows', withRead(plain, read(b, 'reversed', 'ear', { against: a })), '??? ??? ???'],
    ['a withdrawn reading', withRead(plain, read(a, 'reversed', 'battery-run', { withdrawn: true })), '??? ??? ???'],
    ['corrected since', withRead(plain, read(a, 'reversed'), read(a, 'right-way', 'battery-run', { id: 'new', supersedes: `${a}-battery-run-` })), '?00 ??? ???'],
    ['corrected by one whose clock was behind', withRead(plain, read(a, 'reversed'), read(a, 'right-way', 'battery-run', { id: 'new', supersedes: `${a}-battery-run-`, at: '2026-05-04T08:00:00Z' })), '?00 ??? ???'],
    ['read twice, the later stands', withRead(plain, read(a, 'reversed'), read(a, 'right-way', 'battery-run', { at: '2026-05-04T10:00:00Z' })), '?00 ??? ???'],
    ['of two ways the later', withRead(plain, read(a, 'reversed'), read(a, 'right-way', 'pulse', { at: '2026-05-04T10:00:00Z' })), '?00 ??? ???'],
  ])('%s', (_, job, expected) => expect(said(polarityOf(job))).toBe(expected))
})

describe('coils of one unit', () => {
  const dual = drawn(jobOf('dvc 4 series on 100 W at 2'))
  const [id] = nodeIds(outputOf(dual)) as [string]
  const opposed = done(dual, stateCoils(dual, id, 2))
  test('unsaid it is one; said, each is an end; opposed they want one swap, and the words say so', () => {
    expect([said(polarityOf(dual)), said(polarityOf(opposed)), said(polarityOf(done(opposed, stateCoils(opposed, id, 2))))]).toEqual(['0?0', '0?0 0?0', '0?0'])
    const crossed = done(opposed, crossAt(opposed, { at: 'coil', nodeId: id, coil: 1 }))
    const report = polarityOf(crossed)
    expect([said(report), report.groups[0]!.is, report.agree.swaps.map(s => swapWords(crossed, s)), groupWords(report.groups[0]!)])
      .toEqual(['0?0 1?1', 'apart', ['At coil 2 of A1 01, swap its two leads.'], 'A1, of which nobody has said where it hangs: its coils are against each other. Next to nothing is heard of it.'])
    const fixed = done(crossed, swapped(crossed, report.agree.swaps[0]!, { at: '2026-05-05T09:00:00Z', newId: counter('r') }))
    expect([said(polarityOf(fixed)), [...fixed.repairs].map(r => r.fault)]).toEqual(['0?0 0?0', ['coil-opposed']])
  })
})

describe('the boat: one crossed splice', () => {
  const boat = jobOf('8 || 8 || 8 || 8')
  const [a, b, c, d] = nodeIds(outputOf(boat)) as [string, string, string, string]
  const named = done(drawn(boat, { [c]: { start: 'crossed' } }), ...[a, b].map(id => saySplice(boat, id, { pair: pair('orange, orange/black') })))
  const harness = done(named, saySplice(named, c, { pair: pair('grey/red, grey'), joint: 'roof junction' }))
  const report = polarityOf(harness)
  test('is found, corrected in one place, and proved by nothing that was read before', () => {
    expect(report.agree).toMatchObject({ isProven: true, isExact: true })
    expect(report.agree.swaps.map(s => [swapWords(harness, s), turnsWords(s.turns), s.turns.length])).toEqual([
      ['At the roof junction, orange goes to grey with red, and orange with black to grey.', 'It turns 03 and 04 the right way round.', 2],
    ])
    const before = withRead(harness, read(c, 'reversed', 'battery-run', { at: '2026-05-04T09:00:00Z' }))
    const after = done(before, swapped(before, polarityOf(before).agree.swaps[0]!, { at: '2026-05-04T10:00:00Z', newId: counter('r') }))
    // The reading from before the swap says nothing any more; the drawing shows it.
    expect([said(polarityOf(before)), said(polarityOf(after)), spliceAt(after, c).start, [...after.repairs].map(r => `${r.fault} ${r.note}`)])
      .toEqual(['0?0 0?0 111 1?1', '0?0 0?0 0?0 0?0', 'straight', ['turned-round At the roof junction, orange goes to grey with red, and orange with black to grey.']])
  })
  test('one that reads turned round where it is drawn right: the drawing is right once it is swapped', () => {
    const job = withRead(drawn(boat), read(d, 'reversed'))
    const [swap] = polarityOf(job).agree.swaps
    const after = done(job, swapped(job, swap!, { at: '2026-05-04T10:00:00Z', newId: counter('r') }))
    expect([swapWords(job, swap!), said(polarityOf(after)), after.splices]).toEqual(['At the terminals of A1 04, swap the two conductors.', '0?0 0?0 0?0 0?0', job.splices])
  })
  test('left as it is, with the reason: no swap any more, and on the list', () => {
    const left = done(harness, leftSo(harness, report.groups[0]!, 'the skipper likes it', { at: '2026-05-04T10:00:00Z', newId: counter('l') }))
    const now = polarityOf(left)
    expect([now.agree.swaps, now.groups[0]!.is, [...left.leavings].map(l => `${l.nodeId} ${l.reason}`)]).toEqual([[], 'alike', [`${c} the skipper likes it`, `${d} the skipper likes it`]])
  })
  test('over rooms: who does not hear the other needs no swap; as marked besides it does', () => {
    const spot = (id: string, nodeId: string) => ({ id, xM: 1, yM: 1, heightM: null, aim: null, nodeId })
    const rooms = { ...harness, spaces: [{ ...plainSpace('s', 'Saloon'), spots: [spot('p', a), spot('q', b)] }, { ...plainSpace('t', 'Deck'), spots: [spot('r', c), spot('t2', d)] }] }
    const { agree, absolute, groups } = polarityOf(rooms)
    expect([agree.swaps.length, absolute.swaps.length, groups.map(groupWords)]).toEqual([0, 1, ['Saloon: its 2 speakers agree.', 'Deck: its 2 speakers agree, all of them turned round.']])
  })
  test('as a document: what is not known is not proven', () => {
    const open = done(harness, saySplice(harness, d, { start: null }))
    const document = polarityReport(open, polarityOf(open))
    expect(document.speakers.map(s => `${s.label} ${s.drawn} ${s.read} ${s.space}`)).toEqual(['A1 01 as marked not read null', 'A1 02 as marked not read null', 'A1 03 reversed not read null', 'A1 04 not known not read null'])
    expect([document.agree.proven, document.absolute.proven, document.agree.swaps.length]).toEqual([false, false, 1])
    expect(groupWords(polarityOf(open).groups[0]!)).toBe('A1, of which nobody has said where it hangs: 2 of its 4 speakers are as marked, 1 is turned round. Half way between them the bass goes. Of 1 other nobody knows.')
    expect(groupWords(polarityOf(boat).groups[0]!)).toMatch(/which way round they are is not known/)
  })
  test('names of joints', () => {
    const { line } = report.leaves[0]!
    expect(line.joints.slice(0, 5).map(joint => jointWords(harness, line, joint))).toEqual(['the amplifier’s terminals of A1', 'the terminals of A1 01', 'the joint before A1 02', 'the terminals of A1 02', 'the roof junction'])
  })
})

/** Straight from the tree: a speaker's parity is the crossings on its own way, counted there and back by hand. */
function bruteForce(job: Job): string {
  const at = (id: string) => spliceAt(job, id)
  const out: string[] = []
  const walk = (group: Group, came: (Turn | null)[]): void => {
    let along = came
    for (const { node } of group.children) {
      const here = [...group.kind === 'chain' ? along : came, at(node.id).start]
      along = here
      if (isGroup(node)) walk(node, node.through ? [...here, at(node.id).end] : here)
      else {
        const all = [...here, at(node.id).end]
        out.push(all.includes(null) ? '?' : String(all.filter(turn => turn === 'crossed').length % 2))
      }
    }
  }
  for (const { wiring } of outputsOf(job)) walk(wiring, [])
  return out.join('')
}

test('parity along random harnesses is what counting by hand gives, and every swap made brings all to agree', () => {
  const shapes = ['8 || 8 || 8 || 8', '(8 + 8) || (8 + 8) || 8', '(8 || 8) + 8', '4 x 5 W behind control 50 W on 70 V', '2 x 5 W + 10 W on 70 V']
  let swaps = 0
  always(fc.property(fc.constantFrom(...shapes), fc.array(fc.constantFrom<Turn | null>('straight', 'crossed', 'crossed', 'straight', null), { minLength: 40, maxLength: 40 }), fc.boolean(), (text, turns, isAllKnown) => {
    const start = jobOf(text, '8 || 8')
    const known = (k: number) => isAllKnown ? turns[k % 40] ?? 'straight' : turns[k % 40]!
    const job = outputsOf(start).flatMap(nodeIds).reduce((j, id, k) => done(j, saySplice(j, id, { start: known(2 * k), end: known(2 * k + 1) })), start)
    const report = polarityOf(job)
    expect(report.leaves.map(l => l.drawn ?? '?').join('')).toBe(bruteForce(job))
    const mended = report.agree.swaps.reduce((j, swap) => done(j, swapped(j, swap, { at: '2026-05-05T09:00:00Z', newId: counter(`r${Math.abs(j.repairs.size)}x`) })), job)
    swaps += report.agree.swaps.length
    expect(polarityOf(mended).groups.filter(g => g.is === 'apart')).toEqual([])
    if (isAllKnown) expect([report.agree.isProven, report.absolute.swaps.length >= report.agree.swaps.length]).toEqual([true, true])
  }), 400)
  expect(swaps).toBeGreaterThan(200)
})

describe('which of a pair is plus', () => {
  const job = jobOf('8')
  const striped = { ...job, practice: { ...job.practice, stripe: 'striped-is-plus' as const } }
  test.each<[string, string, 0 | 1 | null, 0 | 1 | null]>([
    ['a colour and its stripe', 'orange, orange/black', 0, 1], ['the other way round', 'orange/black, orange', 1, 0],
    ['red and black', 'black, red', 1, 1], ['two that say nothing', 'blue, brown', null, null], ['two stripes', 'grey/red, grey/black', null, null],
  ])('%s', (_, text, plain, stripe) => expect([plusOf(job, pair(text)), plusOf(striped, pair(text))]).toEqual([plain, stripe]))
  test('an exception goes before the rule, written either way', () => {
    const odd = { ...job, colourExceptions: [pair('pink/black, pink')] }
    expect([plusOf(odd, pair('pink, pink/black')), plusOf(odd, pair('pink/black, pink')), plusFirst(odd, pair('pink, pink/black'))[0].stripe]).toEqual([1, 0, 'black'])
  })
})

describe('pairs as they are typed', () => {
  test.each([
    ['orange, orange/black', 'orange|;orange|black'], ['orange/black', 'orange|;orange|black'], ['red and black', 'red|;black|'], ['violet, violet with black stripe', 'violet|;violet|black'],
    [' blue ; brown ', 'blue|;brown|'],
  ])('%s', (text, expected) => expect(readPair(text)!.map(c => `${c.base}|${c.stripe}`).join(';')).toBe(expected))
  test.each([['none'], [''], ['not known']])('“%s” is not known', text => expect(readPair(text)).toBeNull())
  test.each([['orange', /here is one/], ['a, b, c', /here are 3/], ['grey, grey', /written alike/], ['/black, red', /no colour/], ['a/b/c, red', /two strokes/], [`${'x'.repeat(31)}, red`, /too long/]])('“%s” is refused', (text, says) => {
    expect(() => readPair(text)).toThrow(says)
  })
})

test('a cable that runs on, a line like another; what was said stays', () => {
  const job = jobOf('8 || 8 || 8', '8 || 8')
  const [a, b, c] = nodeIds(outputOf(job)) as [string, string, string]
  const [d, e] = nodeIds(outputOf(job, 1)) as [string, string]
  const first = done(job, namePair(job, a, pair('red, black')), saySplice(job, b, { pair: pair('blue, brown') }))
  const on = done(first, runsOn(first, a))
  // What was said of a joint stays when its pair is named.
  const before = done(job, saySplice(job, c, { start: 'crossed' }))
  expect([spliceAt(done(before, namePair(before, c, pair('red, black'))), c).start, spliceAt(done(before, namePair(before, c, pair('red, black'))), c).end]).toEqual(['crossed', 'straight'])
  const base = (j: Job, id: string) => [spliceAt(j, id).pair?.[0].base ?? null, spliceAt(j, id).start]
  expect([a, b, c].map(id => base(on, id))).toEqual([['red', 'straight'], ['blue', null], ['red', 'straight']])
  const crossed = done(on, crossAt(on, { at: 'start', nodeId: b, coil: null }), saySplice(on, a, { joint: 'rack' }))
  const like = done(crossed, likeLine(crossed, 'out1', 'out2'))
  expect([[d, e].map(id => base(like, id)), spliceAt(like, d).joint, likeLine(like, 'out1', 'out2'), likeLine(like, 'out1', 'out1')]).toEqual([[['red', 'straight'], ['blue', 'crossed']], '', null, null])
})

test('what is joined into a group keeps which way round it is: the beginning goes with the lead', () => {
  const job = jobOf('8 || 8 || 8')
  const ids = nodeIds(outputOf(job))
  const crossed = drawn(job, { [ids[0]!]: { start: 'crossed' } })
  const joined = done(crossed, joinWithNext(crossed, ids[0]!, 'series', counter('g')))
  expect([said(polarityOf(crossed)), said(polarityOf(joined)), speakersOf(outputOf(joined).wiring).length]).toEqual(['1?1 1?1 1?1', '1?1 1?1 1?1', 3])
  expect(together([])).toBeNull()
})
