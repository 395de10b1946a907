import { expect, test } from '@jest/globals'
import type { Written } from '#core/job/schema'
import { answer, coil, right, ticket } from '#core/testing/ticket'
import { CLOSING_CHECKS } from '#core/job/sections/tickets/schema'
import { nextWords } from './next'
import { runsOf, warmOf } from './runs'

const run = (of: 'baseline' | 'unknown', limitC: number | null = null): Written => ({ is: 'run', run: of, limitC, note: '' })
const warm = (runId: string, minute: number, celsius: number): Written => ({ is: 'warm', runId, minute, celsius })
/** 22 °C, so many K more in the end, 30 minutes; not in order. */
const heats = (runId: string, endK: number, count = 6): Written[] =>
  Array.from({ length: count }, (_, k) => (k * 5) % count).map(k => warm(runId, 10 * k, 22 + endK * (1 - Math.exp(-k / 3))))

test('runs by minute, each against the last right load before it that says anything; of two at one minute the later counts', () => {
  // e1: a right load; e8: the unknown one; e15: another right load, too short.
  const t = ticket({}, run('baseline'), ...heats('e1', 20), run('unknown'), ...heats('e8', 32), run('baseline'), warm('e15', 0, 22), warm('e15', 0, 23), run('unknown', 90), warm('e18', 0, 95))
  const [right, unknown, short, hot] = runsOf(t)
  expect([right!.warm.map(w => w.minute), right!.baseline, right!.limitC, right!.report!.warns]).toEqual([[0, 10, 20, 30, 40, 50], null, 51, null])
  expect([unknown!.report!.warns, unknown!.baseline, unknown!.report!.against!.riseRatio]).toEqual(['will', right!.warm, expect.closeTo(1.6, 2)])
  expect([short!.report, short!.why, warmOf(t, 'e15')]).toEqual([null, '3 more before anything can be said.', [{ minute: 0, celsius: 23 }]])
  // An own limit counts, and at it it is off, however little was read.
  expect([hot!.limitC, hot!.why]).toEqual([90, 'It has reached the limit. Off, and let it cool.'])
})

test('a run that says nothing is held against nothing', () => {
  expect(runsOf(ticket({}, run('unknown'), ...heats('e1', 30), run('unknown'), ...heats('e8', 30)))[1]!.baseline).toBeNull()
})

const checks = CLOSING_CHECKS.map(c => right(c))
const screw: Written = { is: 'part', kind: 'screw', name: 'screws', count: 2, place: '' }
const fit: Written = { is: 'fit', name: 'Driver', nominalOhm: 32, drawerId: null, capacitor: 'none', note: '' }
test.each<[string, Written[], string, RegExp]>([
  ['nothing asked', [], 'which', /^.*Do not open it yet\.$/], ['a coil that is open', [coil(null)], 'replacing', /open/], ['one that was open and is right now', [coil(null), coil(31)], 'replacing', /comes and goes/],
  ['all right', checks, 'closing', /can go out as proved/], ['one thing open', [...checks, right('label', false)], 'closing', /Label inside: not right/], ['a screw', [...checks, screw], 'opening', /2 of 2 “screws” are missing/],
  ['a new one not read', [fit], 'readings', /its coil is not read/], ['read, its plus not proved', [fit, coil(31, { unit: 'new' })], 'plus', /plus is not proved/],
  ['a run', [run('unknown')], 'load', /go on with the run/], ['its lead', [answer('plays', 'comes-and-goes'), answer('wiggle', 'cuts-in-and-out'), coil(null, { of: 'lead' })], 'which', /Another lead/],
  ['its coil, likely, still closed', [answer('plays', 'silent'), answer('twin', 'twin-plays'), answer('swap', 'follows-the-unit'), answer('wiggle', 'nothing-changes')], 'opening', /Ohms at the tabs/],
  ['gone out', [{ is: 'state', state: 'gone-out', on: '2026-06-01', as: 'proved', reason: '' }], 'complaint', /ask its owner/],
])('what comes next: %s', (_, whats, face, says) => {
  const next = nextWords(ticket({}, ...whats))!
  expect(next.face).toBe(face)
  expect(next.says).toMatch(says)
})
test('gone out with no day to look again: nothing comes next', () => {
  expect(nextWords(ticket({}, { is: 'state', state: 'gone-out', on: null, as: 'left-so', reason: 'x' }))).toBeNull()
})
