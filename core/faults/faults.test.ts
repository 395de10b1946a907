import { expect, test } from '@jest/globals'
import { applyEdit } from '#core/job/apply'
import { joinWithNext, setTap } from '#core/hands/intents'
import type { Job, WireNode } from '#core/job/schema'
import { findPlace, speakersOf, withBranch } from '#core/job/tree'
import { isGroup, nominalOhmOf, type WiringNode } from '#core/network/tree'
import { counter, jobOf, outputOf } from '#core/testing/jobs'
import type { Fault } from './fault'
import { FAULTS } from '.'

/** The wiring that a fault makes, in small: taps and impedances, open and short by name. */
const drawn = (node: WiringNode): string => isGroup(node)
  ? `${node.kind}(${node.children.map(c => drawn(c.node)).join(' ')})`
  : node.kind !== 'speaker' ? node.kind : node.load.kind === 'tap' ? String(Math.round(node.load.tapW * 100) / 100) : `${Math.round(nominalOhmOf(node.load) * 100) / 100}Ω`

// A line of 10, 5, off and 2.5 W out of taps 2.5 5 10, the second in series with the third; its last one has an 8 Ω driver, the first 4 Ω.
const ids = speakersOf(outputOf(jobOf('4 x 10 W on 70 V')).wiring).map(s => s.id) as [string, string, string, string]
const [a, b, c, d] = ids
const job: Job = [[a, 10, 4], [b, 5, null], [c, 0, null], [d, 2.5, 8]].reduce((on: Job, [id, tapW, driverOhm]) => withBranch(on, id as string, branch => ({
  ...branch, node: { ...branch.node, driverOhm, load: { kind: 'tap', tapW, ratedV: 70.71, tapsW: [10, 2.5, 5], insertionDb: null, tapMeans: null } } as WireNode,
})), jobOf('4 x 10 W on 70 V'))
/** 5, 5, off and 2.5 W, out of such taps. */
const withTaps = (tapsW: number[]): Job => [[a, 5], [b, 5], [c, 0], [d, 2.5]].reduce((on: Job, [id, tapW]) => withBranch(on, id as string, branch => ({
  ...branch, node: { ...branch.node, load: { kind: 'tap', tapW, ratedV: 70.71, tapsW, insertionDb: null, tapMeans: null } } as WireNode })), job)
const series = applyEdit(job, joinWithNext(job, b, 'series', counter('s'))!).job
const low = jobOf('8 || (8 + 8)')

/** Every candidate of a kind on a job: what is at fault, and the wiring with it. */
const all = (kind: Fault['kind'], on: Job) => {
  const output = outputOf(on)
  const definition = FAULTS.find(f => f.kind === kind)!
  return definition.candidates(output, speakersOf(output.wiring)).map(f => `${[f.nodeId && nameIn(on, f.nodeId), f.tapW, f.way].filter(x => x !== null).join(' ')}: ${drawn(definition.change(output.wiring, f)).slice(6, -1)}`)
}
const nameIn = (on: Job, id: string) => { const { node } = findPlace(on, id)!.branch; return node.kind === 'speaker' ? node.label : node.kind }

test.each<[string, Fault['kind'], Job, string[]]>([
  ['a tap for every tap it is not on', 'wrong-tap', job, ['01 2.5: 2.5 5 0 2.5', '01 5: 5 5 0 2.5', '02 10: 10 10 0 2.5', '02 2.5: 10 2.5 0 2.5', '03 10: 10 5 10 2.5', '03 2.5: 10 5 2.5 2.5', '03 5: 10 5 5 2.5', '04 10: 10 5 0 10', '04 5: 10 5 0 5']],
  ['no transformer, no tap', 'wrong-tap', low, []],
  ['all on the other scale: what is off stays off', 'taps-on-other-scale', job, ['up: 20 10 0 5', 'down: 5 2.5 0 1.25']],
  ['no transformers at all', 'taps-on-other-scale', low, []],
  ['all one tap off: only where every one has such a tap', 'taps-one-off', job, []],
  ['all one tap up, which is not twice the watts', 'taps-one-off', withTaps([2.5, 5, 6]), ['up: 6 6 0 5']],
  ['one tap up on dials of doubles: it is told as the other scale', 'taps-one-off', withTaps([2.5, 5, 10]), []],
  ['one more beside each; none beside what is off', 'extra-speaker', series, ['01: star(10 10) series(5 0) 2.5', '02: 10 series(star(5 5) 0) 2.5', '04: 10 series(5 0) star(2.5 2.5)']],
  ['one more of plain ones', 'extra-speaker', low, ['01: star(8Ω 8Ω) series(8Ω 8Ω)', '02: 8Ω series(star(8Ω 8Ω) 8Ω)', '03: 8Ω series(8Ω star(8Ω 8Ω))']],
  ['its driver on the line: known, taken for 8 Ω, off too', 'low-impedance-position', job, ['01: 4Ω 5 0 2.5', '02: 10 8Ω 0 2.5', '03: 10 5 8Ω 2.5', '04: 10 5 0 8Ω']],
  ['only behind a transformer', 'low-impedance-position', low, []],
  ['a break in the reach: along the chain all beyond is gone, in a series it is one open', 'break-in-reach', series, ['01: open', 'series: 10 open', '02: 10 series(open 0) 2.5', '03: 10 series(5 open) 2.5', '04: 10 series(5 0) open']],
  ['a short at a drop', 'short-at-drop', low, ['01: short series(8Ω 8Ω)', '02: 8Ω series(short 8Ω)', '03: 8Ω series(8Ω short)']],
])('%s', (_, kind, on, wanted) => expect(all(kind, on)).toEqual(wanted))

