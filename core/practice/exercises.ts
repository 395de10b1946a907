import type { Branch, FaultKind, Output, SpeakerLoad } from '#core/job/schema'
import { UNSTATED_OUTPUT } from '#core/job/sections/wiring/schema'
import type { Tool } from '#core/trace/next/minutes'

/** The exercises, in the order of the trade. Everything in them is invented. */
export interface Exercise {
  name: string
  /** A sentence of teaching before, and what is taken along after. */
  before: string
  after: string
  faults: 1 | 2
  /** What is hidden is of these kinds; null: of any that the line can have. */
  kinds: readonly FaultKind[] | null
  line: Output
  /** Tools that are not at hand; not given: all are. */
  without?: readonly Tool[]
}

type Node = Branch['node']
const speaker = (k: number, load: SpeakerLoad, driverOhm: number | null = null): Node =>
  ({ kind: 'speaker', id: `s${k}`, label: String(k).padStart(2, '0'), name: '', load, continuousW: null, driverOhm, kindId: null, zoneId: null })
const eight = (k: number): Node => speaker(k, { kind: 'nominal', nominalOhm: 8 })
const TAPS_W = [1.25, 2.5, 5, 10, 20]
const tapped = (k: number, tapW: number): Node => speaker(k, { kind: 'tap', tapW, ratedV: 70.71, tapsW: TAPS_W, insertionDb: null, tapMeans: null }, 8)
const at = (lengthM: number, node: Node): Branch => ({ lead: { cable: { areaMm2: 1.5 }, lengthM }, node })
const chain = (...children: Branch[]): Output['wiring'] => ({ kind: 'chain', id: 'rig', children })
const line = (rating: Output['rating'], wiring: Output['wiring']): Output => ({ id: 'line', label: 'A1', name: '', rating, ...UNSTATED_OUTPUT, wiring })
const PLAIN: Output['rating'] = {
  kind: 'solid-state', points: [{ loadOhm: 4, powerW: 100 }, { loadOhm: 8, powerW: 60 }], floorOhm: 2, mode: 'single', bridgedFloorOhm: null,
}
const SEVENTY: Output['rating'] = { kind: 'constant-voltage', lineV: 70.71, powerW: 240 }
const row = (count: number, tapW: (k: number) => number = () => 5, lengthM = 6) =>
  line(SEVENTY, chain(...Array.from({ length: count }, (_, k) => at(lengthM, tapped(k + 1, tapW(k))))))
const CONTROL = { kind: 'control' as const, label: 'C1', name: '', from: null, setDb: 0, stepsDb: [0, 3, 6, 9, 12, 15, 18], ratingW: 35, lineV: 70.71, insertionDb: 0.5 }

