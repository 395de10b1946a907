import { driveInto, lineKindOf, lineVoltsOf, type Drive, type LineKind } from '#core/amplifier/index'
import { METER_HZ } from '#core/check/predict'
import { asCurve, asLabelled, asLowest, labelledOhm } from '#core/network/element'
import { isSameVoltage } from '#core/quantity/tolerance'
import { levelDb, lowestAtHead, solveLine, type LineSolution } from '#core/network/line'
import type { Branch, Output, Speaker, WireNode } from '#core/job/schema'
import { isGroup, nominalOhmOf, singleLoads } from '#core/network/tree'
import { speakersOf } from '#core/job/tree'

/** What one speaker gets at full output; volts and watts are null while the amplifier is not known, or its load not allowed. */
export interface DropFacts {
  nodeId: string
  label: string
  speaker: Speaker
  /** Nominal impedance that it shows to the line; null for a tap that is off. */
  ohm: number | null
  volts: number | null
  powerW: number | null
  /** The most it may get: more than `powerW` only where the output is not rated at this load. */
  mostW: number | null
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
  /**
   * Lowest |Z| between 20 Hz and 20 kHz: from curves where known, elsewhere what the label permits; `mixed` has both.
   * `knownOhm`: the same with every label taken at its word, so that a dip of a known curve can be told from what labels permit.
   */
  lowest: { ohm: number, frequencyHz: number, from: 'curve' | 'mixed' | 'label', knownOhm: number } | null
  /** Sum of the taps as they are set, each as it draws on this line's voltage; null on a low-impedance line. */
  tapsW: number | null
  /** What the speakers draw as they are wired, cable apart: less than the taps where some stand in series; null as `tapsW`. */
  drawW: number | null
  /** null also where the amplifier is not known and the taps are printed for several voltages. */
  lineV: number | null
  drive: Drive | null
  /** What the amplifier gives into this load at full output, the least of it where that is not rated; null where it is not known or not allowed. */
  amplifierW: number | null
  /** The most it may give. */
  mostW: number | null
  lostW: number | null
  /** Share of the power given that the leads turn into heat. */
  lostShare: number
  drops: DropFacts[]
  /** Speakers that nothing can flow through, their own off positions apart. */
  dead: Speaker[]
  /** Lengths of cable that are stated, and that are missing; members of a series stand together and need none. */
  cable: { stated: number, missing: number }
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
  // The network is linear: solved for one volt, then scaled by what the output gives into the head. Bare: as if no lead had resistance.
  const unit = solveLine(root, asLabelled, METER_HZ, 1)
  const bare = solveLine({ lead: null, node: bareOf(output.wiring) }, asLabelled, METER_HZ, 1)
  const loadOhm = unit.head.state === 'finite' ? unit.head.ohm : null
  const lineV = lineVoltsAt(output, speakers, kind)
  const drive = loadOhm === null ? null : driveInto(output.rating, loadOhm)
  const isAllowed = drive === null || drive.basis !== 'under-floor'
  const volts = isAllowed ? drive?.volts ?? lineV : null
  const mostVolts = isAllowed ? drive?.mostVolts ?? lineV : null

  const usedW = unit.drops.reduce((sum, d) => sum + d.powerW, 0)
  const headAmps = unit.head.state === 'finite' ? 1 / unit.head.ohm : 0
  const byId = new Map(unit.drops.map(d => [d.id, d]))
  const bareById = new Map(bare.drops.map(d => [d.id, d]))
  const drops = speakers.map((speaker): DropFacts => {
    const drop = byId.get(speaker.id)!
    const ideal = bareById.get(speaker.id)!.volts
    return {
      nodeId: speaker.id, label: speaker.label, speaker,
      ohm: labelledOhm(speaker.load),
      volts: volts === null ? null : drop.volts * volts,
      powerW: volts === null ? null : drop.powerW * volts ** 2,
      mostW: mostVolts === null ? null : drop.powerW * mostVolts ** 2,
      ampsShare: headAmps > 0 ? drop.amps / headAmps : 0,
      share: usedW > 0 ? drop.powerW / usedW : 0,
      lossDb: drop.volts > 0 && ideal > 0 ? Math.min(0, levelDb(drop.volts, ideal)) : 0,
    }
  })
  const live = drops.filter(d => d.ohm !== null)
  const far = live.reduce<DropFacts | null>((worst, d) => worst === null || d.lossDb < worst.lossDb ? d : worst, null)
  const headW = (v: number | null) => v === null || loadOhm === null ? null : unit.headPowerW * v ** 2

