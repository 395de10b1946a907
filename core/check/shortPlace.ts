import type { Output } from '#core/job/schema'
import type { WireNode } from '#core/job/sections/wiring/schema'
import { speakersOf } from '#core/job/tree'
import { conductorOhmPerM } from '#core/network/cable'
import { isGroup } from '#core/network/tree'
import { COPPER_OFF, METER_OFF_OHM } from './shortDistance'

/** Where along a line its two conductors touch, from the ohms at the rack with nothing else on it: a span, and the places that it lies between. */
export interface ShortPlace {
  /** From the rack, along the cable, m. `highM` null: it may lie beyond the end of what is stated. */
  lowM: number
  distanceM: number
  highM: number | null
  /** The places that the middle of it lies between; null as the first is the rack. */
  after: string | null
  before: string
}

interface Stretch { toM: number, toOhm: number, ohmPerM: number, label: string }

/** The line's first run, as far as its cable is stated. What branches off is not followed: a short there reads as one at its beginning, and a little more. */
function stretchesOf({ wiring }: Output): Stretch[] {
  const stretches: Stretch[] = []
  let [alongM, alongOhm] = [0, 0]
  for (const { lead, node } of wiring.children) {
    if (lead === null || lead.cable === null) break
    const ohmPerM = 2 * conductorOhmPerM(lead.cable)
    alongM += lead.lengthM
    alongOhm += lead.lengthM * ohmPerM
    stretches.push({ toM: alongM, toOhm: alongOhm, ohmPerM, label: labelOf(node) })
  }
  return stretches
}

const labelOf = (node: WireNode): string => isGroup(node) ? node.through?.label ?? speakersOf(node)[0]?.label ?? 'the branch' : node.label

/**
 * @param ohm what was read, the meter's own leads taken off, Ω
 * @returns null where no cable is stated at the rack, or the ohms are more than all of it has
 */
export function shortPlace(output: Output, ohm: number): ShortPlace | null {
  const stretches = stretchesOf(output)
  const at = (wanted: number, part: number): { m: number, k: number } | null => {
    let [beforeM, beforeOhm] = [0, 0]
    for (const [k, { toM, toOhm, ohmPerM }] of stretches.entries()) {
      if (wanted <= toOhm * part) return { m: beforeM + Math.max(0, wanted - beforeOhm * part) / (ohmPerM * part), k }
      ;[beforeM, beforeOhm] = [toM, toOhm]
    }
    return null
  }
  const low = at(Math.max(0, ohm - METER_OFF_OHM), 1 + COPPER_OFF)
  if (!low) return null
  const middle = at(ohm, 1) ?? { m: stretches.at(-1)!.toM, k: stretches.length - 1 }
  return {
    lowM: low.m, distanceM: middle.m, highM: at(ohm + METER_OFF_OHM, 1 - COPPER_OFF)?.m ?? null,
    after: stretches[middle.k - 1]?.label ?? null, before: stretches[middle.k]!.label,
  }
}
