import { drivenInto, floorOhm } from '#core/amplifier/index'
import { METER_HZ } from '#core/check/readingBands'
import { predictLine, type Predicted } from '#core/check/predict'
import type { Output, Speaker, WireNode } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import { compile } from '#core/network/compile'
import { asCurve, asLabelled, LOWEST_OF_NOMINAL, type View } from '#core/network/element'
import { headOf, HEARD_HZ, logFrequencies, lowestAtHead } from '#core/network/line'
import { seenAtHead } from '#core/network/solve'
import { makeSolver } from '#core/network/solver'
import { playedHz } from '#core/line/playedBand'
import { singleLoads, type Child, type WiringNode } from '#core/network/tree'

/** Impedance over frequency, as an output sees its line, and each speaker by itself. */

export interface ImpedanceCurve { hz: Float64Array, ohm: Float64Array, deg: Float64Array }

/** The hearing range; close enough that no dip of a usual driver lies between two. */
const SHOWN_HZ = logFrequencies(...HEARD_HZ, 240)
/** A curve that is written to 20 kHz is known there. */
const HAIR = 1e-6

/** Where all measured curves of a tree are known: beyond the ends of one of them its label would be drawn, which nobody measured. */
function knownHz(root: Child<WiringNode>): readonly [number, number] {
  let [from, to] = HEARD_HZ
  for (const load of speakersOf(root.node as WireNode).flatMap(s => singleLoads(s.load))) {
    if (load.kind !== 'curve') continue
    from = Math.max(from, load.points[0]?.[0] ?? from)
    to = Math.min(to, load.points.at(-1)?.[0] ?? to)
  }
  return [from, to]
}

/** Null for a line that is open or short, or whose curves have no frequency in common. */
export function impedanceOver(root: Child<WiringNode>, view: View = asCurve, shownHz: Float64Array = SHOWN_HZ): ImpedanceCurve | null {
  const [fromHz, toHz] = knownHz(root)
  const hz = shownHz.filter(f => f >= fromHz * (1 - HAIR) && f <= toHz * (1 + HAIR))
  if (hz.length === 0) return null
  const solver = makeSolver(compile(root, view))
  const [ohm, deg] = [new Float64Array(hz.length), new Float64Array(hz.length)]
  for (let k = 0; k < hz.length; k++) {
    const seen = seenAtHead(solver, hz[k]!)
    if (seen.state !== 'finite') return null
    ohm[k] = seen.ohm
    deg[k] = Math.atan2(seen.im, seen.re) * 180 / Math.PI
  }
  return { hz, ohm, deg }
}

/** What is said of a line's impedance beside its curve. Nulls are not known. */
export interface LineImpedance {
  curve: ImpedanceCurve
  nominalOhm: number
  /** As low as a label permits (IEC 60268-5). */
  permittedOhm: number
  floorOhm: number | null
  lowest: { ohm: number, frequencyHz: number }
  /** What an ohmmeter and an impedance meter read. */
  dcr: Predicted | null
  meter: { hz: number, ohm: number }
  /** How many of its loads are known by a curve, how many by their label alone. */
  known: number
  labelled: number
}

export function lineImpedance(output: Output): LineImpedance | null {
  const root = { lead: null, node: output.wiring }
  const [curve, lowest] = [impedanceOver(root), lowestAtHead(root, asCurve, playedHz(output.band))]
  const [nominal, meter] = [nominalOhmOf(root), headOf(root, asCurve, METER_HZ)]
  if (!curve || !lowest || nominal === null || meter.state !== 'finite') return null
  const singles = speakersOf(output.wiring).flatMap(s => singleLoads(s.load))
  const known = singles.filter(load => load.kind === 'motional' || load.kind === 'curve').length
  return {
    curve, lowest, nominalOhm: nominal, permittedOhm: LOWEST_OF_NOMINAL * nominal, floorOhm: floorOhm(output.rating),
    dcr: predictLine(output).find(p => p.kind === 'line-dcr' && p.expected !== null) ?? null, meter: { hz: METER_HZ, ohm: meter.ohm }, known, labelled: singles.length - known,
  }
}

/** By the labels, where it is lowest: capacitors and coils in the way part the band. */
function nominalOhmOf(root: Child<WiringNode>): number | null {
  return lowestAtHead(root, asLabelled)?.ohm ?? null
}

export const speakerImpedance = (speaker: Speaker): ImpedanceCurve | null => impedanceOver({ lead: null, node: speaker })

/** What an output gives into a curve, W real, frequency by frequency, at the volts of its rating into that many ohms; null where it may not. */
export function wattsOver(output: Pick<Output, 'rating' | 'limiterV'>, { ohm, deg }: ImpedanceCurve): (number | null)[] {
  return Array.from(ohm, (z, k) => {
    const drive = drivenInto(output, z)
    return drive === null || drive.basis === 'under-floor' ? null : drive.volts ** 2 / z * Math.cos(deg[k]! * Math.PI / 180)
  })
}
