import { onceEach } from '#core/quantity/once'
import { logSum } from './chances'
import { ranked, type Ranking, type Scored, type Tried } from './rank'
import { betweenBoth, bothOf, familyOf } from './sizes'

/** Of all pairs that the search has found (pairs.ts) the likeliest, each solved as the changed network that it is. */

/** Solved once more, and listed. */
const SOLVED_AGAIN = 120
const LISTED = 60
/** What comes out so far off what it was found to be is solved in all its sizes, as a logarithm; so many of one pair; and of all. */
const FAR_OFF = 0.5
const SIZES_TOGETHER = 16
const SIZES_ANEW = 240
/** Pairs of what reads alike that are taken apart again. */
const EXPANDED = 2000

/** One of those that read alike: a single fault by its number, and what it comes to by itself, as a logarithm. */
export interface Member { index: number, ownLog: number }
/** Names as numbers, from 0 in the order that they are first asked for. */
export function numbered(): (name: string) => number {
  let count = 0
  return onceEach(() => count++)
}

/** Pairs that may be listed: the logarithm of what two of them come to, and all that read alike of each. */
export interface Found { log: number[], one: (readonly Member[])[], other: (readonly Member[])[] }

/** What all pairs come to, the logarithms that they are told by, and how many they are. */
export interface Sums { sum: number, total0: number, priorLog: number, untriedLog: number, leftOutLog: number, pairs: number }

/** The likeliest pairs, sizes of one fault gathered, solved as what they are; the rest by its sum. */
export function listed(tried: Tried, scored: readonly Scored[], found: Found, { sum, total0, priorLog, untriedLog, leftOutLog, pairs }: Sums): Ranking {
  const { weigher, singles } = tried
  const familyNumber = numbered()
  const both = bothOf(weigher.plan, singles)
  const families = singles.map(({ fault }) => familyNumber(familyOf(fault)))
  // Those that nothing tells apart share what they come to by what each is by itself.
  const shares = (members: readonly Member[]) => {
    const total = logSum(members.map(m => m.ownLog))
    return members.map(m => ({ index: m.index, log: m.ownLog - total }))
  }
  const order = found.log.map((_, k) => k).sort((a, b) => found.log[b]! - found.log[a]!).slice(0, EXPANDED)
  const gathered = new Map<number, { one: number, other: number, log: number, share: number }>()
  for (const k of order) for (const one of shares(found.one[k]!)) for (const other of shares(found.other[k]!)) {
    const log = found.log[k]! + one.log + other.log
    const [a, b] = [families[one.index]!, families[other.index]!]
    const key = Math.min(a, b) * singles.length + Math.max(a, b)
    const known = gathered.get(key)
    if (!known) gathered.set(key, { one: one.index, other: other.index, log, share: Math.exp(log) })
    else {
      known.share += Math.exp(log)
      if (log > known.log) Object.assign(known, { one: one.index, other: other.index, log })
    }
  }
  const best = [...gathered.values()].sort((a, b) => b.share - a.share).slice(0, SOLVED_AGAIN)
  let rest = Math.max(0, sum - best.reduce((s, b) => s + b.share, 0))
  const solve = (k: number, j: number): { scored: Scored, isSum: boolean } => {
    const [one, other] = [singles[k]!, singles[j]!]
    const outcome = both(k, j)
    const between = betweenBoth(weigher, singles, k, j, both)
    const fit = weigher.fitOf(outcome, between)
    return { scored: { faults: [one.fault, other.fault], fit, outcome, log: priorLog + one.priorLog + other.priorLog + fit },
      isSum: between.every((v, o) => v === one.between[o]! + other.between[o]!) }
  }
  const sizesOf = (k: number) => families.flatMap((family, j) => family === families[k] ? [j] : [])
  let anew = SIZES_ANEW
  const solved = best.map((pair): Scored => {
    const { scored: first, isSum } = solve(pair.one, pair.other)
    const off = Math.abs(first.log - total0 - pair.log)
    const [ones, others] = (off < FAR_OFF && isSum) || anew <= 0 ? [[], []] : [sizesOf(pair.one), sizesOf(pair.other)]
    // What the sizes gathered come to beside the likeliest of them stays as it was found.
    if (ones.length * others.length < 2) return { ...first, log: first.log + Math.log(pair.share) - pair.log }
    // One takes from the other what was taken for granted, and another size of it may explain all: each is solved, those of one with the likeliest other.
    const sizes = ones.length * others.length <= SIZES_TOGETHER
      ? ones.flatMap(k => others.map(j => [k, j] as const))
      : [...ones.map(k => [k, pair.other] as const), ...others.filter(j => j !== pair.other).map(j => [pair.one, j] as const)]
    anew -= sizes.length
    const all = sizes.map(([k, j]) => solve(k, j).scored)
    return { ...all.reduce((x, y) => y.log > x.log ? y : x), log: logSum(all.map(x => x.log)) }
  }).sort((a, b) => b.log - a.log)
  for (const s of solved.slice(LISTED)) rest += Math.exp(s.log - total0)
  return ranked(tried, [...scored, ...solved.slice(0, LISTED)], { unlistedLog: Math.log(Math.max(rest, 1e-300)) + total0, untriedLog, leftOutLog,
    tried: { singles: singles.length, pairs } })
}
