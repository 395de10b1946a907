import { bestTap, driveInto, floorOhm, tapFit, valveOf, type OutputRating } from '#core/amplifier/index'
import { isUnderFloor } from '#core/quantity/tolerance'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { evenNetworks, MOST_WHOLE, networkOf, Networks } from './enumerate'
import { connectionsOf, depthOf, ohmOf, sharesOf, writeNetwork, type Network, type Unit } from './network'

/**
 * Every way to wire given speakers on an output, equals recognised as one: which loads it accepts, what each speaker gets, in the order of fewest joints.
 * Loads are nominal, as labels have them.
 */
export interface WiringsAsked {
  units: readonly (Unit & { ratingW: number | null })[]
  rating: OutputRating
  /** Whether only those are wanted in which all get power as their weights say. */
  isFair: boolean
  /** Outputs that share the speakers, each with an equal part of every kind. */
  channels?: 1 | 2 | 4
  /** Two outputs driven as one. */
  isBridged?: boolean
}
export interface Wiring {
  network: Network
  text: string
  loadOhm: number
  /** What the output gives into it, W; null while it is not known. */
  amplifierW: number | null
  /** What each speaker gets, in the order of `text`, W; of one watt while the output is not known. */
  powerW: number[]
  connections: number
}
export interface Wirings {
  wirings: Wiring[]
  /** `isTooLow`: under what the output allows, or below all of its taps; else it matches none of them. */
  refused: { text: string, loadOhm: number, why: string, isTooLow: boolean }[]
  /** Distinct networks in all; null where there are more than a number holds. */
  distinct: number | null
  /** Networks in which speakers get other shares than wanted; null as `distinct`. */
  unfair: number | null
  /** Whether all of them were gone through; of more than eight equal speakers those of equal groups were. */
  isWhole: boolean
}

/** More than these help nobody. */
const MOST_SHOWN = 200
const MOST_REFUSED = 60

export type NotWired = 'no-speaker' | 'too-many-mixed' | 'too-many' | 'not-divisible' | 'not-an-output'
export const NOT_WIRED_WORDS: Record<NotWired, string> = {
  'no-speaker': 'No speaker to wire.', 'too-many-mixed': 'More than eight that are not alike cannot be gone through: wire groups of them.', 'too-many': 'More than 64 on one output: wire groups of them.',
  'not-divisible': 'They cannot be spread evenly over so many outputs.', 'not-an-output': 'On a transformer line they hang in parallel: nothing to find.',
}
export const MOST_EQUAL = 64

export function findWirings({ units: asked, rating: given, isFair, channels = 1, isBridged = false }: WiringsAsked): Wirings | NotWired {
  if (given.kind === 'constant-voltage') return 'not-an-output'
  if (asked.some(u => u.count % channels !== 0)) return 'not-divisible'
  const units = asked.filter(u => u.count > 0).map(u => ({ ...u, count: u.count / channels }))
  const count = units.reduce((sum, u) => sum + u.count, 0)
  if (count === 0) return 'no-speaker'
  if (count > MOST_EQUAL) return 'too-many'
  if (units.length > 1 && count > MOST_WHOLE) return 'too-many-mixed'
  const rating = isBridged && given.kind === 'solid-state' ? { ...given, mode: 'bridged' } as const : given
  const floor = floorOhm(rating)
  // A valve output takes what matches one of its taps, whichever the line is on now.
  const valve = valveOf(rating)
  const tapFor = (ohm: number) => valve && bestTap(valve.tapsOhm, ohm)
  const isMatched = (ohm: number, tapOhm: number | null) => tapOhm !== null && tapFit(ohm, tapOhm) === 'matched'
  const isAccepted = (ohm: number) => valve ? isMatched(ohm, tapFor(ohm)) : floor === null || !isUnderFloor(ohm, floor)
  const givesW = (ohm: number) => driveInto(valve ? { ...valve, tapOhm: tapFor(ohm) } : rating, ohm)?.powerW ?? null

  const isWhole = count <= MOST_WHOLE
  const good = new Least<Network>()
  const low = new Least<Network>()
  let fair = 0
  const offer = (loadOhm: number, joints: number, depth: number, make: () => Network): void => {
    fair++
    // Of what is refused, the nearest to what is allowed.
    if (isAccepted(loadOhm)) good.offer(100 * joints + depth, make)
    else low.offer(-loadOhm * 1e6 + joints, make)
  }
  const whole = (network: Network) => offer(ohmOf(network, units), connectionsOf(network), depthOf(network), () => network)
  if (count === 1) whole({ kind: 'one', unit: 0 })
  else if (isWhole) new Networks(units, isFair).forEach((kind, parts, ohm, joints, depth) => {
    offer(ohm, 2 + joints, depth, () => networkOf(kind, parts))
  })
  else evenNetworks(count).forEach(whole)

  const total = new Networks(units).count()
  const distinct = total <= BigInt(Number.MAX_SAFE_INTEGER) ? Number(total) : null
  const write = (unit: number) => `${writeNumber(units[unit]!.ohm, 6)}${units[unit]!.ratingW === null ? '' : ` ohm ${writeNumber(units[unit]!.ratingW!, 6)} W`}`
  return {
    wirings: good.sorted(MOST_SHOWN).map((network): Wiring => {
      const loadOhm = ohmOf(network, units)
      const amplifierW = givesW(loadOhm)
      return {
        network, text: writeNetwork(network, write), loadOhm, amplifierW, powerW: sharesOf(network, units).map(s => s.share * (amplifierW ?? 1)),
        connections: connectionsOf(network),
      }
    }),
    refused: low.sorted(MOST_REFUSED).map((network) => {
      const loadOhm = ohmOf(network, units)
      const isTooLow = !valve || bestTap(valve.tapsOhm, loadOhm) === null
      const why = valve
        ? `${writeQuantity(loadOhm, 'Ω')} ${isTooLow ? 'is below all' : 'matches none'} of its taps, ${valve.tapsOhm.map(tap => writeQuantity(tap, 'Ω')).join(', ')}`
        : `${writeQuantity(loadOhm, 'Ω')} is under the ${writeQuantity(floor!, 'Ω')} that the output allows${isBridged ? ' bridged' : ''}`
      return { text: writeNetwork(network, write), loadOhm, why, isTooLow }
    }),
    distinct, unfair: distinct === null || !isWhole ? null : distinct - fair, isWhole,
  }
}

/** Those of the least cost of all that are offered. What is offered is made only where it may stay. */
class Least<T> {
  private held: { item: T, cost: number }[] = []
  private worst = Infinity

  offer(cost: number, make: () => T): void {
    if (cost >= this.worst) return
    this.held.push({ item: make(), cost })
    if (this.held.length < 2 * MOST_SHOWN) return
    this.trim(MOST_SHOWN)
    this.worst = this.held.at(-1)!.cost
  }

  private trim(most: number): void {
    this.held = this.held.sort((a, b) => a.cost - b.cost).slice(0, most)
  }

  sorted(most: number): T[] {
    this.trim(most)
    return this.held.map(h => h.item)
  }
}
