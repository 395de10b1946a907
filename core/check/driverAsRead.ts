import { asWired } from '#core/network/tree'
import type { Speaker } from '#core/job/schema'
import { setting, type Edit } from '#core/job/edits'
import type { JudgedReading } from './proof'
import { DCR_BANDS } from './readingBands'

/** What stands on site otherwise than it is drawn, so that the drawing may follow it. */

/** Impedances that drive units are labelled with. Common practice, no source. */
const LABELS_OHM = [2, 3, 4, 6, 8, 12, 16, 25, 32] as const

/** The label whose coil would read so; null where none would, or several. */
export function labelThatReads(ohm: number): number | null {
  const { low, high } = DCR_BANDS.nominal
  const fitting = LABELS_OHM.filter(label => ohm >= low * label && ohm <= high * label)
  return fitting.length === 1 ? fitting[0]! : null
}

/** A coil that reads wrong may be another than the one drawn: the drawing as it would then be, with that label; null where nothing says so. */
export function driverAsRead(speaker: Speaker, standing: JudgedReading | null): { labelOhm: number, edit: Edit } | null {
  if (standing?.reading.kind !== 'coil-dcr' || standing.verdict.grade === 'good' || standing.reading.value.is !== 'ohm') return null
  const labelOhm = labelThatReads(standing.reading.value.ohm)
  if (labelOhm === null) return null
  const load = asWired(speaker.load)
  if (load !== speaker.load) return null
  // Members are read as one: which of them is another cannot be told.
  if (load.kind === 'members' || (load.kind === 'tap' ? speaker.driverOhm : load.nominalOhm) === labelOhm) return null
  const to: Partial<Speaker> = load.kind === 'tap' ? { driverOhm: labelOhm } : { load: { kind: 'nominal', nominalOhm: labelOhm } }
  return { labelOhm, edit: { kind: 'speaker.set', nodeId: speaker.id, ...setting<Speaker, Partial<Speaker>>(speaker, to) } }
}
