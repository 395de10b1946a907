import { runs } from '#core/testing/runs'
import { beforeAll, expect, test } from '@jest/globals'
import highsLoader from 'highs'
import { applyEdit } from '#core/job/apply'
import type { Job } from '#core/job/schema'
import { plainSpace } from '#core/job/sections/spaces/schema'
import { putBefore, unknownControl } from '#core/hands/throughs'
import { outputsOf, speakersOf } from '#core/job/tree'
import { cabled, counter, jobOf } from '#core/testing/jobs'
import { seeded } from '#core/testing/trees'
import { evaluateJob } from '#core/line/evaluate'
import { HIGHS_OPTIONS, solvedByHighs, type SolveLp } from './lp'
import { NOT_SPLIT_WORDS, splitEdit, splitLine, splitWords, type LineSplit } from './splitLine'

let highs: Awaited<ReturnType<typeof highsLoader>>
const solve: SolveLp = lp => Promise.resolve(solvedByHighs(highs.solve(lp, HIGHS_OPTIONS) as never))
beforeAll(async () => { highs = await highsLoader() })

/** A line of taps, so many metres apart, its speakers in spaces by letter ("-" in none). */
function lineOf(tapsW: number[], leadsM: number[], spaces: string, powerW: number): Job {
  const job = jobOf(`${tapsW.map(w => `${w} W`).join(' + ')} on 70 V ${powerW} W`)
  const nodes = outputsOf(job)[0]!.wiring.children.map(b => b.node.id)
  const long = nodes.reduce((j, nodeId, k) => applyEdit(j, { kind: 'lead.set', nodeId, was: null, to: { cable: { awg: 14 }, lengthM: leadsM[k]! } }).job, job)
  return [...new Set(spaces.replaceAll('-', ''))].reduce((j, letter, k) => applyEdit(j, { kind: 'space.add', index: k, space: { ...plainSpace(letter, `Room ${letter}`), spots: [...spaces].flatMap((l, n) => l === letter ? [{ id: `${letter}${n}`, xM: 1, yM: 1, heightM: null, aim: null, nodeId: nodes[n]! }] : []) } }).job, long)
}
const split = async (job: Job, into: number) => splitLine(job, evaluateJob(job)[0]!, into, solve)

test('against every way to divide small lines: fewest spaces divided, then least cable; when none fits, none is said to', async () => {
  const chance = seeded(29)
  let [fit, stuck] = [0, 0]
  for (let n = 0; n < runs(80); n++) {
    const count = 3 + Math.floor(chance() * 4)
    const into = 2 + Math.floor(chance() * 2)
    const tapsW = Array.from({ length: count }, () => [5, 10, 20, 30][Math.floor(chance() * 4)]!)
    const leadsM = Array.from({ length: count }, () => Math.round(chance() * 20))
    const spaces = Array.from({ length: count }, () => 'aabbc-'[Math.floor(chance() * 6)]!).join('')
    const total = tapsW.reduce((a, b) => a + b)
    const powerW = Math.max(6, Math.round(total / into * (0.9 + 0.9 * chance())))
    // Two neighbours behind a control go together, whatever rooms they are in.
    const behind = chance() < 0.5 ? Math.floor(chance() * (count - 1)) : null
    const plain = lineOf(tapsW, leadsM, spaces, powerW)
    const put = behind === null ? null : putBefore(plain, speakersOf(outputsOf(plain)[0]!.wiring).slice(behind, behind + 2).map(s => s.id), unknownControl('C1'), counter('through'))
    const job = put !== null && typeof put === 'object' ? applyEdit(plain, put.edit).job : plain
    const blocks = Array.from({ length: count }, (_, k) => k).filter(k => behind === null || k !== behind + 1).map(k => k === behind ? [k, k + 1] : [k])
    const found = await split(job, into) as LineSplit
    if (typeof found === 'string') {
      expect([n, found, blocks.length < into]).toEqual([n, 'too-few', true])
      continue
    }
    const tops = outputsOf(job)[0]!.wiring.children.map(b => b.lead?.lengthM ?? 0)
    const at = tops.map((_, k) => tops.slice(0, k + 1).reduce((a, b) => a + b))
    let best: { cuts: number, cableM: number } | null = null
    for (let way = 0; way < into ** blocks.length; way++) {
      const part = blocks.map((_, k) => Math.floor(way / into ** k) % into)
      const parts = Array.from({ length: into }, (_, p) => part.flatMap((x, k) => x === p ? [k] : []))
      if (parts.some(p => p.length === 0 || p.reduce((w, k) => w + blocks[k]!.reduce((a, j) => a + tapsW[j]!, 0), 0) > 0.8 * powerW + 1e-9)) continue
      const cuts = ['a', 'b', 'c'].filter(l => parts.filter(p => p.some(k => blocks[k]!.some(j => spaces[j] === l))).length > 1).length
      const cableM = parts.reduce((sum, p) => sum + Math.max(...p.map(k => at[k]!)), 0)
      if (!best || cuts < best.cuts || (cuts === best.cuts && cableM < best.cableM)) best = { cuts, cableM }
    }
    expect([n, found.feasible]).toEqual([n, best !== null])
    if (!best) {
      stuck++
      continue
    }
    fit++
    const plays = (nodeIds: readonly string[], l: string) => job.spaces.find(s => s.id === l)?.spots.some(x => nodeIds.includes(x.nodeId!)) ?? false
    const cuts = ['a', 'b', 'c'].filter(l => found.parts.filter(p => plays(p.nodeIds, l)).length > 1).length
    expect([n, cuts, found.cableM]).toEqual([n, best.cuts, expect.closeTo(best.cableM, 6)])
    expect(found.boundM).toBeCloseTo(best.cableM, 3)
    // Done, every line is within its rule, and the runs are as long as was said.
    const { edit, outputIds } = splitEdit(job, evaluateJob(job)[0]!, found, counter('new'))!
    const after = applyEdit(job, edit).job
    expect(outputIds.length).toBe(into - 1)
    expect(outputsOf(after).flatMap(o => o.wiring.children).reduce((sum, b) => sum + (b.lead?.lengthM ?? 0), 0)).toBeCloseTo(found.cableM, 6)
    expect(evaluateJob(after).every(l => l.counted!.tapsW <= 0.8 * powerW + 1e-6)).toBe(true)
    expect(outputsOf(after).flatMap(o => speakersOf(o.wiring)).length).toBe(count)
  }
  expect(Math.min(fit, stuck)).toBeGreaterThan(15)
}, 60_000)

