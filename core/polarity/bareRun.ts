/**
 * Which end is which, of conductors that nobody knows: a battery at one end, a meter's sign at the other. On each trip every conductor is on the plus of the
 * battery, on its minus, or open; at the far end the meter tells these three apart. So each trip tells a third, and there are no fewer trips than
 * the logarithm of the number to the base of three.
 */

export const POLES = ['plus', 'minus', 'open'] as const
export type Pole = typeof POLES[number]

/** More than this is no harness that is told by hand. */
export const MOST_CONDUCTORS = 81

/**
 * What each conductor is on, trip by trip: no two the same, each trip with a plus and a minus, in as few trips as there can be.
 * @param count conductors, 2 to 81
 */
export function tripsFor(count: number): Pole[][] {
  if (!Number.isInteger(count) || count < 2 || count > MOST_CONDUCTORS) throw new RangeError(`2 to ${MOST_CONDUCTORS} conductors`)
  let trips = 1
  while (3 ** trips < count) trips++
  const codes = Array.from({ length: 3 ** trips }, (_, code) => Array.from({ length: trips }, (_, trip) => POLES[Math.floor(code / 3 ** trip) % 3]!))
  return withBothPoles(codes, count)
}

/** So many of the codes that every trip has a plus and a minus: opposites come in couples. */
function withBothPoles(codes: Pole[][], count: number): Pole[][] {
  const opposite = (code: Pole[]): string => code.map(pole => pole === 'plus' ? 'minus' : pole === 'minus' ? 'plus' : 'open').join()
  const chosen: Pole[][] = []
  const taken = new Set<string>()
  // Those that are open on no trip first: they carry both poles everywhere.
  const ordered = [...codes].sort((a, b) => a.filter(p => p === 'open').length - b.filter(p => p === 'open').length)
  for (const code of ordered) {
    if (chosen.length >= count) break
    if (taken.has(code.join())) continue
    for (const one of [code, codes.find(other => other.join() === opposite(code))!]) {
      if (chosen.length < count && !taken.has(one.join())) {
        taken.add(one.join())
        chosen.push(one)
      }
    }
  }
  return chosen
}

/** What the meter says of a conductor on every trip, as it is looked up at the far end: "plus, nothing". */
export const signWords = (poles: readonly Pole[]): string => poles.map(pole => pole === 'open' ? 'nothing' : pole).join(', ')
