/** A two-terminal network of speakers in series and parallel. `unit`: which of the kinds of speaker asked about a leaf is of. */
export type Network = { kind: 'one', unit: number } | { kind: 'series' | 'parallel', parts: Network[] }

/** Speakers that are alike. `weight`: the share of power that each is to have against the others. */
export interface Unit { ohm: number, count: number, weight: number }

/** Resistance between the ends, Ω. */
export function ohmOf(network: Network, units: readonly Unit[]): number {
  if (network.kind === 'one') return units[network.unit]!.ohm
  const parts = network.parts.map(p => ohmOf(p, units))
  return network.kind === 'series' ? parts.reduce((a, b) => a + b) : 1 / parts.reduce((sum, r) => sum + 1 / r, 0)
}

/** Its leaves with the part of all the power that each gets, in the order in which they are written; the parts add to one. */
export function sharesOf(network: Network, units: readonly Unit[]): { unit: number, share: number }[] {
  if (network.kind === 'one') return [{ unit: network.unit, share: 1 }]
  const weights = network.parts.map(p => network.kind === 'series' ? ohmOf(p, units) : 1 / ohmOf(p, units))
  const sum = weights.reduce((a, b) => a + b)
  return network.parts.flatMap((part, k) => sharesOf(part, units).map(l => ({ ...l, share: l.share * weights[k]! / sum })))
}

/** Joints to be made: two at the output, one between members of a series, two for each member of a parallel after the first. */
export function connectionsOf(network: Network): number {
  const inside = (n: Network): number => n.kind === 'one' ? 0 : n.parts.reduce((sum, p) => sum + inside(p), 0) + (n.parts.length - 1) * (n.kind === 'series' ? 1 : 2)
  return 2 + inside(network)
}

/** How often series and parallel alternate. */
export function depthOf(network: Network): number {
  return network.kind === 'one' ? 0 : 1 + Math.max(...network.parts.map(depthOf))
}

/** As it is typed at quick match: "(8 + 8) || (8 + 8)"; `write` says a leaf, so many-th in the order of writing. */
export function writeNetwork(network: Network, write: (unit: number) => string): string {
  if (network.kind === 'one') return write(network.unit)
  return network.parts.map(p => p.kind === 'one' ? write(p.unit) : `(${writeNetwork(p, write)})`).join(network.kind === 'series' ? ' + ' : ' || ')
}
