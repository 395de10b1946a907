import type { Output } from '#core/job/schema'
import type { Lead } from '#core/network/cable'
import type { Group, WireNode } from '#core/job/sections/wiring/schema'
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
type Run = readonly Stretch[]

/** More ways than this to one reading are no answer. */
const MOST_RUNS = 2000

/**
 * Every way from the rack to an end, as far as its cable is stated; of what stands in series or behind a control no pair goes on. With all speakers off a
 * short is read through the way to it alone, whatever branches off before.
 */
function runsOf({ wiring }: Output): Run[] {
  const runs: Run[] = []
  const visit = (group: Output['wiring'] | Group, begin: Run): void => {
    const isRoot = group === wiring
    if (group.kind === 'series' || (!isRoot && 'through' in group && group.through)) return void runs.push(begin)
    let along = begin
    for (const { lead, node } of group.children) {
      const from = group.kind === 'chain' ? along : begin
      const run = lead === null && from.length > 0 ? from : stretched(from, lead, node)
      if (run === null) {
        // What lies behind a length that nobody stated, nobody can say how far.
        if (group.kind === 'chain') break
        continue
      }
      along = run
      if (runs.length > MOST_RUNS) return
      if (isGroup(node)) visit(node, run)
      else if (group.kind === 'star') runs.push(run)
    }
    if (group.kind === 'chain') runs.push(along)
  }
  visit(wiring, [])
  return runs.filter(run => run.length > 0)
}

function stretched(run: Run, lead: Lead | null, node: WireNode): Run | null {
  if (lead === null || lead.cable === null) return null
  const last = run.at(-1)
  const ohmPerM = 2 * conductorOhmPerM(lead.cable)
  return [...run, { toM: (last?.toM ?? 0) + lead.lengthM, toOhm: (last?.toOhm ?? 0) + lead.lengthM * ohmPerM, ohmPerM, label: labelOf(node) }]
}

const labelOf = (node: WireNode): string => isGroup(node) ? node.through?.label ?? speakersOf(node)[0]?.label ?? 'the branch' : node.label

/**
 * Every place that a reading fits, the line's own run first. Several where it branches: which of them it is, opening a joint tells.
 * @param ohm what was read, the meter's own leads taken off, Ω
 * @returns none where no cable is stated at the rack, or the ohms are more than all of it has
 */
export function shortPlaces(output: Output, ohm: number): ShortPlace[] {
  const [own, ...branches] = runsOf(output).reverse()
  const places = [own, ...branches.reverse()].flatMap(run => run ? placeOn(run, ohm) ?? [] : [])
  // Where it lies beyond all of one way, but within another, it is on the other.
  const within = places.filter(place => place.isWithin)
  const fitting = within.length > 0 ? within : places
  const isFirst = (place: ShortPlace, k: number) => fitting.findIndex(p => p.after === place.after && p.before === place.before) === k
  return fitting.filter(isFirst).map(({ isWithin: _, ...place }) => place)
}

function placeOn(run: Run, ohm: number): ShortPlace & { isWithin: boolean } | null {
  const at = (wanted: number, part: number): { m: number, k: number } | null => {
    let [beforeM, beforeOhm] = [0, 0]
    for (const [k, { toM, toOhm, ohmPerM }] of run.entries()) {
      if (wanted <= toOhm * part) return { m: beforeM + Math.max(0, wanted - beforeOhm * part) / (ohmPerM * part), k }
      ;[beforeM, beforeOhm] = [toM, toOhm]
    }
    return null
  }
  const low = at(Math.max(0, ohm - METER_OFF_OHM), 1 + COPPER_OFF)
  if (!low) return null
  const inside = at(ohm, 1)
  const middle = inside ?? { m: run.at(-1)!.toM, k: run.length - 1 }
  return {
    lowM: low.m, distanceM: middle.m, highM: at(ohm + METER_OFF_OHM, 1 - COPPER_OFF)?.m ?? null,
    after: run[middle.k - 1]?.label ?? null, before: run[middle.k]!.label, isWithin: inside !== null,
  }
}
