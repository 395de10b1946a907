import type { Job } from '#core/job/schema'
import { branchesOf, outputsOf, speakersOf } from '#core/job/tree'
import { conductorOhmPerM } from '#core/network/cable'
import { isGroup } from '#core/network/tree'
import { writeCable, type Cable } from '#core/quantity/cable'
import { writeLength, type Units } from '#core/quantity/units'

/** What cable a whole job takes, by size. */
export interface CableList {
  /**
   * Thick before thin, last what is of no stated size (`cable` null). `withSlackM`: what to buy, in whole metres; on lengths that the plan of a
   * space gave with its own slack nothing comes on top.
   */
  sizes: { cable: Cable | null, pieces: number, lengthM: number, withSlackM: number }[]
  /** Lengths along the rails that nobody has stated: they are in no sum. */
  missing: number
}

/** Bought on top of what is measured: corners, drops to the ceiling, both ends. Common practice, no source. */
export const USUAL_SLACK = 0.1

export function cableList(job: Job, slack: number): CableList {
  const sums = new Map<string, { cable: Cable | null, pieces: number, lengthM: number, plannedM: number }>()
  const planned = new Set(job.spaces.filter(s => s.slack > 0).flatMap(s => s.spots.flatMap(spot => spot.nodeId ?? [])))
  let missing = 0
  for (const { wiring } of outputsOf(job)) {
    for (const group of [wiring, ...branchesOf(wiring).map(b => b.node).filter(isGroup)]) {
      group.children.forEach(({ lead, node }, k) => {
        // Members of a series or a star, and the first behind a control, may stand at one place.
        if (!lead && group.kind === 'chain' && !(k === 0 && 'through' in group && group.through)) missing++
        if (!lead || lead.lengthM === 0) return
        const key = writeCable(lead.cable)
        const sum = sums.get(key) ?? { cable: lead.cable, pieces: 0, lengthM: 0, plannedM: 0 }
        const isPlanned = planned.has(speakersOf(node)[0]?.id ?? '')
        sums.set(key, { ...sum, pieces: sum.pieces + 1, lengthM: sum.lengthM + lead.lengthM, plannedM: sum.plannedM + (isPlanned ? lead.lengthM : 0) })
      })
    }
  }
  // A hair less, so that 110 % of ten is eleven and not twelve.
  const sizes = [...sums.values()].map(({ plannedM, ...sum }) => ({ ...sum, withSlackM: Math.ceil(sum.lengthM + (sum.lengthM - plannedM) * slack - 1e-9) }))
    .sort((a, b) => thicknessOf(a.cable) - thicknessOf(b.cable))
  return { sizes, missing }
}

const thicknessOf = (cable: Cable | null): number => cable ? conductorOhmPerM(cable) : Infinity

/** What cable costs by a price list of sizes, each metre; null where one of them has no price, or no size is stated. */
export function cableCost(lengths: readonly { cable: Cable | null, lengthM: number }[], priceOf: (cable: Cable) => number | null): number | null {
  return lengths.reduce<number | null>((sum, { cable, lengthM }) => {
    const price = cable && priceOf(cable)
    return sum === null || price === null ? null : sum + price * lengthM
  }, 0)
}

/** The list as a table for a spreadsheet. */
export function cableListTable({ sizes }: CableList, priceOf: (cable: Cable) => number | null, units: Units = 'metric'): string {
  const rows = sizes.map(({ cable, pieces, lengthM, withSlackM }) => {
    const price = cable && priceOf(cable)
    return [writeCable(cable), String(pieces), writeLength(lengthM, units), writeLength(withSlackM, units), price === null ? '' : (price * withSlackM).toFixed(2)].join('\t')
  })
  return ['cable\tpieces\tmeasured\tto buy\tprice', ...rows].join('\n')
}
