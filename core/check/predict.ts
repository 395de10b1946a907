import { FAULTS } from '#core/faults/index'
import { faultAt } from '#core/faults/fault'
import { headOf, type LineSolution } from '#core/network/line'
import { sure } from '#core/quantity/known'
import { isReactive } from '#core/network/element'
import { asWired, membersOf, singleLoads, type GroupNode } from '#core/network/tree'
import { writeNumber } from '#core/quantity/write'
import type { Chain, LineThrough, Output, ReadingKind, Speaker } from '#core/job/schema'
import { cableStated, speakersOf, throughsIn } from '#core/job/tree'
import type { LevelPlan } from './levels'
import { leastToRead } from './overload'
import { NO_LESSONS, type Lessons } from './lessons'
import { bandAt, copperBand, copperOf, DCR_BANDS, dcrAt, IMPEDANCE_BANDS, METER_HZ, solvedAsRead, type Edge } from './readingBands'
import { lineSpread } from './spread'

/** What a reading should be. Nulls are not known; `source` says where the band comes from or why there is none. */
export interface Predicted {
  kind: ReadingKind
  outputId: string
  /** null: at the head of the line. */
  nodeId: string | null
  /** The place as people name it: "A2" or "A2 07". */
  place: string
  low: number | null
  expected: number | null
  high: number | null
  unit: 'Ω'
  source: string
  /** The tone that it is read with, Hz; null of what is not measured with a tone. */
  frequencyHz: number | null
  /** Of the line's impedance: `expected` is this many times what is computed of the drawing, and where that was learned. */
  learned: { factor: number, from: string[] } | null
  /** Of the line's impedance: the part of the band that units of one model do not share, as the logarithm of a ratio to either side; null elsewhere. */
  ownSpread: number | null
  /** Of the line: lengths of cable that nobody stated, so that what they add is not in what is right. */
  cableMissing: number
  /** Nothing flows there as it is drawn: open is what it should read, and silent what should be heard. */
  isOpen: boolean
  /** Of the line: what it would read with its least speaker dead, where that lies inside the band, too, so that this reading cannot tell it. */
  cannotTell: { label: string, ohm: number, of: number } | null
  /** Of a tap as found: the one that is drawn; null of all else. */
  tap?: { tapW: number, ratedV: number } | null
  /** Of a sound level: what it is held against; null of all else. */
  level?: LevelPlan | null
  /** Under this the output is overloaded, Ω; null where that is not known, or not read here. */
  overloadOhm: number | null
}

/** Every reading that can be foretold on a line: its impedance and DCR at the head, the coil of each speaker, and who is drawn off and should be silent. */
export function predictLine(output: Output): Predicted[] {
  const speakers = speakersOf(output.wiring)
  if (speakers.length === 0) return []
  const throughs = throughsIn(output.wiring).map(t => t.through)
  return [
    predictLineImpedance(output),
    predictLineDcr(output, speakers, throughs),
    ...speakers.map(speaker => predictCoil(output, speaker)),
    ...predictSilent(output, speakers),
  ]
}

/** Speakers behind what is drawn off, or on a tap that is: silent is right there. Of all others nothing is foretold; to be heard speaks for itself. */
function predictSilent(output: Output, speakers: readonly Speaker[]): Predicted[] {
  if (!speakers.some(s => s.load.kind === 'tap' && s.load.tapW === 0) && !throughsIn(output.wiring).some(({ through }) => isOff(through))) return []
  const watts = new Map(solvedAsRead(output.wiring).drops.map(d => [d.id, d.powerW]))
  return speakers.filter(s => watts.get(s.id) === 0).map(({ id, label }) => ({
    kind: 'sound', outputId: output.id, nodeId: id, place: `${output.label} ${label}`, ...OF_COPPER, ...NOT_KNOWN, isOpen: true, source: 'drawn off',
  }))
}

const isOff = (through: LineThrough): boolean => through.kind === 'control' ? through.setDb === 'off' : through.kind === 'transformer' && through.tapW === 0

type Edges = Record<Edge, number | null> & { isOpen: boolean }
/** What an ohmmeter reads, every coil at one edge of its band. */
function copperAtHead(chain: Chain | GroupNode): Edges {
  const heads = (['low', 'expected', 'high'] as const).map(edge => headOf({ lead: null, node: chain }, dcrAt(edge), DIRECT_HZ))
  const [low, expected, high] = heads.map(head => head.state === 'finite' ? head.ohm : null) as [number | null, number | null, number | null]
  return { low, expected, high, isOpen: heads.every(head => head.state === 'open') }
}
const NOT_KNOWN: Edges = { low: null, expected: null, high: null, isOpen: false }

/** The speaker that the line's impedance sees least of, dead: what would be read, where that is inside the band. */
function blindTo(output: Output, { drops }: LineSolution, { low, high }: Edges, factor: number, frequencyHz: number): Predicted['cannotTell'] {
  const speakers = speakersOf(output.wiring)
  if (speakers.length < 2 || low === null || high === null) return null
  const [least] = drops.filter(d => d.powerW > 0).sort((a, b) => a.powerW - b.powerW)
  const speaker = speakers.find(s => s.id === least?.id)
  const dead = speaker && OPEN_AT_DROP.change(output.wiring, faultAt('open-at-drop', speaker.id))
  const head = dead && solvedAsRead(dead, frequencyHz).head
  const ohm = head?.state === 'finite' ? head.ohm * factor : null
  return ohm !== null && ohm >= low && ohm <= high ? { label: speaker!.label, ohm, of: speakers.length } : null
}
const OPEN_AT_DROP = sure(FAULTS.find(f => f.kind === 'open-at-drop'), 'fault of an open drop')

