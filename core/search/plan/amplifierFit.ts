import { driveInto, floorOhm, lineVoltsOf, tapFit, wattsAtVolts } from '#core/amplifier/index'
import type { OutputRating } from '#core/amplifier/rating'
import type { AmplifierModel } from '#core/gear/amplifier'
import { BESIDE_SCHOOL } from '#core/schools/power'
import { isSameVoltage, isUnderFloor } from '#core/quantity/tolerance'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { evaluateOutput, type LineEvaluation } from '#core/line/evaluate'
import type { Around } from '#core/line/surroundings'
import { isBad } from '#core/line/finding'
import type { Wanted } from './wanted'
import { findingWords } from '#core/line/words'

/** What a line asks of an output, and whether one of a model gives it. */

/** What a line asks of an output. */
export interface Need { outputId: string, label: string, lineV: number | null, powerW: number, toW: number | null, loadOhm: number, line: LineEvaluation }
type Group = AmplifierModel['outputs'][number]
/** `rating`: what the output gives the line, as the job states it. */
export type Fit = { spareW: number, rating: OutputRating } | { why: string, shortW: number }

/** Kept free above what the school asks: a tenth is 0.1. `wanted`: inputs and zones beside power; without it none is asked for. */
export interface FindAsked { growth: number, wanted?: Wanted }

export function needOf(line: LineEvaluation, { growth }: Pick<FindAsked, 'growth'>): Need | string {
  const asked = line.required.find(r => r.chosen)
  // Fully up: what a control hides now, somebody will turn up.
  if (line.upOhm === null) return 'its load is not known, or a short'
  if (asked?.powerW == null) return 'what it asks for is not known: taps or ratings are missing'
  const lineV = line.kind === 'constant-voltage' ? line.lineV ?? lineVoltsOf(line.output.rating) : null
  if (line.kind === 'constant-voltage' && lineV === null) return 'its volts are not known'
  const beside = lineV === null ? BESIDE_SCHOOL : 0
  return {
    outputId: line.outputId, label: line.output.label, lineV, powerW: asked.powerW * (1 - beside) * (1 + growth), toW: asked.toW === null
      ? null
      : asked.toW * (1 + beside), loadOhm: line.upOhm, line,
  }
}

const inWatts = (watts: number) => writeQuantity(watts, 'W')
const short = (need: Need, powerW: number): Fit => ({ why: `short by ${inWatts(need.powerW - powerW)} on ${need.label}`, shortW: need.powerW - powerW })
/**
 * Whether an output feeds a line, and with how much beyond; else why not. A plain output whose rated volts reach the line's needs no transformer: common
 * practice, no source.
 */
export function fitOf(group: Group, need: Need, bridgedFloorOhm: number | null = null): Fit {
  if (need.lineV === null) return group.valve ? valveFit(group.valve, need) : loadFit(group, need, bridgedFloorOhm)
  const line = group.lines.find(l => isSameVoltage(l.lineV, need.lineV!))
  if (line) return line.powerW >= need.powerW
    ? { spareW: line.powerW - need.powerW, rating: { kind: 'constant-voltage', lineV: line.lineV, powerW: line.powerW } }
    : short(need, line.powerW)
  if (group.valve) return { why: `is a valve output, ${need.label} is a line of ${writeNumber(need.lineV)} V`, shortW: Infinity }
  if (group.points.length > 0) return swingFit(group, need, need.lineV)
  return { why: `gives ${group.lines.map(l => `${writeNumber(l.lineV)} V`).join(' and ')} only, ${need.label} is ${writeNumber(need.lineV)} V`, shortW: Infinity }
}

