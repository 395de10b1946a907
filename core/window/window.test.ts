import { runs } from '#core/testing/runs'
import { describe, expect, test } from '@jest/globals'
import { emptyJob, toDocument } from '#core/job/document'
import type { Edit, StampedEdit } from '#core/job/edits'
import { FORMAT_VERSION } from '#core/job/schema'
import { EDITS_A_REQUEST, PARTS_A_REQUEST, type EditEntry, type OpenedJob, type SyncAnswer } from '#core/job/protocol'
import type { LogEntry } from '#core/job/undo'
import { reading } from '#core/testing/edits'
import { jobOf } from '#core/testing/jobs'
import { playSchedule } from '#core/testing/schedules'
import { keptKey, readKept, writeKept, type Kept } from './keptEdit'
import { outboxAnswered, outboxRequest, outboxUnreadable } from './outbox'
import { onTop } from './rebase'
import { nextRequest } from './request'
import type { Message, WindowEvent, WindowState } from './state'
import { connectionOf, openWindow, step } from './window'

test('random schedules: every edit that a person made is on the server exactly once, or in front of them with a reason', () => {
  let made = 0
  let refused = 0
  for (let seed = 1; seed <= runs(160); seed++) {
    const result = playSchedule(seed)
    expect([seed, result.trouble]).toEqual([seed, null])
    made += result.made
    refused += result.refused + result.dismissed
  }
  // The schedules do what they are for: much is made, some of it clashes.
  expect(made).toBeGreaterThan(runs(160) * 5)
  expect(refused).toBeGreaterThan(runs(160) / 2)
})

const job = { ...jobOf('3 x 10 W on 70 V 100 W'), name: 'Hall' }
const answer = (revision = 0, log: LogEntry[] = []): OpenedJob => ({ id: 'j', revision, archivedAt: null, job: toDocument(job), log })
const named = (was: string, to: string): Edit => ({ kind: 'job.set', was: { name: was }, to: { name: to } })
const stamped = (id: string, edit: Edit, by = 'me'): StampedEdit => ({ id, by, who: null, undoes: null, edit })
const kept = (id: string, at: number, edit: Edit, refused: Kept['refused'] = null): Kept => ({ jobId: 'j', jobName: 'Hall', at, stamped: stamped(id, edit), refused })
const entry = (seq: number, s: StampedEdit): EditEntry => ({ ...s, inverse: s.by === 'me' ? s.edit : null, seq })

/** Plays events to a window that has opened the job; the state, and all messages of the last event. */
function play(...events: WindowEvent[]): { state: WindowState, messages: Message[] } {
  let current = step(openWindow('j', 'me').state, { is: 'opened', number: 1, answer: answer() })
  for (const event of events) current = step(current.state, event)
  return current
}
const done = (id: string, edit: Edit, at = 5): WindowEvent => ({ is: 'done', id, at, edit })
const answered = (number: number, results: SyncAnswer['results'], entries: EditEntry[] | null, revision: number): WindowEvent => ({ is: 'answered', number, answer: { revision, results, entries } })
const sentBy = (messages: Message[]) => messages.flatMap(m => m.do === 'exchange' ? m.request.edits.map(e => e.id) : [])
const away: WindowEvent = { is: 'failed', number: 2, problem: { kind: 'away', message: 'away' } }

test('a window that has read its job looks for what waits on the device, and takes it over in the order in which it was done', () => {
  expect(play().messages).toEqual([{ do: 'remember' }, { do: 'look' }])
  const { state, messages } = play({ is: 'found', kept: [kept('b', 2, named('one', 'two')), kept('a', 1, named('Hall', 'one')), { ...kept('x', 0, named('Hall', 'x')), jobId: 'other' }] })
  expect([state.job!.name, state.pending.map(p => p.stamped.id), sentBy(messages)]).toEqual(['two', ['a', 'b'], ['a', 'b']])
})

test('what others did is told by what it was, with who did it; what one did oneself is not', () => {
  const theirs = { ...stamped('z', named('one', 'two'), 'you'), who: 'anna' }
  const { state } = play(done('a', named('Hall', 'one')), answered(2, [{ id: 'a', status: 'applied' }], [entry(1, stamped('a', named('Hall', 'one'))), entry(2, theirs)], 2))
  expect(state.news).toEqual([{ id: 'z', by: 'you', who: 'anna', says: 'job details: name “one” → “two”' }])
})

