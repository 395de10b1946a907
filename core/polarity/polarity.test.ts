import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { fewestSwaps, type End, type SwapLine } from './fewestSwaps'
import { drawnParity, type Joint, type Joints } from './joints'
import type { Parity } from './turned'
import { always } from '#core/testing/runs'

/** A tree of joints of any shape: each hangs on an earlier one, or on the amplifier; ends at some of them, in a few groups. */
const line = (joints: number, ends: number, groups: number): fc.Arbitrary<SwapLine> => fc.tuple(
  fc.array(fc.tuple(fc.nat(), fc.constantFrom('straight', 'crossed', null)), { minLength: 1, maxLength: joints }),
  fc.array(fc.tuple(fc.nat(), fc.constantFrom<Parity>(0, 1), fc.integer({ min: -1, max: groups - 1 })), { maxLength: ends }),
).map(([made, hung]) => ({
  line: { joints: made.map(([n, turn], k): Joint => ({ at: n % 3 === 0 ? 'start' : 'end', nodeId: `n${k}`, coil: null, turn: turn as Joint['turn'], before: k === 0 || n % 4 === 0 ? null : n % k })) },
  ends: hung.map(([n, parity, group]): End => ({ before: n % made.length, parity, group: group < 0 ? null : `g${group}` })),
}))

const wayTo = (joints: readonly Joint[], from: number): number[] => joints[from]!.before === null ? [from] : [from, ...wayTo(joints, joints[from]!.before!)]

/** Whether every group agrees, and what has none is as marked, with these joints swapped. */
function allAgree(lines: readonly SwapLine[], isSwapped: (line: number, joint: number) => boolean): boolean {
  const as = new Map<string | null, number>([[null, 0]])
  return lines.every(({ line: { joints }, ends }, l) => ends.every(({ before, parity, group }) => {
    const now = (parity + wayTo(joints, before).filter(k => isSwapped(l, k)).length) % 2
    if (!as.has(group)) as.set(group, now)
    return as.get(group) === now
  }))
}

/** Every set of joints there is, and the size of the smallest that does. */
function exhaustive(lines: readonly SwapLine[]): number {
  const all = lines.flatMap(({ line: { joints } }, l) => joints.map((_, k) => `${l} ${k}`))
  let least = Infinity
  for (let bits = 0; bits < 2 ** all.length; bits++) {
    const chosen = new Set(all.filter((_, k) => bits >> k & 1))
    if (chosen.size < least && allAgree(lines, (l, k) => chosen.has(`${l} ${k}`))) least = chosen.size
  }
  return least
}

test('as few swaps as the best of all sets, and they do what they promise', () => {
  let shared = 0
  always(fc.property(fc.array(line(6, 7, 3), { minLength: 1, maxLength: 2 }), (lines) => {
    const least = exhaustive(lines)
    // Two ends of one joint that lie otherwise: no swap parts them.
    if (least === Infinity) return
    const found = fewestSwaps(lines)
    const swapped = new Set(found.swaps.map(({ line: l, joint }) => `${l} ${lines[l]!.line.joints.indexOf(joint)}`))
    if (lines.length > 1 && found.swaps.length > 0) shared++
    expect([found.isProven, swapped.size, allAgree(lines, (l, k) => swapped.has(`${l} ${k}`))]).toEqual([true, least, true])
  }), 1500)
  expect(shared).toBeGreaterThan(100)
})

const joint = (nodeId: string, at: Joint['at'], before: number | null, turn: Joint['turn'] = 'straight'): Joint => ({ at, nodeId, coil: null, turn, before })
/** A chain of so many speakers: the beginning of each lead, then its terminals. */
const chain = (turns: Joint['turn'][]): Joint[] => turns.flatMap((turn, k) => [joint(`s${k}`, 'start', k === 0 ? null : 2 * (k - 1), turn), joint(`s${k}`, 'end', 2 * k)])
const said = (lines: SwapLine[]) => fewestSwaps(lines).swaps.map(({ joint: { at, nodeId } }) => `${at} ${nodeId}`)
const inRoom = (parities: Parity[], group: string | null = 'room'): End[] => parities.map((parity, k) => ({ before: 2 * k + 1, parity, group }))

test.each<[string, SwapLine[], string[]]>([
  ['one crossed splice before ten is one swap', [{ line: { joints: chain(['straight', 'crossed', ...Array.from({ length: 9 }, (): Joint['turn'] => 'straight')]) }, ends: inRoom([0, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1]) }], ['start s1']],
  ['all alike need none to agree', [{ line: { joints: chain(['crossed', 'straight']) }, ends: inRoom([1, 1]) }], []],
  ['and one to be as marked', [{ line: { joints: chain(['crossed', 'straight']) }, ends: inRoom([1, 1], null) }], ['start s0']],
  ['one in the middle: its terminals, not two joints', [{ line: { joints: chain(['straight', 'straight', 'straight']) }, ends: inRoom([0, 1, 0]) }], ['end s1']],
  ['of equal places the one that is drawn crossed', [{ line: { joints: chain(['straight', 'straight', 'crossed']) }, ends: inRoom([0, 0, 1]) }], ['start s2']],
  ['two rooms on one line each for itself', [{ line: { joints: chain(['crossed', 'straight', 'crossed', 'straight']) }, ends: [...inRoom([1, 1]), { before: 5, parity: 0, group: 'hall' }, { before: 7, parity: 0, group: 'hall' }] }], []],
  ['a room over two lines', [{ line: { joints: chain(['straight']) }, ends: inRoom([0]) }, { line: { joints: chain(['crossed']) }, ends: inRoom([1]) }], ['start s0']],
])('fewest swaps: %s', (_, lines, expected) => expect(said(lines)).toEqual(expected))

test('more open groups than can be carried: it says that it is not proven, and what it gives is right all the same', () => {
  const groups = Array.from({ length: 14 }, (_, k) => `g${k}`)
  const turns = [...groups, ...groups].map((): Joint['turn'] => null)
  const one: SwapLine = { line: { joints: chain(turns) }, ends: turns.map((_, k) => ({ before: 2 * k + 1, parity: k === 20 ? 1 : 0, group: groups[k % 14]! })) }
  const found = fewestSwaps([one])
  const swapped = new Set(found.swaps.map(({ joint }) => one.line.joints.indexOf(joint)))
  expect([found.isProven, allAgree([one], (_, k) => swapped.has(k))]).toEqual([false, true])
})

test.each<[string, Joint['turn'][], (number | null)[]]>([
  ['straight all the way', ['straight', 'straight'], [0, 0]],
  ['a crossing turns all behind it', ['straight', 'crossed', 'straight'], [0, 1, 1]],
  ['two crossings cancel', ['crossed', 'crossed'], [1, 0]],
  ['behind what nobody knows nothing is known', ['straight', null, 'crossed'], [0, null, null]],
])('as it is drawn: %s', (_, turns, expected) => {
  const line: Pick<Joints, 'joints'> = { joints: chain(turns) }
  expect(turns.map((_, k) => drawnParity(line, 2 * k + 1))).toEqual(expected)
})
