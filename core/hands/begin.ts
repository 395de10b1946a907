import { USUAL_LINE_V } from '#core/amplifier/index'
import { together, type Edit, type SimpleEdit } from '#core/job/edits'
import type { Branch, Job, Kind, Output, SpeakerLoad } from '#core/job/schema'
import { speakersOf } from '#core/job/tree'
import type { Lead } from '#core/network/cable'
import { addAmplifier, USUAL_TAPS_W, type NewId } from './intents'

/** The first line of a job, however one begins: speakers that hang already, a typed line, a table. */

/** Speakers that hang already: how many, on which tap or of which impedance each, how far apart and in which cable, where that is known. */
export interface Hanging {
  count: number
  each: { tapW: number } | { nominalOhm: number }
  /** Volts of the line; null for speakers straight on an amplifier. */
  lineV: number | null
  lead: Lead | null
}

/** Pieces of a line that is to hang on an amplifier of its own. */
export interface FirstLine { rating: Output['rating'], children: readonly Branch[], kinds?: readonly Kind[] }
export interface Begun { edit: Edit, outputId: string, nodeIds: string[] }

/** Equal speakers along one run, on an output of which nothing but its line is known. Taps are those on the shelf, and the one said. */
export function hanging({ count, each, lineV, lead }: Hanging, newId: NewId): FirstLine {
  const load: SpeakerLoad = 'tapW' in each
    ? { kind: 'tap', tapW: each.tapW, ratedV: lineV ?? USUAL_LINE_V, tapsW: [...new Set([...USUAL_TAPS_W, each.tapW])].sort((a, b) => a - b), insertionDb: null, tapMeans: null }
    : { kind: 'nominal', nominalOhm: each.nominalOhm }
  const children = Array.from({ length: count }, (_, k): Branch => ({
    lead, node: { kind: 'speaker', id: newId(), label: String(k + 1).padStart(2, '0'), name: '', load, continuousW: null, driverOhm: null, kindId: null, zoneId: null },
  }))
  return { rating: lineV === null ? { kind: 'not-known' } : { kind: 'constant-voltage', lineV, powerW: null }, children }
}

/** An amplifier more, with one output that feeds this line; the kinds that it names come in with it. */
export function beginWith(job: Job, { rating, children, kinds = [] }: FirstLine, newId: NewId): Begun {
  const { edit, outputId } = addAmplifier(job, newId)
  if (edit.kind !== 'amplifier.add') throw new Error('an amplifier is added by one edit')
  const outputs = edit.amplifier.outputs.map(output => ({ ...output, rating, wiring: { ...output.wiring, children: [...children] } }))
  const edits: SimpleEdit[] = [
    ...kinds.map((item, k): SimpleEdit => ({ kind: 'kind.add', index: job.kinds.length + k, item })),
    { ...edit, amplifier: { ...edit.amplifier, outputs } },
  ]
  return { edit: together(edits)!, outputId, nodeIds: children.flatMap(({ node }) => speakersOf(node)).map(s => s.id) }
}
