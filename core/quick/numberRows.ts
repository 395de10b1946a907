import { floorOhm, isFloorStated, ratedW, tapFit, valveOf, type TapFit, type ValveRating } from '#core/amplifier/index'
import type { Basis } from '#core/amplifier/rating'
import { drawsAsSet } from '#core/line/draw'
import type { LineEvaluation } from '#core/line/evaluate'
import { areEqualShares, exceeds, isUnderFloor } from '#core/quantity/tolerance'
import { branchesOf, cableOn } from '#core/job/tree'
import { writeCable } from '#core/quantity/cable'
import { writeCapacitance, writeInductance } from '#core/quantity/parts'
import { writeLength } from '#core/quantity/units'
import { countOf, writeNumber, writeQuantity } from '#core/quantity/write'

export interface NumberRow { name: string, figure: string, note: string }

const PARTS: Record<number, string> = { 2: 'half', 3: 'a third', 4: 'a quarter' }
export const NOT_KNOWN = 'not known'
const quantity = (value: number | null, unit: 'Ω' | 'W' | 'V') => value === null ? NOT_KNOWN : writeQuantity(value, unit)

/** The table of numbers beside a quick answer: what is, its figure, and what to make of it. */
export function numberRows(line: LineEvaluation): NumberRow[] {
  return [...line.kind === 'constant-voltage' ? distributed(line) : plain(line), ...line.throughs.map(t => throughRow(t)), ...cableRow(line)]
}

/** What stands in the way, and how many hang behind it: the drawing shows the speakers alone. */
function throughRow({ through, speakers }: LineEvaluation['throughs'][number]): NumberRow {
  const behind = `before ${countOf(speakers.length, 'speaker')}`
  switch (through.kind) {
    case 'control': {
      const set = through.setDb === 'off' ? ', off' : through.setDb ? `, ${writeNumber(through.setDb)} dB down` : ''
      return { name: `control ${through.label}`, figure: quantity(through.ratingW, 'W'), note: `${through.ratingW === null ? 'its rating; ' : ''}${behind}${set}` }
    }
    case 'transformer': return { name: `transformer ${through.label}`, figure: quantity(through.tapW, 'W'), note: `its tap, ${behind}` }
    case 'capacitor': return { name: `capacitor ${through.label}`, figure: writeCapacitance(through.capacitanceF), note: behind }
    case 'inductor': return { name: `coil ${through.label}`, figure: writeInductance(through.inductanceH), note: behind }
  }
}

/** The cable, where it is said: how long in all, and of which size. */
function cableRow({ output, lostW }: LineEvaluation): NumberRow[] {
  const leads = branchesOf(output.wiring).flatMap(({ lead }) => lead ?? [])
  const cable = cableOn(output.wiring)
  if (leads.length === 0 || !cable) return []
  const lost = lostW === null ? '' : `, takes ${writeQuantity(lostW, 'W')}`
  return [{ name: 'cable', figure: writeLength(leads.reduce((sum, lead) => sum + lead.lengthM, 0)), note: `of ${writeCable(cable)} in all${lost}` }]
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
  const valve = valveOf(rating)
  const share = line.drops.length === 1 ? 'the one driver' : equal ? `${PARTS[line.drops.length] ?? `1/${line.drops.length}`} each: equal` : 'unequal: see the drawing'
  const basis: Record<Basis, string> = { 'rated': 'rated here', 'between': 'between two rated loads', 'above': 'above its highest rated load', 'not-rated': 'not rated here', 'under-floor': 'under its floor', 'line': '', 'limited': 'held by its limiter', 'matched': 'on its tap', 'above-tap': 'above its tap', 'below-tap': 'below its tap' }
  return [
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: lowestNote(line) },
    { name: 'from this output', figure: given(line), note: line.drive ? basis[line.drive.basis] : 'name it after “on”' },
    { name: line.drops.length === 1 ? 'the driver' : 'each driver', figure: line.drive?.basis === 'under-floor' ? NOT_ALLOWED : each, note: share },
    valve ? tapRow(valve, line.upOhm) : { name: isFloorStated(rating) || floor === null ? 'output’s floor' : 'lowest rated load', figure: quantity(floor, 'Ω'), note: floorNote(line, floor) },
  ]
}

const FITS: Record<TapFit, string> = {
  'matched': 'matched', 'a-little-low': 'a little low: quietly, watched', 'too-low': 'too low: do not', 'a-little-high': 'a little high: less power', 'far-too-high': 'far too high for an instrument amplifier',
}
const tapRow = ({ tapOhm }: ValveRating, loadOhm: number | null): NumberRow => ({
  name: 'on its tap', figure: quantity(tapOhm, 'Ω'), note: tapOhm === null ? 'below all of its taps' : loadOhm === null ? '' : FITS[tapFit(loadOhm, tapOhm)],
})

const NOT_ALLOWED = 'not allowed'

function given({ drive }: LineEvaluation): string {
  if (drive === null) return NOT_KNOWN
  if (drive.basis === 'under-floor') return NOT_ALLOWED
  return drive.basis === 'not-rated' ? `${writeQuantity(drive.powerW, 'W')} to ${writeQuantity(drive.mostW, 'W')}` : writeQuantity(drive.powerW, 'W')
}

function lowestNote({ lowest }: LineEvaluation): string {
  if (!lowest || lowest.from === 'curve') return lowest ? `down to ${writeQuantity(lowest.ohm, 'Ω')} by its curve` : ''
  return `may go down to ${writeQuantity(lowest.ohm, 'Ω')} by the label; ${lowest.from === 'mixed' ? 'not every curve is known' : 'curve not known'}`
}

/** How far above its floor a load stands, and what that gives up. */
function floorNote({ loadOhm, drive, output }: LineEvaluation, floor: number | null): string {
  if (floor === null || loadOhm === null || drive === null) return ''
  if (isUnderFloor(loadOhm, floor)) return 'the load is under it'
  const times = loadOhm / floor
  const most = ratedW(output.rating)!
  if (times < 1.05) return 'the load is just at it'
  const givenUp = exceeds(most, drive.mostW) ? `; of its ${writeQuantity(most, 'W')} it gives ${writeQuantity(drive.powerW, 'W')}` : ''
  return `the load is ${writeNumber(times)} times that${givenUp}`
}

function distributed(line: LineEvaluation): NumberRow[] {
  const rated = ratedW(line.output.rating)
  const chosen = line.required.find(r => r.chosen)
  return [
    { name: 'all taps', figure: quantity(line.tapsW, 'W'), note: `${countOf(line.speakers.length, 'speaker')}, ${drawsAsSet(line) ? 'each takes its tap' : 'as they are set'}` },
    ...(drawsAsSet(line) ? [] : [{ name: 'they draw', figure: quantity(line.drawW, 'W'), note: 'as they are wired: not each across the line' }]),
    { name: 'line voltage', figure: quantity(line.lineV, 'V'), note: 'all in parallel, always mono' },
    { name: 'load, nominal', figure: quantity(line.loadOhm, 'Ω'), note: line.cable.stated > 0 ? 'for the impedance meter, with its cable' : 'for the impedance meter; cable comes on top' },
    { name: 'the amplifier', figure: quantity(rated, 'W'), note: rated === null ? 'write its watts after the volts' : line.drawW === null ? '' : `${Math.round(100 * line.drawW / rated)} % of it is asked` },
    { name: 'asked by rule', figure: quantity(chosen?.powerW ?? null, 'W'), note: chosen ? `“${chosen.name}”` : '' },
  ]
}
