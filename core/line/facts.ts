import { drivenInto, lineKindOf, lineVoltsOf, valveOf, type Drive, type LineKind } from '#core/amplifier/index'
import { asCurve, asLowest, drawnAtRatedW, efficiencyOf, labelledOhm } from '#core/network/element'
import { byId, sure } from '#core/quantity/known'
import { isSameVoltage } from '#core/quantity/tolerance'
import { isKnownThroughout } from '#core/network/label'
import { levelDb, lowestAtHead, type Drop, type LineSolution } from '#core/network/line'
import type { Band, LineThrough, Output, Speaker } from '#core/job/schema'
import { nominalOhmOf, singleLoads } from '#core/network/tree'
import { TRANSFORMER_LOSS_DB, type CountedDraw } from '#core/schools/reserve'
import { cableStated, speakersOf, type CableStated } from '#core/job/tree'
import { fullyUp, type Hangs, type ThroughGroup } from './behind'
import { makeMostOf } from './mostOf'
import { playedHz } from './playedBand'
import { controlIds, fullyUpAt, positionsOf, type Positions, type Settings } from './positions'

/** What one speaker gets at full output; volts and watts are null while the amplifier is not known, or its load not allowed. */
export interface DropFacts {
  nodeId: string
  label: string
  speaker: Speaker
  /** Nominal impedance that it shows to the line; null for a tap that is off. */
  ohm: number | null
  volts: number | null
  /** What it draws from the line. */
  drawnW: number | null
  /** What its driver gets of that: less where its transformer has a stated loss. */
  powerW: number | null
  /** The most its driver may get in any position of the controls, and the most that an output not rated at its load may give. */
  mostW: number | null
  /** The control or the transformer that it hangs behind. */
  behind: ThroughGroup[]
  /** Current through it, as part of the current into the head. */
  ampsShare: number
  /** Its part of all the power that reaches speakers with every control fully up, 0 to 1. */
  share: number
  /** Level against the head of the line, dB, zero or less; for members of a series it is what they are meant to divide. */
  lossDb: number
}

/** A control or a transformer of a line, and what passes it; watts are null as those of a drop. */
export interface ThroughFacts {
  /** The group that hangs behind it. */
  nodeId: string
  through: LineThrough
  speakers: Speaker[]
  /** What all behind it asks for, every control fully up, at the line's full voltage. */
  behindW: number | null
  /** The most that may go into it in any position of the controls, W. */
  mostW: number | null
  inW: number | null
  outW: number | null
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
   * Lowest |Z| over what it plays, 20 Hz to 20 kHz where that is everything: from curves where known, elsewhere what the label permits; `mixed` has both.
   * `knownOhm`: the same with every label taken at its word, so that a dip of a known curve can be told from what labels permit.
   */
  lowest: { ohm: number, frequencyHz: number, from: 'curve' | 'mixed' | 'label', knownOhm: number } | null
  /**
   * Of a valve output: the highest |Z| that hands can leave on it over what it plays, every control off, by labels that hold; `upOhm` with every
   * control fully up. Ohms null: nothing is left. `off`: the controls that leave it so; empty where there is none. null for other outputs.
   */
  highest: { ohm: number | null, frequencyHz: number | null, upOhm: number | null, off: string[] } | null
  /** Sum of the taps as they are set, each as it draws on this line's voltage; null on a low-impedance line. */
  tapsW: number | null
  /** What the speakers draw as they are wired, every control fully up, cable apart: less than the taps where some stand in series; null as `tapsW`. */
  drawW: number | null
  /** The draw as the schools of reserve count it; null as `tapsW`. */
  counted: CountedDraw | null
  /** null also where the amplifier is not known and the taps are printed for several voltages. */
  lineV: number | null
  drive: Drive | null
  /** What it gives with every control fully up; null as `drive`. */
  upDrive: Drive | null
  /** What the amplifier gives into this load at full output, the least of it where that is not rated; null where it is not known or not allowed. */
  amplifierW: number | null
  /** The most it may give, every control fully up. */
  mostW: number | null
  /** Of it, what the leads turn into heat. */
  lostW: number | null
  /** What the transformers of speakers and of groups turn into heat; null also while the loss of one that plays is not stated. */
  transformerLossW: number | null
  /** What the controls turn into heat; null also while the loss of one is not stated. */
  controlLossW: number | null
  /** What all speakers draw, and what their drivers get of it; null as `transformerLossW`. */
  drawnW: number | null
  deliveredW: number | null
  throughs: ThroughFacts[]
  /** Load at the head with every control fully up, Ω: the least of all settings. */
  upOhm: number | null
  upHead: LineSolution['head']['state']
  /** What the amplifier gives then, W. */
  upW: number | null
  /** Share of the power given that the leads turn into heat. */
  lostShare: number
  drops: DropFacts[]
  /** Speakers that nothing can flow through, their own off positions apart. */
  dead: Speaker[]
  /** Lengths of cable that are stated, and that are missing; members of a series stand together and need none. */
  cable: CableStated
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
  const positions = positionsOf(output)
  const { hangs, unit, up, upBare } = positions
  const [loadOhm, upOhm] = [ohmOf(unit), ohmOf(up)]
  const lineV = lineVoltsAt(output, speakers, kind)
  // As it stands, and with every control fully up: what is loaded and what is rated is judged there, for somebody will turn it there.
  const [drive, upDrive] = [loadOhm, upOhm].map(ohm => ohm === null ? null : drivenInto(output, ohm)) as [Drive | null, Drive | null]
  const volts = voltsOf(drive, lineV, d => d.volts)
  const mostVolts = voltsOf(upDrive, lineV, d => d.mostVolts)
  const scaled = (w: number, v: number | null = volts) => v === null ? null : w * v ** 2
  const isLine = kind === 'constant-voltage' && lineV !== null