export const EXERCISES: readonly Exercise[] = [
  { name: 'One driver on the bench', before: 'Ohms first: what does a coil of 8 Ω read when it is right?', after: 'Ohms tell a coil; they do not hear. One that rubs reads right.', faults: 1,
    kinds: ['coil-open', 'coil-high', 'shorted-turns', 'short-at-tabs', 'rubbing'], line: line(PLAIN, chain(at(1, eight(1)))) },
  { name: 'Two, and one is silent', before: 'Is it the unit or the way to it? Swap one thing at a time.', after: 'What follows the unit is the unit; what stays is the way to it.', faults: 1,
    kinds: ['open-at-drop', 'coil-open', 'high-resistance', 'short-at-tabs'], line: line(PLAIN, chain(at(6, eight(1)), at(4, eight(2)))) },
  { name: 'A crossed splice', before: 'No bass half way between two: which one is the other way round?', after: 'Ohms see no polarity. Prove it, also where it must be right.', faults: 1,
    kinds: ['pair-crossed', 'turned-round'], line: line(PLAIN, chain(at(6, eight(1)), at(4, eight(2)))) },
  { name: 'Two coils on one cone', before: 'Two coils that pull against each other hold the cone still, and read right.', after: 'Ohms of both coils right and no sound: turn one coil round. Half the ohms missing: one coil is gone.', faults: 1,
    kinds: ['coil-opposed', 'one-driver-gone', 'coil-open', 'high-resistance'],
    line: line(PLAIN, chain(at(3, speaker(1, { kind: 'members', joined: 'parallel', members: [{ kind: 'nominal', nominalOhm: 8 }, { kind: 'nominal', nominalOhm: 8 }] })))) },
  { name: 'A pair behind a bad joint', before: 'A joint of a few ohms: quiet, not silent.', after: 'What lies behind the joint is as drawn; what lies before it is not.', faults: 1,
    kinds: ['high-resistance', 'joint-in-run', 'dirty-contact'], line: line(PLAIN, chain(at(8, eight(1)), at(8, eight(2)), at(8, eight(3)))) },
  { name: 'A head and two cabinets', before: 'Two of 16 Ω in parallel belong on the tap of 8 Ω.', after: 'A load above its tap or below it is heard late; read before you play.', faults: 1,
    kinds: ['coil-open', 'open-at-drop', 'amplifier-wrong-tap', 'shorted-turns'],
    line: line({ kind: 'valve', powerW: 50, tapsOhm: [4, 8, 16], tapOhm: 8, chosenBy: 'selector' }, chain(at(2, speaker(1, { kind: 'nominal', nominalOhm: 16 })), at(2, speaker(2, { kind: 'nominal', nominalOhm: 16 })))) },
  { name: 'A line of four', before: 'On a line of transformers every speaker takes what its tap says.', after: 'The line reads V²/W: above the plan something is missing, below it something is too much.', faults: 1,
    kinds: ['open-at-drop', 'coil-open', 'wrong-tap', 'winding-open'], line: row(4) },
  { name: 'The dial', before: 'A dial has two scales; the wrong one is half or double the watts. And is the tag on it its own?', after: 'Far below the plan is the position past the transformer: nearly a short. Two dials that stand as each other’s should are two labels exchanged.', faults: 1,
    kinds: ['wrong-scale', 'wrong-tap', 'low-impedance-position', 'drops-exchanged'], line: row(6, k => [5, 5, 10, 5, 2.5, 5][k]!) },
  { name: 'Silent from one place on', before: 'The last that plays, the first that does not: the fault lies between.', after: 'Halve the line: each look takes half of what is left.', faults: 1,
    kinds: ['break-in-reach', 'joint-in-run'], line: row(8) },
  { name: 'In protection', before: 'All silent, the amplifier in protection: off, and read.', after: 'Nothing on while a short is likely. Part the line and read outward.', faults: 1,
    kinds: ['short-at-drop', 'short-in-run', 'low-impedance-position', 'winding-shorted'], line: row(8) },
  { name: 'A room that is quiet', before: 'Before the cable: what does its control say?', after: 'A dial at zero is no fault of the speakers behind it.', faults: 1,
    kinds: ['control-at-zero', 'control-turned-down', 'control-bypassed', 'open-at-drop'],
    line: line(SEVENTY, chain(at(6, tapped(1, 5)), at(6, tapped(2, 5)), at(6, { kind: 'chain', id: 'room', through: CONTROL, children: [at(4, tapped(3, 5)), at(4, tapped(4, 5)), at(4, tapped(5, 5))] }))) },
  { name: 'Hum', before: 'Each leg to earth, amplifier off and disconnected: open is right.', after: 'One leg on metalwork hums; the ohms of the line do not show it.', faults: 1,
    kinds: ['leg-earth', 'leak-across', 'dirty-contact'], line: row(6) },
  { name: 'At the rack', before: 'All silent at once: amplifier, mute, source, before any cable.', after: 'What is wrong at every place is wrong at the rack.', faults: 1,
    kinds: ['amplifier-dead', 'amplifier-clipping', 'amplifier-low', 'source-one-side', 'short-at-drop'], line: row(6) },
  { name: 'A line of twenty', before: 'Any fault, anywhere, and the plan may not be what hangs there. What tells the most for its minutes?', after: 'Walk first where ears tell; read where they do not; where all is right and the line still reads otherwise, doubt the plan.', faults: 1, kinds: null, line: row(20, k => [5, 5, 2.5, 5, 10][k % 5]!, 5) },
  { name: 'Forty, and two faults', before: 'Two at once: one may hide the other.', after: 'Mend one, read again, go on.', faults: 2, kinds: null, line: row(40, () => 5, 4) },
]