test('what is on its way stays first: what is shown is what the server will have', () => {
  const add = (id: string): Edit => ({ kind: 'reading.add', reading: reading(id) })
  const { state } = play(done('new', add('r2'), 9), { is: 'found', kept: [kept('old', 1, add('r1'))] })
  expect([...state.job!.readings].map(r => r.id)).toEqual(['r2', 'r1'])
})

test('a refused edit that was kept is shown again after a reload, and not sent again', () => {
  const { state, messages } = play({ is: 'found', kept: [kept('a', 1, named('Hall', 'one'), { message: 'No.', code: 'changed-meanwhile' })] })
  expect([state.refused.map(r => r.message), state.pending, sentBy(messages)]).toEqual([['No.'], [], []])
  const forced = step(state, { is: 'forced', id: 'a', newId: 'a2', at: 7 })
  expect(forced.state.job!.name).toBe('one')
  expect(forced.messages.map(m => m.do === 'keep' ? m.kept.map(k => k.stamped.id) : m.do === 'let go' ? m.ids : m.do)).toEqual([['a2'], 'exchange', ['a']])
})

test('a refused edit of another window that is no more on the device was decided there; one’s own stays until it is decided', () => {
  const of = (id: string, by: string): Kept => ({ ...kept(id, 1, named('Hall', id), { message: 'No.', code: 'changed-meanwhile' }), stamped: stamped(id, named('Hall', id), by) })
  const { state } = play({ is: 'found', kept: [of('theirs', 'you'), of('mine', 'me')] })
  const after = (...left: Kept[]) => step(state, { is: 'found', kept: left }).state.refused.map(r => r.stamped.id)
  expect([after(of('theirs', 'you')), after(), after(of('mine', 'me'))]).toEqual([['theirs', 'mine'], ['mine'], ['mine']])
})

test('undo and redo say what the hand did, not what the machine does', () => {
  const remove: Edit = { kind: 'node.remove', nodeId: 'o1n3', was: null }
  const undone = play(done('a', remove), { is: 'undo', id: 'b', at: 6 }).state
  const redone = step(undone, { is: 'redo', id: 'c', at: 7 }).state
  expect([undone.said, redone.said, step(redone, { is: 'undo', id: 'd', at: 8 }).state.said]).toEqual(['undone: speaker removed', 'done again: speaker removed: A1 01', 'undone: speaker removed'])
})

test('the answer to an older question is not heard', () => {
  const { state } = play(done('a', named('Hall', 'one')), answered(1, [{ id: 'a', status: 'applied' }], [entry(1, stamped('a', named('Hall', 'one')))], 1))
  expect([state.pending.length, state.revision]).toEqual([1, 0])
})

test('an edit that a lost request brought to the server is confirmed by another’s answer', () => {
  const { state, messages } = play(done('a', named('Hall', 'one')), away, { is: 'heard', revision: 1 },
    answered(3, [{ id: 'a', status: 'known' }], [entry(1, stamped('a', named('Hall', 'one'))), entry(2, stamped('z', named('one', 'two'), 'you'))], 2))
  expect([state.pending, state.job!.name, state.revision, messages]).toEqual([[], 'two', 2, [{ do: 'let go', ids: ['a'] }, { do: 'remember' }]])
  const late = play(done('a', named('Hall', 'one')), answered(2, [{ id: 'a', status: 'refused', refusal: { code: 'archived' }, message: 'Archived.' }], [], 0), { is: 'heard', revision: 1 },
    answered(3, [], [entry(1, stamped('a', named('Hall', 'one')))], 1))
  expect([late.state.refused, late.messages]).toEqual([[], [{ do: 'let go', ids: ['a'] }, { do: 'remember' }]])
})