  const mostOf = makeMostOf(output, positions, mostVolts, kind === 'constant-voltage')
  const drops = dropsOf(speakers, positions, scaled, mostOf)
  const far = drops.filter(d => d.ohm !== null).reduce<DropFacts | null>((worst, d) => worst === null || d.lossDb < worst.lossDb ? d : worst, null)
  const drawW = isLine ? upBare.headPowerW * lineV ** 2 : null
  const losses = lossesOf(unit, speakers, hangs)
  return {
    output, kind, speakers, head: unit.head.state, loadOhm, lineV, drive, upDrive, drops, upOhm, upHead: up.head.state,
    upW: scaled(up.headPowerW, voltsOf(upDrive, lineV, d => d.volts)),
    highest: valveOf(output.rating) ? highestOf(positions) : null,
    lowest: lowestOf(fullyUp(output.wiring), speakers, upOhm, output.band),
    tapsW: isLine ? tapsWOn(lineV, speakers, hangs, upBare) : null,
    drawW,
    counted: drawW === null ? null : countedOf(drawW, up, speakers, volts),
    amplifierW: loadOhm === null ? null : scaled(unit.headPowerW),
    mostW: upOhm === null ? null : scaled(up.headPowerW, mostVolts),
    lostW: scaled(unit.lostW),
    transformerLossW: losses.transformers === null ? null : scaled(losses.transformers),
    controlLossW: losses.controls === null ? null : scaled(losses.controls),
    drawnW: scaled(unit.drops.reduce((sum, d) => sum + d.powerW, 0)),
    deliveredW: losses.delivered === null ? null : scaled(losses.delivered),
    throughs: throughFacts(positions, isLine ? lineV : null, scaled, mostOf),
    lostShare: unit.headPowerW > 0 ? unit.lostW / unit.headPowerW : 0,
    dead: upBare.head.state === 'finite' ? deadOf(drops.filter(d => d.ohm !== null), upBare) : [],
    cable: cableStated(output.wiring),
    farthest: far && { drop: far, lossDb: far.lossDb },
  }
}

const ohmOf = ({ head }: LineSolution): number | null => head.state === 'finite' ? head.ohm : null
/** Volts at the head; null where the output may not be driven so, or is not known. */
const voltsOf = (drive: Drive | null, lineV: number | null, of: (drive: Drive) => number): number | null =>
  drive === null ? lineV : drive.basis === 'under-floor' ? null : of(drive)

type Scaled = (w: number, v?: number | null) => number | null
type MostOf = ReturnType<typeof makeMostOf>

function dropsOf(speakers: Speaker[], { hangs, unit, bare, up }: Positions, scaled: Scaled, mostOf: MostOf): DropFacts[] {
  const [unitOf, bareOf, upOf] = [unit, bare, up].map(of => new Map(of.drops.map(d => [d.id, d]))) as [DropsById, DropsById, DropsById]
  const upW = up.drops.reduce((sum, d) => sum + d.powerW, 0)
  const headAmps = unit.head.state === 'finite' ? 1 / unit.head.ohm : 0
  const volts = Math.sqrt(scaled(1) ?? 0)
  return speakers.map((speaker): DropFacts => {
    const [drop, ideal, most] = [unitOf, bareOf, upOf].map(of => sure(of.get(speaker.id), 'speaker so named')) as [Drop, Drop, Drop]
    const gets = givenOn(speaker)
    const before = hangs.behind.get(speaker.id) ?? NONE
    return {
      nodeId: speaker.id, label: speaker.label, speaker,
      ohm: labelledOhm(speaker.load),
      volts: scaled(1) === null ? null : drop.volts * volts,
      drawnW: scaled(drop.powerW),
      powerW: scaled(drop.powerW * gets),
      mostW: mostOf([...before, ...hangs.inSeriesWith.get(speaker.id) ?? []], solution =>
        gets * (solution === up ? most : byId(solution.drops, speaker.id)).powerW),
      behind: before,
      ampsShare: headAmps > 0 ? drop.amps / headAmps : 0,
      share: upW > 0 ? most.powerW / upW : 0,
      lossDb: drop.volts > 0 && ideal.volts > 0 ? Math.min(0, levelDb(drop.volts, ideal.volts)) : 0,
    }
  })
}
type DropsById = Map<string, Drop>

