import type { Place } from './outline'

/** The order in which cable reaches the speakers of a space, and how much of it. Cable follows walls: along and across, never askew. */

/** Metres along walls between two places. */
export const alongWallsM = (a: Place, b: Place) => Math.abs(a.xM - b.xM) + Math.abs(a.yM - b.yM)

/**
 * An order to walk along: row by row or column by column, to and fro, from whichever corner is least cable; then straightened where two stretches would be
 * shorter the other way round. Not proved shortest: what is cabled is decided by walls.
 * @returns positions in `places`
 */
export function walkOrder(places: readonly Place[], from: Place): number[] {
  const lengthOf = (order: readonly number[]) =>
    order.reduce((sum, at, k) => sum + alongWallsM(k === 0 ? from : places[order[k - 1]!]!, places[at]!), 0)
  const senses = [[1, 1], [1, -1], [-1, 1], [-1, -1]] as const
  const candidates = [true, false].flatMap(byRows => senses.map(([first, second]) => toAndFro(places, byRows, first, second)))
  let best = candidates.reduce((a, b) => lengthOf(b) < lengthOf(a) - 1e-9 ? b : a)
  for (let isBetter = true; isBetter;) {
    isBetter = false
    for (let i = 0; i < best.length - 1 && !isBetter; i++) {
      for (let j = i + 1; j < best.length; j++) {
        // What lies between is as long the other way round; only its two ends change.
        const [before, a, b] = [i === 0 ? from : places[best[i - 1]!]!, places[best[i]!]!, places[best[j]!]!]
        const after = j + 1 < best.length ? places[best[j + 1]!]! : null
        const gain = alongWallsM(before, a) - alongWallsM(before, b) + (after ? alongWallsM(b, after) - alongWallsM(a, after) : 0)
        if (gain <= 1e-9) continue
        best = [...best.slice(0, i), ...best.slice(i, j + 1).reverse(), ...best.slice(j + 1)]
        isBetter = true
        break
      }
    }
  }
  return best
}

/** Rows are told apart by half a metre: places on one row seldom agree to the millimetre. */
const ROW_M = 0.5

function toAndFro(places: readonly Place[], byRows: boolean, rowSense: number, firstSense: number): number[] {
  const [across, along] = byRows ? ['yM', 'xM'] as const : ['xM', 'yM'] as const
  const order = places.map((_, k) => k).sort((a, b) => rowSense * (places[a]![across] - places[b]![across]) || a - b)
  const rows: number[][] = []
  for (const k of order) {
    const row = rows.at(-1)
    if (row && Math.abs(places[k]![across] - places[row[0]!]![across]) <= ROW_M) row.push(k)
    else rows.push([k])
  }
  return rows.flatMap((row, r) => row.sort((a, b) => (r % 2 === 0 ? firstSense : -firstSense) * (places[a]![along] - places[b]![along]) || a - b))
}

/**
 * Metres of cable before each speaker in the order given.
 * @param rackM from the rack to where the cable comes into the space; null: not known, and so is the first
 */
export function leadLengthsM(
  places: readonly Place[], order: readonly number[], { from, rackM, slack }: { from: Place, rackM: number | null, slack: number },
): (number | null)[] {
  return order.map((at, k) => {
    const alongM = alongWallsM(k === 0 ? from : places[order[k - 1]!]!, places[at]!) + (k === 0 ? rackM ?? NaN : 0)
    return Number.isNaN(alongM) ? null : Math.ceil(alongM * (1 + slack) * 10 - 1e-6) / 10
  })
}