describe('what came to nothing', () => {
  test('away: it says so, waits longer each time, and tries again by itself', () => {
    const waits: number[] = []
    let { state, messages } = play(done('a', named('Hall', 'one')), away)
    for (let k = 3; k < 9; k++) {
      waits.push(...messages.flatMap(m => m.do === 'wait' ? [m.ms] : []))
      state = step(state, { is: 'again' }).state;
      ({ state, messages } = step(state, { ...away, number: k } as WindowEvent))
    }
    expect([waits, connectionOf(state)]).toEqual([[1000, 2000, 5000, 10_000, 10_000, 10_000], 'away'])
  })
  test('a job that could not be read is read again by itself, and then looks for what waits', () => {
    const failed = step(openWindow('j', 'me').state, { is: 'failed', number: 1, problem: { kind: 'away', message: 'Away.' } })
    expect([failed.state.phase, failed.state.problem, failed.messages]).toEqual(['failed', 'Away.', [{ do: 'recall' }, { do: 'wait', ms: 1000 }]])
    const again = step(failed.state, { is: 'again' })
    expect(again.messages).toEqual([{ do: 'read job', number: 2 }])
    const opened = step(again.state, { is: 'opened', number: 2, answer: answer() })
    expect([opened.state.phase, opened.messages]).toEqual(['ready', [{ do: 'remember' }, { do: 'look' }]])
  })
  test('a job as the device last had it: worked on while the server is away, read anew when it is back, and what was done stays', () => {
    const failed = step(openWindow('j', 'me').state, { is: 'failed', number: 1, problem: { kind: 'away', message: 'Away.' } })
    const shown = step(failed.state, { is: 'remembered', answer: answer(3) })
    expect([shown.state.phase, shown.state.revision, connectionOf(shown.state), shown.messages]).toEqual(['ready', 3, 'away', [{ do: 'look' }]])
    const edited = step(shown.state, done('a', named('Hall', 'one')))
    expect([edited.state.job!.name, edited.messages.map(m => m.do)]).toEqual(['one', ['keep', 'read job']])
    const back = step(edited.state, { is: 'opened', number: 2, answer: { ...answer(5), job: { ...toDocument(job), note: 'by another' } } })
    expect([back.state.job!.name, back.state.job!.note, back.state.isAway, sentBy(back.messages)]).toEqual(['one', 'by another', false, ['a']])
  })
  test('what a device had is no answer where the server has answered, where it never had it, or where a newer program kept it', () => {
    const failed = step(openWindow('j', 'me').state, { is: 'failed', number: 1, problem: { kind: 'away', message: 'Away.' } }).state
    const newer = { ...answer(3), job: { ...toDocument(job), version: FORMAT_VERSION + 1 as typeof FORMAT_VERSION } }
    expect([step(failed, { is: 'remembered', answer: null }), step(failed, { is: 'remembered', answer: newer })]).toEqual([{ state: failed, messages: [] }, { state: failed, messages: [] }])
    const { state } = play(done('a', named('Hall', 'one')))
    expect(step(state, { is: 'remembered', answer: answer(9) })).toEqual({ state, messages: [] })
    const gone = step(failed, { is: 'again' }).state
    expect(step(step(gone, { is: 'failed', number: 2, problem: { kind: 'missing', message: 'Gone.' } }).state, { is: 'remembered', answer: answer() }).state.phase).toBe('missing')
  })
  test('of several that the server cannot read, only the one at fault is given back', () => {
    const unreadable = (number: number): WindowEvent => ({ is: 'failed', number, problem: { kind: 'unreadable', message: 'Not readable.' } })
    // The first is on its way alone; the others gather meanwhile.
    const { state, messages } = play(done('a', named('Hall', 'one')), done('b', named('one', 'two')), done('c', named('two', 'three')),
      answered(2, [{ id: 'a', status: 'applied' }], [entry(1, stamped('a', named('Hall', 'one')))], 1), unreadable(3), unreadable(4))
    expect([state.refused.map(r => [r.stamped.id, r.message]), state.pending.map(p => p.stamped.id), sentBy(messages)]).toEqual([[['b', 'Not readable.']], ['c'], ['c']])
    // One that goes through does not make the rest go together again: the one at fault is still among them.
    const inTurn = play(done('a', named('Hall', 'one')), done('b', named('one', 'two')), done('c', named('two', 'three')), done('d', named('three', 'four')),
      answered(2, [{ id: 'a', status: 'applied' }], [entry(1, stamped('a', named('Hall', 'one')))], 1), unreadable(3),
      answered(4, [{ id: 'b', status: 'applied' }], [entry(2, stamped('b', named('one', 'two')))], 2))
    expect(sentBy(inTurn.messages)).toEqual(['c'])
  })
  test('a job that is gone', () =>
    expect(play(done('a', named('Hall', 'one')), { is: 'failed', number: 2, problem: { kind: 'missing', message: 'Gone.' } }).state.phase).toBe('missing'))
  test('an entry that does not fit what is known leads to a fresh look, not to silence', () => {
    const { state, messages } = play({ is: 'heard', revision: null }, answered(2, [], [entry(1, stamped('z', named('nothing I know', 'x'), 'you'))], 1))
    expect([messages, state.job!.name]).toEqual([[{ do: 'read job', number: 3 }], 'Hall'])
    const odd = play({ is: 'heard', revision: null }, answered(2, [], [entry(1, stamped('z', { kind: 'of.tomorrow' } as never, 'you'))], 1))
    expect(odd.messages).toEqual([{ do: 'read job', number: 3 }])
  })
  test('a server of a newer program: said, not guessed', () => {
    const newer = step(openWindow('j', 'me').state, { is: 'opened', number: 1, answer: { ...answer(), job: { ...toDocument(job), version: 99 as never } } })
    expect([newer.state.phase, newer.state.problem]).toEqual(['failed', expect.stringContaining('newer program')])
  })
})

