import type { Joint, Joints } from './joints'
import { flip, type Parity } from './turned'

/**
 * The fewest places at which a pair is to be swapped so that the speakers of each group agree, over all lines together: a joint before ten
 * speakers is one swap. Exact: what is still open is carried from the ends of each line to its head, for every way in which groups that are not
 * complete yet may come to lie. Where more of them are open at once than can be carried, it says so.
 */

/** One end: which way round it is now, and the group that is to agree; group null: it is to be as marked. */
export interface End { before: number, parity: Parity, group: string | null }
export interface SwapLine { line: Pick<Joints, 'joints'>, ends: readonly End[] }
export interface Swap { line: number, joint: Joint }
export interface FewestSwaps { swaps: Swap[], isProven: boolean }

/** States carried at once: 2^12 groups that all are open at one joint. */
const MOST_STATES = 4096
/** A swap weighs this against what merely makes one place likelier than another. */
const SWAP = 1_000_000

/** Equal numbers of swaps: first where a crossing is drawn, then at terminals, which are in reach, then at joints. */
function weightOf({ turn, at }: Joint): number {
  return SWAP + (turn === 'crossed' ? 0 : at === 'start' ? 2 : 1)
}

/** What was decided of groups on the way to a state: shared, never copied. */
type Decided = { group: string, as: Parity } | { both: readonly [Decided, Decided] } | null
interface State { costs: [number, number], decided: [Decided, Decided] }
/** By how the open groups lie, in their order: "a0 b1". */
type States = Map<string, State>
/** `open`: groups of which ends are elsewhere, too, in order; `ends`: how many of each are in here. */
interface Table { open: readonly string[], ends: ReadonlyMap<string, number>, states: States }

const NOTHING: Table = { open: [], ends: new Map(), states: new Map([['', { costs: [0, 0], decided: [null, null] }]]) }

export function fewestSwaps(lines: readonly SwapLine[]): FewestSwaps {
  const total = new Map<string, number>()
  for (const { ends } of lines) for (const { group } of ends) if (group !== null) total.set(group, (total.get(group) ?? 0) + 1)
  let all: Table | null = NOTHING
  for (const line of lines) {
    const table: Table | null = all && foldLine(line, total)
    all = table && joined(all!, table, total)
  }
  // Too much at once: each group as the most of it lie.
  const as = all ? collected(all.states.get('')!.decided[0]) : byMost(lines)
  const swaps = lines.flatMap((line, k) => swapsOf(line, as).map(joint => ({ line: k, joint })))
  return { swaps, isProven: all !== null }
}

/** From the ends to the head: at each joint what all behind it costs, by whether it comes turned or not. Null where that is too much to carry. */
function foldLine({ line: { joints }, ends }: SwapLine, total: ReadonlyMap<string, number>): Table | null {
  const behind = joints.map((): Table | null => NOTHING)
  for (const end of ends) behind[end.before] = behind[end.before]! && joined(behind[end.before]!, endTable(end), total)
  let head: Table | null = NOTHING
  for (let k = joints.length - 1; k >= 0; k--) {
    const table = behind[k]
    if (!table) return null
    behind[k] = null
    const { before } = joints[k]!
    const passed = through(table, weightOf(joints[k]!))
    if (before !== null) behind[before] = behind[before]! && joined(behind[before]!, passed, total)
    else head = head && joined(head, passed, total)
  }
  return head
}

/** One end under a pair that comes turned or not: it is right as marked, or its group lies as it comes. */
function endTable({ parity, group }: End): Table {
  const state = (as: Parity): State => ({ costs: [flip(parity, 0) === as ? 0 : Infinity, flip(parity, 1) === as ? 0 : Infinity], decided: [null, null] })
  return group === null
    ? { open: [], ends: new Map(), states: new Map([['', state(0)]]) }
    : { open: [group], ends: new Map([[group, 1]]), states: new Map([['0', state(0)], ['1', state(1)]]) }
}

/** Through a joint that may be swapped: it comes turned as before, or the other way for the weight of a swap. */
function through({ states, ...table }: Table, weight: number): Table {
  return { ...table, states: new Map([...states].map(([key, { costs: [a, b], decided: [da, db] }]) => [key, {
    costs: [Math.min(a, b + weight), Math.min(b, a + weight)], decided: [a <= b + weight ? da : db, b <= a + weight ? db : da],
  }])) }
}

