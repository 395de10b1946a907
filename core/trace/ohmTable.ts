import type { Seen } from '#core/network/solver'
import { likeAnyOhm, likeOhm, mostOfOhm, offsets, orSlip } from './ohms'
import type { Weigher } from './weigh'

/** What each head would mean for one reading, found once in steps of a hundredth: all pairs are looked up in it. */
const STEP = 0.01
const FROM_LN = Math.log(1e-2)
const ROWS = Math.ceil((Math.log(1e6) - FROM_LN) / STEP)
/** Spreads by sizes between those tried, one sigma: the nearest counts. */
const BETWEEN = [0, 0.06, 0.12, 0.2, 0.35, 0.6, 1, 1.6]

/** The most that any of it comes to. */
export const mostOf = ({ plan, ohms }: Pick<Weigher, 'plan' | 'ohms'>, k: number): number =>
  Math.log(orSlip(mostOfOhm(ohms[k]!, plan.drawn.sight(ohms[k]!.place)?.variance ?? 0), likeAnyOhm(ohms[k]!)))

export function tableOf({ plan, ohms, sampleLog }: Weigher, k: number): (lnOhm: number, between: number) => number {
  const ohm = ohms[k]!
  const sight = plan.drawn.sight(ohm.place)
  const any = likeAnyOhm(ohm)
  const off = sight ? offsets(plan.deviations, sight, ohm.place.frequencyHz) : new Float64Array(plan.deviations.samples)
  const variance = sight?.variance ?? 0
  const weights = sampleLog.map(Math.exp)
  const at = (seen: Seen, more: number): number => {
    const likeWith = likeOhm(ohm, seen, variance + more)
    let like = 0
    for (let s = 0; s < weights.length; s++) like += weights[s]! * orSlip(likeWith(off[s]!), any)
    return Math.log(like)
  }
  const [open, short] = [at({ state: 'open' }, 0), at({ state: 'short' }, 0)]
  const made = BETWEEN.map(() => null as Float64Array | null)
  const edges = BETWEEN.slice(1).map((b, n) => ((b + BETWEEN[n]!) / 2) ** 2)
  return (lnOhm, between) => {
    if (lnOhm === Infinity) return open
    if (lnOhm === -Infinity) return short
    let nearest = 0
    while (nearest < edges.length && between > edges[nearest]!) nearest++
    const table = made[nearest] ??= new Float64Array(ROWS).fill(NaN)
    const n = (lnOhm - FROM_LN) / STEP + 0.5
    // What is no number stays none.
    if (n !== n) return NaN
    const row = n < 0 ? 0 : n >= ROWS ? ROWS - 1 : n | 0
    const known = table[row]!
    if (known === known) return known
    const here = Math.exp(FROM_LN + row * STEP)
    return table[row] = at({ state: 'finite', re: here, im: 0, ohm: here }, BETWEEN[nearest]! ** 2)
  }
}
