import { FAULTS } from '#core/faults/index'
import { faultAt } from '#core/faults/fault'
import { headOf } from '#core/network/line'
import { sure } from '#core/quantity/known'
import { isReactive } from '#core/network/element'
import { asWired, membersOf, singleLoads, type GroupNode } from '#core/network/tree'
import { writeNumber } from '#core/quantity/write'
import type { View } from '#core/network/element'
import type { Chain, LineThrough, Output, Speaker } from '#core/job/schema'
import type { MeasuredKind } from '#core/job/sections/readings/kinds'
import { speakersOf, throughsIn } from '#core/job/tree'
import { leastToRead } from './overload'
import { bandAt, copperBand, copperOf, DCR_BANDS, dcrAt, IMPEDANCE_BANDS, impedanceAt, METER_HZ, solvedAsRead, type Edge } from './readingBands'

/** What a reading should be. Nulls are not known; `source` says where the band comes from or why there is none. */
export interface Predicted {
  kind: MeasuredKind
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
  /** Nothing flows there as it is drawn: open is what it should read. */
  isOpen: boolean
  /** Of the line: what it would read with its least speaker dead, where that lies inside the band, too, so that this reading cannot tell it. */
  cannotTell: { label: string, ohm: number, of: number } | null
  /** Under this the output is overloaded, Ω; null where that is not known, or not read here. */
  overloadOhm: number | null
}

/** Every reading that can be foretold on a line: its impedance and DCR at the head, the coil of each speaker. */
export function predictLine(output: Output): Predicted[] {
  const speakers = speakersOf(output.wiring)
  if (speakers.length === 0) return []
  const throughs = throughsIn(output.wiring).map(t => t.through)
  return [
    predictLineImpedance(output, speakers, throughs),
    predictLineDcr(output, speakers, throughs),
    ...speakers.map(speaker => predictCoil(output, speaker)),
  ]
}

type Edges = Record<Edge, number | null> & { isOpen: boolean }
function headBand(chain: Chain | GroupNode, viewAt: (edge: Edge) => View, frequencyHz = METER_HZ): Edges {
  const heads = (['low', 'expected', 'high'] as const).map(edge => headOf({ lead: null, node: chain }, viewAt(edge), frequencyHz))
  const [low, expected, high] = heads.map(head => head.state === 'finite' ? head.ohm : null) as [number | null, number | null, number | null]
  return { low, expected, high, isOpen: heads.every(head => head.state === 'open') }
}
const NOT_KNOWN: Edges = { low: null, expected: null, high: null, isOpen: false }

/** The speaker that the line's impedance sees least of, dead: what would be read, where that is inside the band. */
function blindTo(output: Output, speakers: readonly Speaker[], { low, high }: Edges): Predicted['cannotTell'] {
  if (speakers.length < 2 || low === null || high === null) return null
  const { drops } = solvedAsRead(output.wiring)
  const [least] = drops.filter(d => d.powerW > 0).sort((a, b) => a.powerW - b.powerW)
  const speaker = speakers.find(s => s.id === least?.id)
  const dead = speaker && OPEN_AT_DROP.change(output.wiring, faultAt('open-at-drop', speaker.id))
  const head = dead && headOf({ lead: null, node: dead }, impedanceAt('expected'), METER_HZ)
  return head?.state === 'finite' && head.ohm >= low && head.ohm <= high ? { label: speaker!.label, ohm: head.ohm, of: speakers.length } : null
}
const OPEN_AT_DROP = sure(FAULTS.find(f => f.kind === 'open-at-drop'), 'fault of an open drop')

function predictLineImpedance(output: Output, speakers: Speaker[], throughs: readonly LineThrough[]): Predicted {
  const kinds = [...new Set(speakers.flatMap(s => singleLoads(s.load).map(bandAt)))]
  const band = headBand(output.wiring, impedanceAt)
  return {
    kind: 'line-impedance', outputId: output.id, nodeId: null, place: output.label, unit: 'Ω',
    ...band, cannotTell: blindTo(output, speakers, band), overloadOhm: leastToRead(output),
    source: [...kinds.map(kind => IMPEDANCE_BANDS[kind].source), ...settingsOf(throughs)].join('; '),
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
    kind: 'line-dcr', outputId: output.id, nodeId: null, place: output.label, unit: 'Ω', overloadOhm: null, cannotTell: null,
    ...(unread === null ? headBand(output.wiring, dcrAt, DIRECT_HZ) : NOT_KNOWN),
    source: unread ?? [...kinds.map(kind => DCR_BANDS[kind].source), ...(throughs.some(t => t.kind === 'capacitor') ? [BEHIND_CAPACITOR] : [])].join('; '),
  }
}

const DIRECT_HZ = 0
const BEHIND_CAPACITOR = 'a capacitor in the way lets no direct current through: what is behind it is not read'

/** Why the direct current of an ohmmeter says nothing of the line; null where it does. */
function unreadBy(speakers: readonly Speaker[], throughs: readonly LineThrough[]): string | null {
  if (speakers.some(s => s.load.kind === 'tap') || throughs.some(t => !isReactive(t))) return 'through transformers an ohmmeter sees only the copper of the windings, which is not known'
  return throughs.some(t => t.kind === 'inductor' && t.resistanceOhm === null) ? 'the copper of a coil in the way is not stated' : null
}

/** The coil itself, leads on the drive unit. */
function predictCoil(output: Output, speaker: Speaker): Predicted {
  const { id, label, load, driverOhm } = speaker
  const base = { kind: 'coil-dcr' as const, outputId: output.id, nodeId: id, place: `${output.label} ${label}`, unit: 'Ω' as const, overloadOhm: null, cannotTell: null, isOpen: false }
  const wired = asWired(load)
  if (wired.kind === 'members') {
    const count = `${wired.members.length} in ${wired.joined === 'series' ? 'series' : 'parallel'}, read as one`
    return { ...base, ...headBand(membersOf(id, wired), dcrAt), source: [count, ...new Set(wired.members.map(m => DCR_BANDS[m.kind].source))].join('; ') }
  }
  const stated = wired.kind === 'tap' ? driverOhm : copperOf(wired)
  if (stated === null) return { ...base, low: null, expected: null, high: null, source: 'the impedance of the drive unit is not known' }
  const { low, expected, high, source } = DCR_BANDS[wired.kind === 'tap' ? 'nominal' : copperBand(wired)]
  return { ...base, low: stated * low, expected: stated * expected, high: stated * high, source }
}