/** Both behind one joint: groups that are open in both lie alike in both, and those of which nothing is elsewhere are settled. Null where that is too much. */
function joined(a: Table, b: Table, total: ReadonlyMap<string, number>): Table | null {
  const open = [...new Set([...a.open, ...b.open])].sort()
  if (2 ** open.length > MOST_STATES) return null
  const states: States = new Map()
  const pick = (table: Table, key: string) => table.states.get(table.open.map(group => key[open.indexOf(group)]).join(''))
  for (let k = 0; k < 2 ** open.length; k++) {
    const key = open.length === 0 ? '' : k.toString(2).padStart(open.length, '0')
    const [sa, sb] = [pick(a, key)!, pick(b, key)!]
    states.set(key, {
      costs: [sa.costs[0] + sb.costs[0], sa.costs[1] + sb.costs[1]],
      decided: [both(sa.decided[0], sb.decided[0]), both(sa.decided[1], sb.decided[1])],
    })
  }
  const ends = new Map(open.map(group => [group, (a.ends.get(group) ?? 0) + (b.ends.get(group) ?? 0)]))
  return settled({ open, ends, states }, total)
}

const both = (a: Decided, b: Decided): Decided => a === null ? b : b === null ? a : { both: [a, b] }

/** Groups that are whole in here lie the cheaper way, for each way in which the pair may come. */
function settled({ open, ends, states }: Table, total: ReadonlyMap<string, number>): Table {
  const whole = open.filter(group => ends.get(group) === total.get(group))
  if (whole.length === 0) return { open, ends, states }
  const still = open.filter(group => !whole.includes(group))
  const result: States = new Map()
  for (const [key, { costs, decided }] of states) {
    const as = whole.reduce<Decided>((all, group) => both(all, { group, as: key[open.indexOf(group)] === '1' ? 1 : 0 }), null)
    const short = still.map(group => key[open.indexOf(group)]).join('')
    const now = result.get(short) ?? { costs: [Infinity, Infinity], decided: [null, null] }
    for (const turned of [0, 1] as const) {
      if (costs[turned] >= now.costs[turned]) continue
      now.costs[turned] = costs[turned]
      now.decided[turned] = both(decided[turned], as)
    }
    result.set(short, now)
  }
  return { open: still, ends: new Map(still.map(group => [group, ends.get(group)!])), states: result }
}

function collected(decided: Decided): Map<string, Parity> {
  const as = new Map<string, Parity>()
  const todo: Decided[] = [decided]
  for (let one = todo.pop(); one !== undefined; one = todo.pop()) {
    if (one === null) continue
    if ('both' in one) todo.push(...one.both)
    else as.set(one.group, one.as)
  }
  return as
}

/** As the most of each group lie: a beginning where exact is too much. */
function byMost(lines: readonly SwapLine[]): Map<string, Parity> {
  const sums = new Map<string, number>()
  for (const { ends } of lines) for (const { group, parity } of ends) if (group !== null) sums.set(group, (sums.get(group) ?? 0) + (parity === 1 ? 1 : -1))
  return new Map([...sums].map(([group, sum]) => [group, sum > 0 ? 1 : 0]))
}

/** The joints of one line to be swapped, once it is settled how each group is to lie: the fewest, from the ends to the head and back. */
function swapsOf({ line: { joints }, ends }: SwapLine, as: ReadonlyMap<string, Parity>): Joint[] {
  const costs = joints.map((): [number, number] => [0, 0])
  for (const { before, parity, group } of ends) {
    const wanted = flip(parity, group === null ? 0 : as.get(group) ?? 0)
    costs[before]![wanted === 0 ? 1 : 0] = Infinity
  }
  for (let k = joints.length - 1; k >= 0; k--) {
    const { before } = joints[k]!
    const [a, b] = costs[k]!
    if (before === null) continue
    const weight = weightOf(joints[k]!)
    costs[before]![0] += Math.min(a, b + weight)
    costs[before]![1] += Math.min(b, a + weight)
  }
  const comes: Parity[] = []
  return joints.filter((joint, k) => {
    const arrives = joint.before === null ? 0 : comes[joint.before]!
    const isSwapped = costs[k]![arrives] > costs[k]![flip(arrives, 1)] + weightOf(joint)
    comes[k] = isSwapped ? flip(arrives, 1) : arrives
    return isSwapped
  })
}