test('a leak lies at places along a chain, after them and before what follows; of many at eight at most; across a group, not in it', () => {
  const chainOf = (count: number) => outputOf(jobOf(`${count} x 10 W on 70 V`))
  const leaksOn = (output: ReturnType<typeof outputOf>) => FAULTS.find(f => f.kind === 'leak-across')!.candidates(output, speakersOf(output.wiring))
  const places = (output: ReturnType<typeof outputOf>) => [...new Set(leaksOn(output).map(f => speakersOf(output.wiring).findIndex(s => s.id === f.nodeId)))]
  expect([1, 2, 3, 6, 40].map(count => places(chainOf(count)).join())).toEqual(['0', '1', '1', '1,3,5', '2,7,12,17,22,27,32,37'])
  expect(places(outputOf(low)).length).toBeLessThanOrEqual(1)
  const three = chainOf(3)
  const leak = leaksOn(three).find(f => f.amount === 2)!
  expect(drawn(FAULTS.find(f => f.kind === 'leak-across')!.change(three.wiring, leak))).toMatch(/^chain\(10 star\(10 333(\.\d+)?Ω\) 10\)$/)
  // Across two in series, not in series with them.
  const withLeak = (output: ReturnType<typeof outputOf>) => drawn(FAULTS.find(f => f.kind === 'leak-across')!.change(output.wiring, leaksOn(output).find(f => f.amount === 2)!))
  expect(withLeak(outputOf(jobOf('8 + 8 on 100 W at 4')))).toBe('chain(star(series(8Ω 8Ω) 32Ω))')
})

test('what corrects the plan: the tap it is on, all taps, one more; nothing for a speaker that is gone', () => {
  const even = applyEdit(job, setTap(findPlace(job, a)!.branch.node as never, 5)!).job
  const planned = (kind: Fault['kind'], fault: Partial<Fault>, on = even) => {
    const edit = FAULTS.find(f => f.kind === kind)!.plan?.({ job: on, output: outputOf(on), fault: { kind, nodeId: null, tapW: null, way: null, ...fault } as Fault, newId: counter('p') }) ?? null
    return edit && drawn(outputOf(applyEdit(on, edit).job).wiring).slice(6, -1)
  }
  expect(planned('wrong-tap', { nodeId: b, tapW: 2.5 })).toBe('5 2.5 0 2.5')
  expect(planned('wrong-tap', { nodeId: 'gone', tapW: 2.5 })).toBeNull()
  expect(planned('taps-one-off', { way: 'up' })).toBe('10 10 0 5')
  expect(planned('taps-one-off', { way: 'down' }, job)).toBe('5 2.5 0 2.5')
  expect([planned('taps-on-other-scale', { way: 'up' }), planned('taps-on-other-scale', { way: 'down' }), planned('taps-on-other-scale', { way: 'up' }, job)]).toEqual(['10 10 0 5', null, null])
  expect(planned('extra-speaker', { nodeId: d })).toBe('5 5 0 2.5 2.5')
  expect(planned('extra-speaker', { nodeId: 'gone' })).toBeNull()
  expect(FAULTS.find(f => f.kind === 'low-impedance-position')!.assumes!(findPlace(job, a)!.branch.node as never)).toBeNull()
  expect(FAULTS.find(f => f.kind === 'low-impedance-position')!.assumes!(findPlace(job, b)!.branch.node as never)).toMatch(/8 Ω/)
})
