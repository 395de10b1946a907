import type { Band, Kind } from '#core/job/schema'
import type { BandOf } from '../surroundings'
import type { BandSaid, Finding } from '../finding'
import { isSameBand, MEETS } from '../playedBand'
import { found, type Bare, type Rule } from './rule'

/** A crossover and a unit's own limit agree within this. Common practice, no source. */
const NEAR = 1.05

/** The bands of a system, each with all outputs that play it, from the lowest up. */
export function bandsOf(beside: readonly BandOf[]): BandSaid[] {
  const bands: BandSaid[] = []
  for (const { label, band } of beside) {
    const same = bands.find(b => isSameBand(b, band))
    if (same) same.outputs.push(label)
    else bands.push({ outputs: [label], fromHz: band.fromHz, toHz: band.toHz })
  }
  return bands.sort((a, b) => (a.fromHz ?? 0) - (b.fromHz ?? 0) || (a.toHz ?? Infinity) - (b.toHz ?? Infinity))
}

/** A line that plays a part of the range: whether the parts meet, and whether its units are made for theirs. */
export const bands: Rule = (line, { bands: beside, kinds, amplifier }) => {
  const { band } = line.output
  if (!band) return []
  return [...metBy(band.system, bandsOf(beside)).map(met => found(line, met)), ...cutOff(line, band, amplifier.highPassHz), ...madeFor(line, kinds)]
}

function metBy(system: string, all: readonly BandSaid[]): Bare[] {
  const [first, ...rest] = all
  if (!first) return []
  if (rest.length === 0) return [{ code: 'band-alone', grade: 'tight', facts: { system, fromHz: first.toHz, toHz: first.fromHz } }]
  const off = rest.flatMap((upper, k): Bare[] => {
    const [toHz, fromHz] = [all[k]!.toHz ?? Infinity, upper.fromHz ?? 0]
    if (fromHz > toHz * MEETS) return [{ code: 'band-gap', grade: 'tight', facts: { system, fromHz: toHz, toHz: fromHz } }]
    return toHz > fromHz * MEETS ? [{ code: 'band-overlap', grade: 'tight', facts: { system, fromHz: Math.max(fromHz, 20), toHz: Math.min(toHz, 20_000) } }] : []
  })
  return off.length > 0 ? off : [{ code: 'bands-meet', grade: 'good', facts: { system, bands: [...all] } }]
}

/** A high-pass of the amplifier takes away what lies below it, whatever the crossover lets through. */
function cutOff(line: Parameters<Rule>[0], { fromHz, toHz }: Band, highPassHz: number | 'none' | null): Finding[] {
  if (highPassHz === null || highPassHz === 'none') return []
  const isOff = fromHz === null ? highPassHz * 2 > toHz! : highPassHz > fromHz * NEAR
  return isOff ? [found(line, { code: 'band-under-high-pass', grade: 'tight', facts: { highPassHz, fromHz, toHz } })] : []
}

/** The range of each unit, as its kind states it, against the ends of the crossover. */
function madeFor(line: Parameters<Rule>[0], kinds: readonly Kind[]): Finding[] {
  const { fromHz, toHz } = line.output.band!
  return line.speakers.flatMap(({ id, label, kindId }): Finding[] => {
    const model = kinds.find(k => k.id === kindId)?.model
    const [lowHz, highHz] = [model?.lowHz ?? null, model?.highHz ?? null]
    return [
      ...(fromHz !== null && lowHz !== null && fromHz * NEAR < lowHz ? [found(line, { code: 'band-under-unit', grade: 'tight', facts: { label, fromHz, unitHz: lowHz } }, id)] : []),
      ...(toHz !== null && highHz !== null && toHz > highHz * NEAR ? [found(line, { code: 'band-over-unit', grade: 'tight', facts: { label, toHz, unitHz: highHz } }, id)] : []),
    ]
  })
}
