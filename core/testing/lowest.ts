import { compile } from '#core/network/compile'
import { asCurve } from '#core/network/element'
import { logFrequencies, lowestAtHead } from '#core/network/line'
import { seenAtHead } from '#core/network/solve'
import { makeSolver } from '#core/network/solver'
import type { Child, WiringNode } from '#core/network/tree'
import { randomMotional, seeded } from './trees'

/** How far the lowest |Z| that is found lies from the least on a grid of 20,000 frequencies: the worst of so many seeded lines of 1 to 8 motional members. */
export function lowestAgainstGrid(lines: number): number {
  const frequencies = logFrequencies(20, 20_000, 20_000)
  let worst = 0
  for (let seed = 1; seed <= lines; seed++) {
    const chance = seeded(seed)
    const members = Array.from({ length: 1 + seed % 8 }, (_, k): Child<WiringNode> => ({ lead: null, node: { kind: 'speaker', id: `m${k}`, load: randomMotional(chance) } }))
    const split = Math.floor(chance() * members.length)
    const series = { lead: null, node: { kind: 'series', id: 's', children: members.slice(0, split) } } as const
    const children = [...members.slice(split), ...split > 0 ? [series] : []]
    const tree: Child<WiringNode> = { lead: null, node: { kind: chance() < 0.5 ? 'star' : 'chain', id: 'g', children } }
    const solver = makeSolver(compile(tree, asCurve))
    let finest = Infinity
    for (const frequencyHz of frequencies) {
      const seen = seenAtHead(solver, frequencyHz)
      if (seen.state === 'finite' && seen.ohm < finest) finest = seen.ohm
    }
    worst = Math.max(worst, Math.abs(lowestAtHead(tree, asCurve)!.ohm / finest - 1))
  }
  return worst
}