test('a request takes a bounded number of parts; a larger edit goes alone', () => {
  const batch = (parts: number): Edit => ({ kind: 'batch', edits: Array.from({ length: parts }, () => ({ kind: 'job.set', was: {}, to: {} })) })
  const lengths = (...parts: number[]) => nextRequest(parts.map((p, k) => stamped(`e${k}`, batch(p)))).length
  const all = [lengths(), lengths(1, 2), lengths(PARTS_A_REQUEST - 1, 1, 1), lengths(PARTS_A_REQUEST * 4, 1),
    lengths(...new Array<number>(EDITS_A_REQUEST + 5).fill(1))]
  expect(all).toEqual([0, 2, 2, 1, EDITS_A_REQUEST])
  expect(nextRequest([stamped('a', batch(1)), stamped('b', batch(1))], true).length).toBe(1)
})

describe('what stands in storage', () => {
  const one = kept('a', 3, named('Hall', 'one'))
  test('goes out and comes in the same', () => expect(readKept(keptKey('j', 'a'), writeKept(one))).toEqual([{ key: keptKey('j', 'a'), jobId: 'j', kept: one }]))
  test('a list that version 1 kept comes in, in its order', () => {
    const found = readKept('plain-match.pending.j.w', JSON.stringify([stamped('a', named('Hall', 'one')), stamped('b', named('one', 'two'))]))!
    expect(found.map(f => [f.jobId, f.kept?.stamped.id, f.kept?.at])).toEqual([['j', 'a', 0], ['j', 'b', 1]])
  })
  test('other things are none of its business', () => expect(readKept('plain-match.night', 'true')).toBeNull())
  test.each([
    ['cut short', '{"version"'], ['an unknown edit', writeKept({ ...one, stamped: stamped('a', { kind: 'job.explode' } as never) })],
    ['a newer version', writeKept(one).replace(`"version":${FORMAT_VERSION}`, '"version":99')], ['an id with a dot', writeKept({ ...one, stamped: stamped('a.b', named('a', 'b')) })],
  ])('%s: set aside as it is', (_, text) => expect(readKept(keptKey('j', 'a'), text)).toEqual([{ key: keptKey('j', 'a'), jobId: 'j', kept: null, text }]))
})

test('the outbox sends what waits, not what was refused; lets go what is there, keeps the reason of what is not', () => {
  const all = [kept('b', 2, named('one', 'two')), kept('a', 1, named('Hall', 'one')), kept('c', 0, named('x', 'y'), { message: 'No.', code: null })]
  expect(outboxRequest(all)!.edits.map(e => e.id)).toEqual(['a', 'b'])
  expect(outboxRequest([all[2]!])).toBeNull()
  const { letGo, keep } = outboxAnswered(all, { results: [{ id: 'a', status: 'known' }, { id: 'b', status: 'refused', refusal: { code: 'archived' }, message: 'Archived.' }] })
  expect([letGo, keep.map(k => [k.stamped.id, k.refused])]).toEqual([['a'], [['b', { message: 'Archived.', code: 'archived' }]]])
  expect(outboxUnreadable(all, [all[1]!.stamped], 'Not readable.').map(k => [k.stamped.id, k.refused?.message])).toEqual([['a', 'Not readable.']])
})

test('an edit that was refused for another reason than a change is not made into another; one that was, is brought on top of what stands there', () => {
  const job = emptyJob('Hall')
  const gone: Edit = { kind: 'zone.remove', zoneId: 'gone', was: null }
  expect(onTop(job, gone)).toBe(gone)
  expect(onTop(job, named('Chapel', 'Bar'))).toEqual(named('Hall', 'Bar'))
})
