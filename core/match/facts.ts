import { driveInto, lineKindOf, lineVoltsOf, type Drive, type LineKind } from '#core/amplifier/index'
import { METER_HZ } from '#core/check/predict'
import { asCurve, asLabelled, asLowest } from '#core/network/element'
import { levelDb, lowestAtHead, solveLine, type LineSolution } from '#core/network/line'
import type { Output, Speaker } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'

/** What one speaker gets at full output; volts and watts are null while the amplifier is not known. */
export interface DropFacts {
  nodeId: string
  label: string
  speaker: Speaker
  /** Nominal impedance that it shows to the line; null for a tap that is off. */
  ohm: number | null
  volts: number | null
  powerW: number | null
  /** Current through it, as part of the current into the head. */
  ampsShare: number
  /** Its part of all the power that reaches speakers, 0 to 1. */
  share: number
  /** Level against the head of the line, dB, zero or less; for members of a series it is what they are meant to divide. */
  lossDb: number
}

/** The network of one line, solved: all that the rules judge by. */
export interface LineFacts {
  output: Output
  kind: LineKind
  speakers: Speaker[]
  head: LineSolution['head']['state']
  /** Nominal, at the head, cable included; null when open or short. */
  loadOhm: number | null
  /** Lowest |Z| between 20 Hz and 20 kHz: from curves where known, elsewhere what the label permits. */
  lowest: { ohm: number, frequencyHz: number, from: 'curve' | 'label' } | null
  /** Sum of taps as they draw on this line's voltage; null on a low-impedance line. */
  tapsW: number | null
  lineV: number | null
  drive: Drive | null
  /** What the amplifier gives into this load at full output. */
  amplifierW: number | null
  lostW: number | null
  /** Share of the power given that the leads turn into heat. */
  lostShare: number
  drops: DropFacts[]
  /** The speaker with the least level for its load, where cable is stated. */
  farthest: { drop: DropFacts, lossDb: number } | null
}

/** The kind of line; where the amplifier is not known, the one that its speakers are made for. */
function kindOf(output: Output, speakers: Speaker[]): LineKind {
  return lineKindOf(output.rating) ?? (speakers.some(s => s.load.kind === 'tap') ? 'constant-voltage' : 'low-impedance')
}

/** Solves one line. Pure and O(speakers); the whole of a line's arithmetic is here. */
export function solveOutput(output: Output): LineFacts {
  const speakers = speakersOf(output.wiring)
  const kind = kindOf(output, speakers)
  const root = { lead: null, node: output.wiring }
  // The network is linear: solved for one volt, then scaled by what the output gives into the head.
  const unit = solveLine(root, asLabelled, METER_HZ, 1)
  const loadOhm = unit.head.state === 'finite' ? unit.head.ohm : null
  const lineV = lineVoltsAt(output, speakers, kind)
  const drive = loadOhm === null ? null : driveInto(output.rating, loadOhm)
  const volts = drive?.volts ?? lineV

  const usedW = unit.drops.reduce((sum, d) => sum + d.powerW, 0)
  const headAmps = unit.head.state === 'finite' ? 1 / unit.head.ohm : 0
  const byId = new Map(unit.drops.map(d => [d.id, d]))
  const references = idealVolts(output)
  const drops = speakers.map((speaker): DropFacts => {
    const drop = byId.get(speaker.id)!
    const element = asLabelled(speaker.load)
    const ideal = references.get(speaker.id) ?? 1
    return {
      nodeId: speaker.id, label: speaker.label, speaker,
      ohm: element.kind === 'resistor' ? element.ohm : null,
      volts: volts === null ? null : drop.volts * volts,
      powerW: volts === null ? null : drop.powerW * volts ** 2,
      ampsShare: headAmps > 0 ? drop.amps / headAmps : 0,
      share: usedW > 0 ? drop.powerW / usedW : 0,
      lossDb: drop.volts > 0 && ideal > 0 ? Math.min(0, levelDb(drop.volts, ideal)) : 0,
    }
  })
  const live = drops.filter(d => d.ohm !== null)
  const far = live.reduce<DropFacts | null>((worst, d) => worst === null || d.lossDb < worst.lossDb ? d : worst, null)

  return {
    output, kind, speakers, head: unit.head.state, loadOhm, lineV, drive, drops,
    lowest: lowestOf(output, speakers),
    tapsW: kind === 'constant-voltage' && lineV !== null ? tapsWOn(lineV, speakers) : null,
    amplifierW: volts === null || loadOhm === null ? null : unit.headPowerW * volts ** 2,
    lostW: volts === null ? null : unit.lostW * volts ** 2,
    lostShare: unit.headPowerW > 0 ? unit.lostW / unit.headPowerW : 0,
    farthest: far && { drop: far, lossDb: far.lossDb },
  }
}

/** The line's voltage; without a known amplifier, the one its transformers are printed for. */
function lineVoltsAt(output: Output, speakers: Speaker[], kind: LineKind): number | null {
  const ratedV = lineVoltsOf(output.rating)
  if (ratedV !== null || kind === 'low-impedance') return ratedV
  return speakers.flatMap(s => s.load.kind === 'tap' ? [s.load.ratedV] : [])[0] ?? null
}

/** Power that a tap draws on a line: the same winding on another voltage takes P·(V/V₀)². Source: definition of power. */
export function tapDrawW(load: { tapW: number, ratedV: number }, lineV: number): number {
  return load.tapW * (lineV / load.ratedV) ** 2
}

function tapsWOn(lineV: number, speakers: Speaker[]): number {
  return speakers.reduce((sum, { load }) => sum + (load.kind === 'tap' ? tapDrawW(load, lineV) : lineV ** 2 / load.nominalOhm), 0)
}

/** Volts that every speaker would have for one volt at the head if no lead had resistance. */
function idealVolts(output: Output): Map<string, number> {
  const bare = <N>(node: N): N => 'children' in (node as object)
    ? { ...node, children: (node as { children: { node: unknown }[] }).children.map(c => ({ lead: null, node: bare(c.node) })) }
    : node
  const solved = solveLine({ lead: null, node: bare(output.wiring) }, asLabelled, METER_HZ, 1)
  return new Map(solved.drops.map(d => [d.id, d.volts]))
}

function lowestOf(output: Output, speakers: Speaker[]): LineFacts['lowest'] {
  const known = speakers.length > 0 && speakers.every(s => s.load.kind === 'motional')
  const lowest = lowestAtHead({ lead: null, node: output.wiring }, known ? asCurve : asLowest)
  return lowest && { ...lowest, from: known ? 'curve' : 'label' }
}
