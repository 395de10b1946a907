import { describe, expect, test } from '@jest/globals'
import type { ReadingValue, Speaker, SpeakerLoad } from '#core/job/schema'
import { jobOf, outputOf } from '#core/testing/jobs'
import type { Seen } from '#core/network/solver'
import { SHORT_OHM } from '#core/quantity/tolerance'
import { coilOutcome, likeAnyOhm, likeAnyWay, likeNotOpen, likeOhm, silentChance, withSlip } from './likelihood'
import { planOf } from './outcome'

const known = { kind: 'motional' as const, nominalOhm: 8, reOhm: 5.6, leH: 0.5e-3, fsHz: 45, qms: 4.2, qes: 0.48 }
const ohm = (value: number): ReadingValue => ({ is: 'ohm', ohm: value })
const open: ReadingValue = { is: 'open' }
const plays: ReadingValue = { is: 'plays' }
const seen = (value: number): Seen => ({ state: 'finite', re: value, im: 0, ohm: value })
const OPEN: Seen = { state: 'open' }
const SHORT: Seen = { state: 'short' }
const even = { factor: 1, low: 0.1, high: 0.1 }
/** Any reading from an eighth to eight times: a flat density over the logarithm, four fifths of it. */
const ANY = 0.8 / (2 * Math.log(8))

test.each<[string, number, number]>([
  ['open where it is open', likeOhm(open, OPEN, even), 1], ['open where it is not', likeOhm(open, seen(8), even), 0], ['no ohms at all', likeOhm(plays, seen(8), even), 0],
  ['a short where one is', likeOhm(ohm(SHORT_OHM / 2), SHORT, even), 1], ['a value where a short is', likeOhm(ohm(SHORT_OHM), SHORT, even), 0], ['a value where it is open', likeOhm(ohm(8), OPEN, even), 0],
  // The normal density at its middle, and one sigma off (NIST handbook of mathematical functions, 26.2).
  ['just as expected', likeOhm(ohm(8), seen(8), even), 1 / (Math.sqrt(2 * Math.PI) * 0.1)],
  ['the middle learned lower', likeOhm(ohm(7.9 * 0.8), seen(7.9), { ...even, factor: 0.8 }), 1 / (Math.sqrt(2 * Math.PI) * 0.1)],
  ['one sigma above', likeOhm(ohm(7.9 * Math.exp(0.1) - 0.1 + 0.1 * Math.exp(0.1)), seen(7.9), even), 0.24197072 / 0.1],
  ['a wider half weighs both', likeOhm(ohm(8), seen(8), { factor: 1, low: 0.1, high: 0.3 }), 2 / (Math.sqrt(2 * Math.PI) * 0.4)],
  ['anything: a value', likeAnyOhm(ohm(8)), ANY], ['anything: at the edge of a short', likeAnyOhm(ohm(SHORT_OHM)), ANY], ['anything: a short', likeAnyOhm(ohm(SHORT_OHM / 2)), 0.1], ['anything: open', likeAnyOhm(open), 0.1],
  ['any way: a value', likeAnyWay(ohm(8)), 0.8], ['any way: at the edge', likeAnyWay(ohm(SHORT_OHM)), 0.8], ['any way: a short', likeAnyWay(ohm(0)), 0.1], ['any way: open', likeAnyWay(open), 0.1],
  ['no way round, reads open', likeNotOpen(open, OPEN, OPEN), 1], ['a way round, reads open', likeNotOpen(open, seen(5), OPEN), 0],
  ['a value where there is no way', likeNotOpen(ohm(5), OPEN, OPEN), 0], ['no ohms', likeNotOpen(plays, seen(5), OPEN), 0],
  ['through windings: any copper', likeNotOpen(ohm(5), seen(5), OPEN), 1],
  ['through windings: at the edge of a short', likeNotOpen(ohm(SHORT_OHM), seen(5), OPEN), 1],
  ['through windings: a short is hardly it', likeNotOpen(ohm(SHORT_OHM / 2), seen(5), OPEN), 0.02],
  ['round the windings: its own copper', likeNotOpen(ohm(4), seen(4), seen(4)), 1], ['half of it', likeNotOpen(ohm(2 - SHORT_OHM), seen(4), seen(4)), 1], ['less', likeNotOpen(ohm(2 - 1.01 * SHORT_OHM), seen(4), seen(4)), 0.02],
  ['double', likeNotOpen(ohm(8 + SHORT_OHM), seen(4), seen(4)), 1],
  ['more', likeNotOpen(ohm(8 + 1.01 * SHORT_OHM), seen(4), seen(4)), 0.02],
  ['a dead short', likeNotOpen(ohm(0), SHORT, SHORT), 1],
  ['more than one', likeNotOpen(ohm(2 * SHORT_OHM), SHORT, SHORT), 0.02],
  ['a slip of the pen at the least', withSlip(0), 1e-4], ['and no more than sure', withSlip(1), 1], ['half', withSlip(0.5), 0.50005],
  ['nothing arrives: silent', silentChance(0, 5), 1],
])('how well it fits: %s', (_, likelihood, wanted) => expect(likelihood).toBeCloseTo(wanted, 7))