/** A plain output is worth what it gives at the volts of the line, not at its heaviest load. */
function swingFit(group: Group, need: Need, lineV: number): Fit {
  const reachesV = Math.max(...group.points.map(p => Math.sqrt(p.powerW * p.loadOhm)))
  const atVoltsW = reachesV >= lineV || isSameVoltage(reachesV, lineV) ? wattsAtVolts(group, Math.min(reachesV, lineV)) : null
  // As a rating is written: no more than it gives.
  const mostW = atVoltsW === null ? null : Math.floor(atVoltsW * 10 + 1e-6) / 10
  if (mostW === null) return { why: `reaches ${writeNumber(reachesV)} V, ${need.label} is ${writeNumber(lineV)} V`, shortW: Infinity }
  if (mostW < need.powerW) return short(need, mostW)
  return { spareW: mostW - need.powerW, rating: { kind: 'constant-voltage', lineV, powerW: mostW } }
}

/** A valve output wants its load at a tap: by both schools that is right. */
function valveFit({ powerW, tapsOhm, chosenBy }: NonNullable<Group['valve']>, need: Need): Fit {
  const tapOhm = tapsOhm.find(tap => tapFit(need.loadOhm, tap) === 'matched')
  if (tapOhm === undefined) return { why: `has taps of ${tapsOhm.map(tap => writeNumber(tap)).join(', ')} Ω, ${need.label} is ${writeNumber(need.loadOhm)} Ω`, shortW: Infinity }
  if (powerW === null) return { why: 'its power is not stated', shortW: Infinity }
  if (powerW < need.powerW) return short(need, powerW)
  if (need.toW !== null && powerW > need.toW) return tooMuch(need, powerW, need.toW)
  return { spareW: powerW - need.powerW, rating: { kind: 'valve', powerW, tapsOhm, tapOhm, chosenBy } }
}
const tooMuch = ({ label }: Need, powerW: number, toW: number): Fit => ({ why: `gives ${inWatts(powerW)}, more than the ${inWatts(toW)} that the chosen school allows on ${label}`, shortW: Infinity })

/** Two channels of a group bridged onto one line of low impedance. A line of constant volts is not asked so. */
export function bridgedFitOf(group: Group, need: Need, bridgedFloorOhm: number | null): Fit | null {
  return need.lineV === null && group.count >= 2 && group.points.length > 0 ? loadFit(group, need, bridgedFloorOhm, 'bridged') : null
}

function loadFit({ points, floorOhm: statedOhm }: Group, need: Need, bridgedFloorOhm: number | null, mode: 'single' | 'bridged' = 'single'): Fit {
  if (points.length === 0) return { why: `gives lines only, ${need.label} is of ${writeNumber(need.loadOhm)} Ω`, shortW: Infinity }
  const rating: OutputRating = { kind: 'solid-state', points, floorOhm: statedOhm, mode, bridgedFloorOhm }
  const drive = driveInto(rating, need.loadOhm)!
  const floor = floorOhm(rating)!
  if (drive.basis === 'under-floor' || isUnderFloor(need.loadOhm, floor)) return { why: `from ${writeNumber(floor)} Ω on, ${need.label} is ${writeNumber(need.loadOhm)} Ω`, shortW: Infinity }
  if (drive.powerW < need.powerW) return short(need, drive.powerW)
  if (need.toW !== null && drive.mostW > need.toW) return tooMuch(need, drive.mostW, need.toW)
  return { spareW: drive.powerW - need.powerW, rating }
}
/**
 * A fit as the sheet would judge it: a set that brings what must be stopped or minded, that was not there before, is none. Of lines of constant volts the
 * arithmetic is the sheet's own.
 */
export function asJudged(fit: Fit | null, { line, label, lineV }: Need, around: Around): Fit | null {
  if (fit === null || !isFit(fit) || lineV !== null) return fit
  const had = new Set(line.findings.map(f => f.code))
  const bad = evaluateOutput({ ...line.output, rating: fit.rating }, around).findings.find(f => isBad(f) && !had.has(f.code))
  return bad ? { why: `would be wrong on ${label}: ${findingWords(bad).what}`, shortW: Infinity } : fit
}

export const isFit = (fit: Fit): fit is { spareW: number, rating: OutputRating } => 'spareW' in fit
