import type { Fault } from '#core/faults/fault'
import type { Seen } from '#core/network/solver'
import { onceEach } from '#core/quantity/once'
import { outcomeOf, type OhmPlace, type Outcome, type Plan } from './outcome'

/** Sizes of a fault are tried a few at a time; what lies between two of them is covered by half of their distance, as one sigma. */

/** What one fault at one place is called whatever its size. */
export const familyOf = ({ kind, nodeId, tapW, way, withId }: Fault): string => [kind, nodeId, tapW, way, withId].join(' ')

/** Of each fault the next sizes of the same, smaller and larger, by their numbers in the list. */
export function nextSizes(faults: readonly Fault[]): number[][] {
  const families = new Map<string, number[]>()
  faults.forEach((fault, k) => {
    if (fault.amount === null || fault.kind === 'wrong-jack') return
    const family = familyOf(fault)
    families.set(family, [...families.get(family) ?? [], k])
  })
  const next = faults.map((): number[] => [])
  for (const members of families.values()) {
    members.sort((a, b) => faults[a]!.amount! - faults[b]!.amount!)
    members.forEach((k, m) => { next[k] = [m - 1, m + 1].flatMap(n => members[n] ?? []) })
  }
  return next
}

/** Logarithm of the ohms that are seen: open Infinity, a short -Infinity, no number where it is no place. */
export const lnOf = (seen: Seen | undefined): number =>
  seen === undefined ? NaN : seen.state === 'finite' ? Math.log(seen.ohm) : seen.state === 'open' ? Infinity : -Infinity

/** Variance by what lies between sizes, by the logarithm of the ohms with one of them and with the next (`many` of them); none where it is open or a short. */
export function betweenOf(ln: number, next: readonly number[], many: number = next.length): number {
  let [sum, count] = [0, 0]
  for (let k = 0; k < many; k++) if (Number.isFinite(ln - next[k]!)) {
    sum += Math.abs(ln - next[k]!)
    count++
  }
  return count === 0 ? 0 : (sum / count / 2) ** 2
}

/** Two faults do to the ohms what each does by itself, nearly: then what lies between their sizes does, too. Logarithms. */
export const addsUp = (both: number, one: number, other: number, drawn: number): boolean => Math.abs(both - one - other + drawn) < ADDS_UP
const ADDS_UP = 0.1

/** A single fault with its next sizes, by their numbers, and the variance by what lies between, for each reading in ohms. */
export interface Sized { fault: Fault, outcome: Outcome, next: readonly number[], between: readonly number[] }

/** The line with two single faults in it, by their numbers. */
export type Both = (k: number, j: number) => Outcome
/** Each two are solved once: the sizes beside one are solved themselves, or are beside the next. */
export function bothOf(plan: Plan, singles: readonly Pick<Sized, 'fault'>[]): Both {
  const solved = onceEach((key: number) => outcomeOf(plan, [singles[Math.floor(key / singles.length)]!.fault, singles[key % singles.length]!.fault]))
  return (k, j) => solved(k * singles.length + j)
}

/**
 * Of two faults at once, for each reading in ohms, the variance by sizes that lie between those tried. What is left where one of them shorts most of a line
 * is the other's own: two joints that by themselves read a seventh apart read then as 75 and 250 Ω, and what lay between was in no pair.
 */
export function betweenBoth(
  { plan, ohms }: { plan: Plan, ohms: readonly { place: OhmPlace }[] }, singles: readonly Sized[], k: number, j: number, both: Both,
): number[] {
  const [one, other] = [singles[k]!, singles[j]!]
  return ohms.map(({ place }, o) => {
    const sum = one.between[o]! + other.between[o]!
    if (sum === 0) return sum
    const lnAt = (outcome: Outcome) => lnOf(outcome.sight(place)?.seen)
    const ln = lnAt(both(k, j))
    if (addsUp(ln, lnAt(one.outcome), lnAt(other.outcome), lnAt(plan.drawn))) return sum
    return betweenOf(ln, one.next.map(n => lnAt(both(n, j)))) + betweenOf(ln, other.next.map(n => lnAt(both(k, n))))
  })
}
