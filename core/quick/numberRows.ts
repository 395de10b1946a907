import { floorOhm, ratedW } from '#core/amplifier/index'
import type { Basis } from '#core/amplifier/rating'
import type { LineEvaluation } from '#core/match/evaluate'
import { areEqualShares, isUnderFloor } from '#core/quantity/tolerance'
import { writeQuantity } from '#core/quantity/write'

export interface NumberRow { name: string, figure: string, note: string }

const PARTS: Record<number, string> = { 2: 'half', 3: 'a third', 4: 'a quarter' }
export const NOT_KNOWN = 'not known'
const quantity = (value: number | null, unit: 'Ω' | 'W' | 'V') => value === null ? NOT_KNOWN : writeQuantity(value, unit)

/** The table of numbers beside a quick answer: what is, its figure, and what to make of it. */
export function numberRows(line: LineEvaluation): NumberRow[] {
  return line.kind === 'constant-voltage' ? distributed(line) : plain(line)
}

function plain(line: LineEvaluation): NumberRow[] {
  const { rating } = line.output
  const shares = line.drops.map(d => d.share)
  const equal = areEqualShares(shares)
  const powers = line.drops.flatMap(d => d.powerW === null ? [] : [d.powerW])
  const each = powers.length === 0
    ? NOT_KNOWN
    : equal ? writeQuantity(powers[0]!, 'W') : `${writeQuantity(Math.min(...powers), 'W')} to ${writeQuantity(Math.max(...powers), 'W')}`
  const floor = floorOhm(rating)
  const share = line.drops.length === 1 ? 'the one driver' : equal ? `${PARTS[line.drops.length] ?? `1/${line.drops.length}`} each: equal` : 'unequal: see the drawing'
  const basis: Record<Basis, string> = { 'rated': 'rated here', 'between': 'between two rated loads', 'above': 'above its highest rated load', 'not-rated': 'at least; not rated here', 'under-floor': 'asked for, not allowed', 'line': '' }
  return [
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: line.lowest?.from === 'label' ? `may go down to ${writeQuantity(line.lowest.ohm, 'Ω')} by the label; curve not known` : '' },
    { name: 'from this output', figure: quantity(line.drive?.powerW ?? null, 'W'), note: line.drive ? basis[line.drive.basis] : 'name it after “on”' },
    { name: line.drops.length === 1 ? 'the driver' : 'each driver', figure: each, note: share },
    {
      name: 'output’s floor', figure: quantity(floor, 'Ω'),
      note: floor === null || line.loadOhm === null ? '' : line.loadOhm >= 1.95 * floor ? 'twice that: safe' : isUnderFloor(line.loadOhm, floor) ? 'under it' : 'not under it',
    },
  ]
}

function distributed(line: LineEvaluation): NumberRow[] {
  const rated = ratedW(line.output.rating)
  const chosen = line.required.find(r => r.chosen)
  return [
    { name: 'all taps', figure: quantity(line.tapsW, 'W'), note: `${line.speakers.length} speakers, each takes its tap` },
    { name: 'line voltage', figure: quantity(line.lineV, 'V'), note: 'all in parallel, always mono' },
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: 'for the impedance meter; cable comes on top' },
    { name: 'the amplifier', figure: quantity(rated, 'W'), note: rated === null ? 'write its watts after the volts' : line.tapsW === null ? '' : `${Math.round(100 * line.tapsW / rated)} % of it is asked` },
    { name: 'asked by rule', figure: quantity(chosen?.powerW ?? null, 'W'), note: chosen ? `“${chosen.name}”` : '' },
  ]
}