function throughFacts({ hangs, unit, upBare }: Positions, lineV: number | null, scaled: Scaled, mostOf: MostOf): ThroughFacts[] {
  const inOf = (solution: LineSolution, id: string) => byId(solution.passed, id).inW
  return hangs.all.map((group): ThroughFacts => {
    const { nodeId, speakers } = group
    const passed = byId(unit.passed, nodeId)
    // Its own, those before it and those behind it.
    const isBeside = (id: string, other: ThroughGroup) => [hangs.behind, hangs.inSeriesWith].some(of => of.get(id)?.includes(other))
    const path = hangs.all.filter(other => other === group || speakers.some(s => isBeside(s.id, other)))
    return {
      ...group, behindW: lineV === null ? null : inOf(upBare, nodeId) * lineV ** 2, mostW: mostOf(path, solution => inOf(solution, nodeId)),
      inW: scaled(passed.inW), outW: scaled(passed.outW),
    }
  })
}

/** The least that a hand can leave on the output: every control off; and where that is no less, over what is played with every control up. */
function highestOf({ hangs, highest, at }: Positions): LineFacts['highest'] {
  const controls = controlIds(hangs.all)
  const up = highest(fullyUpAt(controls))
  if (controls.length === 0) return { ohm: up?.ohm ?? null, frequencyHz: up?.frequencyHz ?? null, upOhm: up?.ohm ?? null, off: [] }
  const isOpen = at(ALL_OFF).head.state === 'open'
  const down = isOpen ? null : highest(ALL_OFF)
  const labels = hangs.all.filter(g => g.through.kind === 'control').map(g => g.through.label)
  return { ohm: down?.ohm ?? null, frequencyHz: down?.frequencyHz ?? null, upOhm: up?.ohm ?? null, off: labels }
}

const ALL_OFF: Settings = new Map()
const NONE: ThroughGroup[] = []

/** The part of what a speaker draws that its driver gets, as far as a loss is stated. */
function givenOn({ load }: Speaker): number {
  return load.kind === 'tap' ? efficiencyOf(load) ?? 1 : 1
}

/** Heat in transformers and controls, and what drivers get, for one volt at the head; null while a loss is not stated. */
function lossesOf(unit: LineSolution, speakers: Speaker[], { all }: { all: ThroughGroup[] }): Record<'transformers' | 'controls' | 'delivered', number | null> {
  const passedOf = (kind: LineThrough['kind']) => all.filter(s => s.through.kind === kind)
    .map(s => ({ through: s.through, passed: byId(unit.passed, s.nodeId) })).filter(({ passed }) => passed.inW > 0)
  const heat = (of: ReturnType<typeof passedOf>) => of.every(({ through }) => isLossKnown(through))
    ? of.reduce((sum, { passed }) => sum + passed.inW - passed.outW, 0)
    : null
  const wattsOf = new Map(unit.drops.map(d => [d.id, d.powerW]))
  const taps = speakers.filter(s => s.load.kind === 'tap' && wattsOf.get(s.id)! > 0)
  const isStated = taps.every(s => s.load.kind === 'tap' && s.load.insertionDb !== null)
  const groups = heat(passedOf('transformer'))
  return {
    controls: heat(passedOf('control')),
    transformers: groups === null || !isStated ? null : groups + taps.reduce((sum, s) => sum + wattsOf.get(s.id)! * (1 - givenOn(s)), 0),
    delivered: isStated ? speakers.reduce((sum, s) => sum + wattsOf.get(s.id)! * givenOn(s), 0) : null,
  }
}

/** Whether the loss of a control or a transformer is known: stated, and with the rating that sizes it. */
export function isLossKnown(through: LineThrough): boolean {
  switch (through.kind) {
    case 'transformer': return through.insertionDb !== null
    case 'control': return through.insertionDb !== null && through.ratingW !== null && through.lineV !== null
    case 'capacitor': return true
    case 'inductor': return through.resistanceOhm !== null
  }
}

