import type { Chain, Output, ReadingKind } from '#core/job/schema'
import { factsOf } from '#core/job/sections/readings/kinds'
import { speakersOf } from '#core/job/tree'
import { leadOhm } from '#core/network/cable'
import { isGroup } from '#core/network/tree'
import type { Group } from '#core/job/sections/wiring/schema'
import { holds } from './onChain'
import { OF_COPPER, type Predicted } from './predict'
import { COPPER_OFF, METER_OFF_OHM } from './shortDistance'

/** What bare pairs read before speakers hang on them: nothing from leg to leg or to metalwork, and their own copper where the far end is held together. */

/** What insulation reads at least, Ω. Common practice, no source: an ohmmeter's own battery is no insulation test, and the local code may ask for one. */
export const LEAST_APART_OHM = 1e6
/** More than any meter shows, Ω. */
const MOST_OHM = 100e6

/** What is foretold of a reading of the bare pair; null for any other kind. */
export function predictBare(output: Output, kind: ReadingKind, nodeId: string | null): Predicted | null {
  if (factsOf(kind).phase !== 'bare') return null
  if (kind !== 'pair-through') {
    return {
      ...OF_COPPER, kind, outputId: output.id, nodeId: null, place: output.label, low: LEAST_APART_OHM, expected: null, high: MOST_OHM, isOpen: true,
      source: 'insulation of a megohm and more: common practice, no source; the local code may ask for a test of its own',
    }
  }
  const way = nodeId === null ? null : wayOhm(output.wiring, nodeId)
  const base = { ...OF_COPPER, kind, outputId: output.id, nodeId, place: `${output.label} ${speakersOf(output.wiring).find(s => s.id === nodeId)?.label ?? ''}`, isOpen: false }
  if (way === null) return { ...base, low: null, expected: null, high: null, source: 'not all of its cable is stated, or something else than cable is in the way' }
  return {
    ...base, low: Math.max(0, way * (1 - COPPER_OFF) - METER_OFF_OHM), expected: way, high: way * (1 + COPPER_OFF) + METER_OFF_OHM,
    source: 'its cable out and back by ASTM B258 or IEC 60228, within a twentieth, and 0.1 Ω of the meter',
  }
}

/** Copper from the head to a node, out and back, Ω; null where a length on the way is not stated, or more than cable is in the way. */
export function wayOhm(wiring: Chain | Group, nodeId: string): number | null {
  if (wiring.kind === 'series' || ('through' in wiring && wiring.through)) return null
  let alongOhm = 0
  for (const { lead, node } of wiring.children) {
    const within = node.id === nodeId ? 0 : isGroup(node) ? wayOhm(node, nodeId) : null
    // The first of a chain may stand where the chain begins.
    const ownOhm = lead === null ? 0 : lead.cable === null ? null : leadOhm(lead)
    if (holds(node, nodeId)) return within === null || ownOhm === null || (lead === null && wiring.kind === 'chain') ? null : alongOhm + ownOhm + within
    if (wiring.kind === 'chain') {
      if (ownOhm === null || lead === null) return null
      alongOhm += ownOhm
    }
  }
  return null
}