test('what hangs behind a control goes whole; the sentence says who goes where', async () => {
  const job = lineOf([10, 10, 10, 10], [10, 5, 5, 5], '----', 60)
  const ids = speakersOf(outputsOf(job)[0]!.wiring).map(s => s.id)
  const put = putBefore(job, ids.slice(1, 3), unknownControl('C1'), counter('c'))
  const controlled = put !== null && typeof put === 'object' ? applyEdit(job, put.edit).job : job
  const found = await split(controlled, 2) as LineSplit
  const [inFirst, inSecond] = found.parts.map(p => [ids[1]!, ids[2]!].filter(id => p.nodeIds.includes(id)).length)
  expect([[0, 2], [2, 0]]).toContainEqual([inFirst, inSecond])
  expect(splitWords('A1', await split(job, 2) as LineSplit, ['A2'])).toMatch(/^0[\d, ]+ stay on A1; 0[\d, ]+ go to A2; no space is divided, and no other split takes less cable\.$/)
  const rooms = await split(lineOf([20, 20], [1, 1], 'aa', 30), 2) as LineSplit
  expect(splitWords('A1', rooms, ['A2'])).toMatch(/Room a hears both/)
})

test.each<[string, () => Job, number, keyof typeof NOT_SPLIT_WORDS]>([
  ['one speaker', () => jobOf('10 W on 70 V 60 W'), 2, 'too-few'],
  ['low impedance', () => jobOf('8 || 8 on 100 W at 4'), 2, 'no-taps'],
  ['not rated', () => jobOf('4 x 10 W on 70 V'), 2, 'power-not-known'],
  ['into more than there are', () => jobOf('2 x 10 W on 70 V 60 W'), 3, 'too-few'],
])('not split: %s', async (_, job, into, why) => {
  expect(await split(job(), into)).toBe(why)
  expect(NOT_SPLIT_WORDS[why].length).toBeGreaterThan(10)
})

test('a room that three outputs play into is divided once, and may be', async () => {
  const found = await split(lineOf([20, 20, 20], [5, 5, 5], 'aaa', 30), 3) as LineSplit
  expect([found.feasible, found.cutSpaces, found.cableM, found.boundM]).toEqual([true, ['Room a'], 30, expect.closeTo(30, 6)])
})

test('sixty speakers onto three outputs, proven; lengths that are not stated are said', async () => {
  const job = cabled(jobOf('60 x 5 W on 70 V 140 W'), { cable: { awg: 14 }, lengthM: 6 })
  const found = await split(job, 3) as LineSplit
  expect([found.feasible, found.proven, found.parts.map(p => p.nodeIds.length).reduce((a, b) => a + b), found.areLengthsKnown]).toEqual([true, true, 60, true])
  // 22 fit on one: the far part takes the last 22, the middle one the 22 before, and runs as far.
  expect(found.cableM).toBe(6 * (60 + 38 + 16))
  expect((await split(jobOf('4 x 5 W on 70 V 14 W'), 2) as LineSplit).areLengthsKnown).toBe(false)
}, 60_000)