/** Those that nothing can flow through, though nothing before them is off. */
function deadOf(live: DropFacts[], upBare: LineSolution): Speaker[] {
  const flows = new Set(upBare.drops.filter(d => d.amps > 0).map(d => d.id))
  return live.filter(({ nodeId, behind }) => !flows.has(nodeId) && !behind.some(({ through }) => isOff(through))).map(d => d.speaker)
}

export function isOff(through: LineThrough): boolean {
  switch (through.kind) {
    case 'control': return through.setDb === 'off'
    case 'transformer': return through.tapW === 0
    default: return false
  }
}

/** The draw as the schools count it: what is lost on the way as solved, where the volts are known. */
function countedOf(drawW: number, up: LineSolution, speakers: Speaker[], volts: number | null): CountedDraw {
  const reached = new Map(up.drops.map(d => [d.id, d.powerW * (volts ?? 0) ** 2]))
  const reachedW = volts === null ? drawW : [...reached.values()].reduce((a, b) => a + b, 0)
  const heatW = volts === null ? 0 : Math.max(0, up.headPowerW * volts ** 2 - reachedW)
  // Where a sheet says that a tap is what the line gives, or its loss is in the draw already, nothing comes on top.
  const assumedDb = ({ load }: Speaker) => load.kind !== 'tap' || load.tapMeans === 'line-gives' || (load.tapMeans === 'driver-gets' && load.insertionDb !== null)
    ? 0
    : load.insertionDb ?? TRANSFORMER_LOSS_DB
  const assumedW = speakers.reduce((sum, s) => sum + (reached.get(s.id) ?? 0) * (10 ** (assumedDb(s) / 10) - 1), 0)
  return { tapsW: drawW, reachedW, lostW: heatW, assumedW: volts === null ? drawW * (10 ** (TRANSFORMER_LOSS_DB / 10) - 1) : assumedW }
}

/** The line's voltage; without a known amplifier, the one that all its transformers are printed for. */
function lineVoltsAt(output: Output, speakers: Speaker[], kind: LineKind): number | null {
  const ratedV = lineVoltsOf(output.rating)
  if (ratedV !== null || kind === 'low-impedance') return ratedV
  const printed = speakers.flatMap(s => s.load.kind === 'tap' ? [s.load.ratedV] : [])
  return printed.every(v => isSameVoltage(v, printed[0]!)) ? printed[0] ?? null : null
}

/** Power that a tap draws on a line: the same winding on another voltage takes P·(V/V₀)². Source: definition of power. */
export function tapDrawW(load: Parameters<typeof drawnAtRatedW>[0] & { ratedV: number }, lineV: number): number {
  return drawnAtRatedW(load) * (lineV / load.ratedV) ** 2
}

/** What hangs on the line itself: speakers and transformers of groups, not what is behind these. */
function tapsWOn(lineV: number, speakers: Speaker[], { all, behind }: Hangs, upBare: LineSolution): number {
  const ofSpeakers = speakers.filter(s => !isBehindTransformer(behind.get(s.id) ?? NONE))
    .reduce((sum, { load }) => sum + (load.kind === 'tap' ? tapDrawW(load, lineV) : lineV ** 2 / nominalOhmOf(load)), 0)
  // What its group makes of a transformer's tap is said at the transformer.
  return all.reduce((sum, { through, nodeId }) => sum + (through.kind === 'transformer' ? byId(upBare.passed, nodeId).inW * lineV ** 2 : 0), ofSpeakers)
}

export const isBehindTransformer = (behind: readonly ThroughGroup[]): boolean => behind.some(({ through }) => through.kind === 'transformer')

function lowestOf(wiring: Output['wiring'], speakers: Speaker[], loadOhm: number | null, band: Band | null): LineFacts['lowest'] {
  const root = { lead: null, node: wiring }
  const singles = speakers.flatMap(s => singleLoads(s.load))
  const known = singles.filter(isKnownThroughout).length
  const partly = singles.some(load => load.kind === 'curve')
  const withinHz = playedHz(band)
  const lowest = lowestAtHead(root, asLowest, withinHz)
  if (!lowest) return null
  if (known === singles.length) return { ...lowest, from: 'curve', knownOhm: lowest.ohm }
  // Without a curve the labels at their word are the nominal load, which is solved already.
  return known > 0 || partly
    ? { ...lowest, from: 'mixed', knownOhm: lowestAtHead(root, asCurve, withinHz)?.ohm ?? lowest.ohm }
    : { ...lowest, from: 'label', knownOhm: loadOhm ?? lowest.ohm }
}