/** The impedance of the line with a tone of so many hertz, with what has been learned of its models. */
export function predictLineImpedance(output: Output, frequencyHz = METER_HZ, lessons: Lessons = NO_LESSONS): Predicted {
  const speakers = speakersOf(output.wiring)
  const throughs = throughsIn(output.wiring).map(t => t.through)
  const kinds = [...new Set(speakers.flatMap(s => singleLoads(s.load).map(load => bandAt(load, frequencyHz))))]
  const solved = solvedAsRead(output.wiring, frequencyHz)
  const spread = lineSpread(output, solved, frequencyHz, lessons)
  const expected = solved.head.state === 'finite' ? solved.head.ohm * spread.factor : null
  const band: Edges = expected === null
    ? { ...NOT_KNOWN, isOpen: solved.head.state === 'open' }
    : { low: expected * Math.exp(-spread.low), expected, high: expected * Math.exp(spread.high), isOpen: false }
  const isLearned = spread.learnedFrom.length > 0
  return {
    kind: 'line-impedance', outputId: output.id, nodeId: null, place: output.label, unit: 'Ω', frequencyHz,
    ...band, cannotTell: blindTo(output, solved, band, spread.factor, frequencyHz),
    overloadOhm: leastToRead(output), cableMissing: cableStated(output.wiring).missing,
    learned: isLearned ? { factor: spread.factor, from: spread.learnedFrom } : null, ownSpread: expected === null ? null : spread.own,
    source: [...isLearned ? [`learned from ${spread.learnedFrom.join(', ')}`] : kinds.map(kind => IMPEDANCE_BANDS[kind].source), ...settingsOf(throughs)].join('; '),
  }
}

/** How the controls stand that the figure is for: turned otherwise, another is read. */
function settingsOf(throughs: readonly LineThrough[]): string[] {
  return throughs.flatMap(t => t.kind === 'control' ? [`with ${t.label} ${t.setDb === 'off' ? 'off' : t.setDb ? `turned down ${writeNumber(t.setDb)} dB` : 'fully up'}`] : [])
}

function predictLineDcr(output: Output, speakers: Speaker[], throughs: readonly LineThrough[]): Predicted {
  const unread = unreadBy(speakers, throughs)
  const kinds = [...new Set(speakers.flatMap(s => singleLoads(s.load).flatMap(l => l.kind === 'tap' ? [] : [copperBand(l)])))]
  return {
    kind: 'line-dcr', outputId: output.id, nodeId: null, place: output.label, ...OF_COPPER, cableMissing: cableStated(output.wiring).missing,
    ...(unread === null ? copperAtHead(output.wiring) : NOT_KNOWN),
    source: unread ?? [...kinds.map(kind => DCR_BANDS[kind].source), ...(throughs.some(t => t.kind === 'capacitor') ? [BEHIND_CAPACITOR] : [])].join('; '),
  }
}

const DIRECT_HZ = 0
/** A reading in ohms of which nothing is said that is said of impedances only. */
export const OF_COPPER = { unit: 'Ω', overloadOhm: null, cannotTell: null, frequencyHz: null, learned: null, ownSpread: null, cableMissing: 0 } as const
const BEHIND_CAPACITOR = 'a capacitor in the way lets no direct current through: what is behind it is not read'

/** Why the direct current of an ohmmeter says nothing of the line; null where it does. */
function unreadBy(speakers: readonly Speaker[], throughs: readonly LineThrough[]): string | null {
  if (speakers.some(s => s.load.kind === 'tap') || throughs.some(t => !isReactive(t))) return 'through transformers an ohmmeter sees only the copper of the windings, which is not known'
  return throughs.some(t => t.kind === 'inductor' && t.resistanceOhm === null) ? 'the copper of a coil in the way is not stated' : null
}

/** The coil itself, leads on the drive unit. */
function predictCoil(output: Output, speaker: Speaker): Predicted {
  const { id, label, load, driverOhm } = speaker
  const base = { kind: 'coil-dcr' as const, outputId: output.id, nodeId: id, place: `${output.label} ${label}`, ...OF_COPPER, isOpen: false }
  const wired = asWired(load)
  if (wired.kind === 'members') {
    const count = `${wired.members.length} in ${wired.joined === 'series' ? 'series' : 'parallel'}, read as one`
    return { ...base, ...copperAtHead(membersOf(id, wired)), source: [count, ...new Set(wired.members.map(m => DCR_BANDS[m.kind].source))].join('; ') }
  }
  const stated = wired.kind === 'tap' ? driverOhm : copperOf(wired)
  if (stated === null) return { ...base, low: null, expected: null, high: null, source: 'the impedance of the drive unit is not known' }
  const { low, expected, high, source } = DCR_BANDS[wired.kind === 'tap' ? 'nominal' : copperBand(wired)]
  return { ...base, low: stated * low, expected: stated * expected, high: stated * high, source }
}