  return {
    output, kind, speakers, head: unit.head.state, loadOhm, lineV, drive, drops,
    lowest: lowestOf(output, speakers, loadOhm),
    tapsW: kind === 'constant-voltage' && lineV !== null ? tapsWOn(lineV, speakers) : null,
    drawW: kind === 'constant-voltage' && lineV !== null ? bare.drops.reduce((sum, d) => sum + d.powerW, 0) * lineV ** 2 : null,
    amplifierW: headW(volts),
    mostW: headW(mostVolts),
    lostW: volts === null ? null : unit.lostW * volts ** 2,
    lostShare: unit.headPowerW > 0 ? unit.lostW / unit.headPowerW : 0,
    dead: bare.head.state === 'finite' ? live.filter(d => bareById.get(d.nodeId)!.amps === 0).map(d => d.speaker) : [],
    cable: cableOf(output.wiring),
    farthest: far && { drop: far, lossDb: far.lossDb },
  }
}

/** The line's voltage; without a known amplifier, the one that all its transformers are printed for. */
function lineVoltsAt(output: Output, speakers: Speaker[], kind: LineKind): number | null {
  const ratedV = lineVoltsOf(output.rating)
  if (ratedV !== null || kind === 'low-impedance') return ratedV
  const printed = speakers.flatMap(s => s.load.kind === 'tap' ? [s.load.ratedV] : [])
  return printed.every(v => isSameVoltage(v, printed[0]!)) ? printed[0] ?? null : null
}

/** Along a chain every length counts; members of a series or a star may stand at one place. */
function cableOf(node: Output['wiring'] | WireNode): LineFacts['cable'] {
  if (!isGroup(node)) return { stated: 0, missing: 0 }
  return node.children.reduce((sum, branch: Branch) => {
    const below = cableOf(branch.node)
    return {
      stated: sum.stated + below.stated + (branch.lead ? 1 : 0),
      missing: sum.missing + below.missing + (!branch.lead && node.kind === 'chain' ? 1 : 0),
    }
  }, { stated: 0, missing: 0 })
}

/** Power that a tap draws on a line: the same winding on another voltage takes P·(V/V₀)². Source: definition of power. */
export function tapDrawW(load: { tapW: number, ratedV: number }, lineV: number): number {
  return load.tapW * (lineV / load.ratedV) ** 2
}

function tapsWOn(lineV: number, speakers: Speaker[]): number {
  return speakers.reduce((sum, { load }) => sum + (load.kind === 'tap' ? tapDrawW(load, lineV) : lineV ** 2 / nominalOhmOf(load)), 0)
}

/** The wiring as if no lead had resistance. */
function bareOf<N>(node: N): N {
  return 'children' in (node as object)
    ? { ...node, children: (node as { children: { node: unknown }[] }).children.map(c => ({ lead: null, node: bareOf(c.node) })) }
    : node
}

function lowestOf(output: Output, speakers: Speaker[], loadOhm: number | null): LineFacts['lowest'] {
  const root = { lead: null, node: output.wiring }
  const singles = speakers.flatMap(s => singleLoads(s.load))
  const known = singles.filter(load => load.kind === 'motional').length
  const lowest = lowestAtHead(root, asLowest)
  if (!lowest) return null
  if (known === singles.length) return { ...lowest, from: 'curve', knownOhm: lowest.ohm }
  // Without a curve the labels at their word are the nominal load, which is solved already.
  return known > 0
    ? { ...lowest, from: 'mixed', knownOhm: lowestAtHead(root, asCurve)?.ohm ?? lowest.ohm }
    : { ...lowest, from: 'label', knownOhm: loadOhm ?? lowest.ohm }
}