describe('what a coil reading comes to', () => {
  const predicted = { low: 5, high: 8 } as never
  test.each<[string, ReadingValue, unknown, string | null]>([
    ['open', open, predicted, 'open'], ['no ohms', plays, predicted, null], ['a short, whatever is predicted', ohm(SHORT_OHM / 2), null, 'short'], ['at the edge of one', ohm(SHORT_OHM), predicted, 'low'],
    ['nothing predicted', ohm(6), null, null], ['half a band', ohm(6), { low: null, high: 8 }, null], ['the other half', ohm(6), { low: 5, high: null }, null],
    ['inside', ohm(6), predicted, 'right'], ['a meter’s twentieth over', ohm(8 * 1.05), predicted, 'right'], ['more', ohm(8.41), predicted, 'high'], ['a twentieth under', ohm(4.75), predicted, 'right'], ['less', ohm(4.74), predicted, 'low'],
  ])('%s', (_, value, band, wanted) => expect(coilOutcome(value, band as never)).toBe(wanted))
})

// Two sigma to an edge of the band, by hand: shared by a model to either side, own by a tenth (known: 7 % each), two coils of one unit err each by itself.
const OWN = Math.log(1.1)
const [KNOWN, DIP, RISE] = [Math.log(1.07), Math.log(0.7), Math.log(1.5)]
test.each<[string, SpeakerLoad, number, number]>([
  ['a label', { kind: 'nominal', nominalOhm: 8 }, Math.hypot(DIP, OWN), Math.hypot(RISE, OWN)],
  ['a unit of two labelled coils', { kind: 'members', joined: 'series', members: [{ kind: 'nominal', nominalOhm: 4 }, { kind: 'nominal', nominalOhm: 4 }] }, Math.hypot(DIP, OWN / Math.SQRT2), Math.hypot(RISE, OWN / Math.SQRT2)],
  ['known parameters', known, Math.hypot(KNOWN, KNOWN), Math.hypot(KNOWN, KNOWN)],
  ['a unit of two known coils', { kind: 'members', joined: 'parallel', members: [known, known] }, Math.hypot(KNOWN, KNOWN / Math.SQRT2), Math.hypot(KNOWN, KNOWN / Math.SQRT2)],
  ['one known and one labelled', { kind: 'members', joined: 'series', members: [known, { kind: 'nominal', nominalOhm: 8 }] }, Math.hypot((KNOWN - DIP) / 2, KNOWN / 2, OWN / 2), Math.hypot((KNOWN + RISE) / 2, KNOWN / 2, OWN / 2)],
])('spread of a line of one: %s', (_, load, low, high) => {
  const { wiring, ...output } = outputOf(jobOf('8'))
  const line = { ...output, wiring: { ...wiring, children: wiring.children.map(c => ({ ...c, node: { ...c.node, load } as Speaker })) } }
  const plan = planOf(line)
  const spread = plan.spreadAt(1000)
  const meter = Math.hypot(0.04, 0.1 / (plan.solved.head as { ohm: number }).ohm)
  expect([spread.low, spread.high]).toEqual([expect.closeTo(Math.hypot(meter, low) / 2, 9), expect.closeTo(Math.hypot(meter, high) / 2, 9)])
})
