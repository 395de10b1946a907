import { sure } from '#core/quantity/known'
import { compile } from './compile'
import { asCurve, asLabelled, LOWEST_OF_NOMINAL, type View } from './element'
import { HEARD_HZ, logFrequencies, lowestAtHead, solveOver, type OhmAt } from './line'
import type { SingleLoad } from './tree'

/** A label against the curve that is known of a unit. */

/**
 * Down to this part of its label an ordinary driver dips; below it the label is another unit's. Common practice, no source: coils of 0.70 to 0.90
 * of the label. (A label promises 0.8, IEC 60268-5.)
 */
export const ORDINARY_DIP = 0.7
/** Never under this many times its label, the label is another unit's. Common practice, no source: small coils read up to 1.2 of theirs. */
export const FAR_OVER = 1.3

/** What a curve says of its label: the lowest point, and whether that is one of a unit so labelled. */
export interface LabelAgainstCurve {
  nominalOhm: number
  lowestOhm: number
  frequencyHz: number
  /** What watts and loads are counted by, Ω. */
  judgedOhm: number
  says: 'holds' | 'dips' | 'under' | 'over'
}

/** A measurement that begins at 20.1 Hz begins at 20. */
const END_SLACK = 1.02

/** Whether a load's impedance is known over the hearing range; a measured curve may end within it. */
export function isKnownThroughout(load: SingleLoad): boolean {
  return load.kind === 'motional' || (load.kind === 'curve' && load.points[0]![0] <= HEARD_HZ[0] * END_SLACK && load.points.at(-1)![0] * END_SLACK >= HEARD_HZ[1])
}

const compared = new WeakMap<SingleLoad, LabelAgainstCurve>()

/** The label of one coil against its curve or its parameters; null where neither is known. Compared once for one load. */
export function labelAgainstCurve(load: SingleLoad): LabelAgainstCurve | null {
  if (load.kind !== 'curve' && load.kind !== 'motional') return null
  const known = compared.get(load)
  if (known) return known
  const lowest = lowestOf(load)
  const part = lowest.ohm / load.nominalOhm
  // Where a measurement ends within the range, what lies beyond may be lower: that it is over the label everywhere is not known.
  const says = part < ORDINARY_DIP ? 'under' : part < LOWEST_OF_NOMINAL ? 'dips' : part > FAR_OVER && isKnownThroughout(load) ? 'over' : 'holds'
  const against: LabelAgainstCurve = {
    nominalOhm: load.nominalOhm, lowestOhm: lowest.ohm, frequencyHz: lowest.frequencyHz, judgedOhm: judgedOf(load, lowest.ohm, says), says,
  }
  compared.set(load, against)
  return against
}

type Known = Extract<SingleLoad, { kind: 'curve' | 'motional' }>
const alone = (load: Known) => ({ lead: null, node: { kind: 'speaker' as const, id: '', load } })

/** Looked at no further than it was measured: beyond its ends nothing is known. null: at one frequency alone. */
function knownHz(load: Known): readonly [number, number] | null {
  if (load.kind === 'motional') return HEARD_HZ
  const [fromHz, toHz] = [Math.max(HEARD_HZ[0], load.points[0]![0]), Math.min(HEARD_HZ[1], load.points.at(-1)![0])]
  return fromHz < toHz ? [fromHz, toHz] : null
}

function lowestOf(load: Known): OhmAt {
  const withinHz = knownHz(load)
  if (withinHz === null && load.kind === 'curve') return { ohm: load.points[0]![1], frequencyHz: load.points[0]![0] }
  return sure(lowestAtHead(alone(load), asCurve, withinHz ?? HEARD_HZ), 'lowest point of a curve')
}

/**
 * The label where the curve does not speak against it. Under it: what draws as many watts of programme, and never less of a load than the label; a dip alone
 * is the floor's affair. Over it: the same, or the label that its lowest point could bear, whichever is more of a load.
 */
function judgedOf(load: Known, lowestOhm: number, says: LabelAgainstCurve['says']): number {
  const { nominalOhm } = load
  if (says === 'under') return Math.min(nominalOhm, meanOf(load))
  return says === 'over' ? Math.max(nominalOhm, Math.min(meanOf(load), lowestOhm / LOWEST_OF_NOMINAL)) : nominalOhm
}

/** Where watts are averaged, eight to an octave. */
const AVERAGED_AT = 81

/** What draws as many watts of programme of equal power an octave, Ω. Source: P = V²·Re(1/Z). */
function meanOf(load: Known): number {
  const withinHz = knownHz(load)
  if (withinHz === null) return lowestOf(load).ohm
  return 1 / solveOver(compile(alone(load), asCurve), logFrequencies(...withinHz, AVERAGED_AT), 1).headPowerW
}

/** What watts and ratings are counted by: the label, as ratings are stated (IEC 60268-5), where the curve does not speak against it. */
export const asJudged: View = (load) => {
  const against = labelAgainstCurve(load)
  return against === null ? asLabelled(load) : { kind: 'resistor', ohm: against.judgedOhm }
}
