import { expect, test } from '@jest/globals'
import type { Speaker, SpeakerLoad } from '#core/job/schema'
import { jobOf, outputOf } from '#core/testing/jobs'
import { NO_LESSONS } from './lessons'
import { solvedAsRead } from './readingBands'
import { lineSpread } from './spread'

const known = { kind: 'motional' as const, nominalOhm: 8, reOhm: 5.6, leH: 0.5e-3, fsHz: 45, qms: 4.2, qes: 0.48 }
// Two sigma to an edge of the band, by hand: shared by a model to either side, own by a tenth (known: 7 % each), two coils of one unit err each by itself.
const OWN = Math.log(1.1)
const [KNOWN, DIP, RISE] = [Math.log(1.07), Math.log(0.7), Math.log(1.5)]
const spreadOf = (output: ReturnType<typeof outputOf>) => {
  const solved = solvedAsRead(output.wiring)
  return { ...lineSpread(output, solved, 1000, NO_LESSONS), ohm: (solved.head as { ohm: number }).ohm }
}

test.each<[string, SpeakerLoad, number, number]>([
  ['a label', { kind: 'nominal', nominalOhm: 8 }, Math.hypot(DIP, OWN), Math.hypot(RISE, OWN)],
  ['a unit of two labelled coils', { kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] },
    Math.hypot(DIP, OWN / Math.SQRT2), Math.hypot(RISE, OWN / Math.SQRT2)],
  ['known parameters', known, Math.hypot(KNOWN, KNOWN), Math.hypot(KNOWN, KNOWN)],
  ['a unit of two known coils', { kind: 'members', joined: 'parallel', members: [known, known] }, Math.hypot(KNOWN, KNOWN / Math.SQRT2), Math.hypot(KNOWN, KNOWN / Math.SQRT2)],
  ['one known and one labelled', { kind: 'members', joined: 'series', members: [known, { kind: 'nominal', nominalOhm: 8 }] },
    Math.hypot((KNOWN - DIP) / 2, KNOWN / 2, OWN / 2), Math.hypot((KNOWN + RISE) / 2, KNOWN / 2, OWN / 2)],
])('spread of a line of one: %s', (_, load, low, high) => {
  const { wiring, ...output } = outputOf(jobOf('8'))
  const spread = spreadOf({ ...output, wiring: { ...wiring, children: wiring.children.map(c => ({ ...c, node: { ...c.node, load } as Speaker })) } })
  const meter = Math.hypot(0.04, 0.1 / spread.ohm)
  expect([spread.low, spread.high]).toEqual([expect.closeTo(Math.hypot(meter, low), 9), expect.closeTo(Math.hypot(meter, high), 9)])
})

test('the spread of a line falls with its drops as far as it is each one’s own; what units of a model share does not', () => {
  // The root of the sum of squares, by hand: shared 0.7 and 1.1, own ln 1.1 over the root of their number, a meter of 4 % and 0.1 Ω.
  const edge = (shared: number, count: number, ohm: number) => Math.hypot(Math.log(shared), Math.log(1.1) / Math.sqrt(count), 0.04, 0.1 / ohm)
  for (const count of [1, 4, 16]) {
    const { factor, low, high, ohm } = spreadOf(outputOf(jobOf(`${count} x 10 W on 70 V`)))
    expect([factor, low, high]).toEqual([1, expect.closeTo(edge(0.7, count, ohm), 4), expect.closeTo(edge(1.1, count, ohm), 4)])
  }
})
