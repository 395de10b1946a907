import { headOf } from '#core/network/line'
import { membersOf, singleLoads, type GroupNode } from '#core/network/tree'
import { writeNumber } from '#core/quantity/write'
import type { View } from '#core/network/element'
import type { Chain, LineThrough, Output, ReadingKind, Speaker } from '#core/job/schema'
import { speakersOf, throughsIn } from '#core/job/tree'
import { DCR_BANDS, dcrAt, IMPEDANCE_BANDS, impedanceAt, type Edge } from './bands'

/** Frequency of a usual impedance meter. Common practice, no source. */
export const METER_HZ = 1000

/** What a reading should be. Nulls are not known; `source` says where the band comes from or why there is none. */
export interface Predicted {
  kind: Exclude<ReadingKind, 'sound'>
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

function headBand(chain: Chain | GroupNode, viewAt: (edge: Edge) => View): { low: number | null, expected: number | null, high: number | null } {
  const at = (edge: Edge) => {
    const head = headOf({ lead: null, node: chain }, viewAt(edge), METER_HZ)
    return head.state === 'finite' ? head.ohm : null
  }
  return { low: at('low'), expected: at('expected'), high: at('high') }
}

function predictLineImpedance(output: Output, speakers: Speaker[], throughs: readonly LineThrough[]): Predicted {
  const kinds = [...new Set(speakers.flatMap(s => singleLoads(s.load).map(l => l.kind)))]
  return {
    kind: 'line-impedance', outputId: output.id, nodeId: null, place: output.label, unit: 'Ω',
    ...headBand(output.wiring, impedanceAt),
    source: [...kinds.map(kind => IMPEDANCE_BANDS[kind].source), ...settingsOf(throughs)].join('; '),
  }
}

/** How the controls stand that the figure is for: turned otherwise, another is read. */
function settingsOf(throughs: readonly LineThrough[]): string[] {
  return throughs.flatMap(t => t.kind === 'control' ? [`with ${t.label} ${t.setDb === 'off' ? 'off' : t.setDb ? `turned down ${writeNumber(t.setDb)} dB` : 'fully up'}`] : [])
}

function predictLineDcr(output: Output, speakers: Speaker[], throughs: readonly LineThrough[]): Predicted {
  const transformers = speakers.some(s => s.load.kind === 'tap') || throughs.length > 0
  const kinds = [...new Set(speakers.flatMap(s => singleLoads(s.load).map(l => l.kind)))].filter(kind => kind !== 'tap')
  return {
    kind: 'line-dcr', outputId: output.id, nodeId: null, place: output.label, unit: 'Ω',
    ...(transformers ? { low: null, expected: null, high: null } : headBand(output.wiring, dcrAt)),
    source: transformers
      ? 'through transformers an ohmmeter sees only the copper of the windings, which is not known'
      : kinds.map(kind => DCR_BANDS[kind].source).join('; '),
  }
}

/** The coil itself, leads on the drive unit. */
function predictCoil(output: Output, speaker: Speaker): Predicted {
  const { id, label, load, driverOhm } = speaker
  const base = { kind: 'coil-dcr' as const, outputId: output.id, nodeId: id, place: `${output.label} ${label}`, unit: 'Ω' as const }
  if (load.kind === 'members') {
    const count = `${load.members.length} in ${load.joined === 'series' ? 'series' : 'parallel'}, read as one`
    return { ...base, ...headBand(membersOf({ id, kind: 'speaker', load }), dcrAt), source: [count, ...new Set(load.members.map(m => DCR_BANDS[m.kind].source))].join('; ') }
  }
  const nominalOhm = load.kind === 'tap' ? driverOhm : load.nominalOhm
  const stated = load.kind === 'motional' ? load.reOhm : nominalOhm
  if (stated === null) return { ...base, low: null, expected: null, high: null, source: 'the impedance of the drive unit is not known' }
  const { low, expected, high, source } = DCR_BANDS[load.kind === 'motional' ? 'motional' : 'nominal']
  return { ...base, low: stated * low, expected: stated * expected, high: stated * high, source }
}
