import { z } from 'zod'
import type { SpeakerModel } from '#core/gear/speaker'
import { InputError } from '#core/quantity/inputError'
import { writeNumber, writeQuantity } from '#core/quantity/write'
import { wattSensitivityDb } from '#core/room/tap'
import { bodyRefusal, OHM_OFF, whatToMind } from '#core/search/replacement'
import { coilBandOhm } from './intermittent'

/** What takes the place of one unit on a bench, with no line around it: by its ohms, its frame, how loud it is, what it stands. */

/** What is known of the unit that goes out; null: not known. */
export interface Need {
  /** By its label, or its sound twin's. */
  nominalOhm: number | null
  /** Of its coil, with the leads taken off. Of a failed one it says nothing. */
  dcrOhm: number | null
  /** Whatever else its sheet or a rule says of it. */
  body: Pick<SpeakerModel, 'build' | 'frameMm' | 'cutOutMm' | 'depthMm' | 'magnetMm' | 'holes' | 'plusMark' | 'sensitivityDb' | 'sensitivityAt' | 'continuousW'>
}
export interface NeededOhm {
  ohm: number | null
  /** By what it is known. */
  by: 'label' | 'coil' | null
  says: string
}

/** Labels that units are made with. Common practice, no source. */
const LABELS_OHM = [2, 4, 6, 8, 16, 32, 50, 64, 100, 150, 250, 300, 600] as const

/** The ohms that the new one must have: by the label; else by a coil that lies in the band of one label and no other. */
export function neededOhm({ nominalOhm, dcrOhm }: Pick<Need, 'nominalOhm' | 'dcrOhm'>): NeededOhm {
  const isOf = (label: number) => dcrOhm !== null && dcrOhm >= coilBandOhm(label).lowOhm && dcrOhm <= coilBandOhm(label).highOhm
  if (nominalOhm !== null) {
    const { lowOhm, highOhm } = coilBandOhm(nominalOhm)
    const says = dcrOhm === null || isOf(nominalOhm)
      ? `${writeQuantity(nominalOhm, 'Ω')} by its label`
      : `${writeQuantity(nominalOhm, 'Ω')} by its label; its coil reads ${writeQuantity(dcrOhm, 'Ω')} where ${writeNumber(lowOhm, 3)} to ${writeQuantity(highOhm, 'Ω')} are right: a failed one says nothing`
    return { ohm: nominalOhm, by: 'label', says }
  }
  if (dcrOhm === null) return { ohm: null, by: null, says: 'Neither its label nor a coil is known: read its sound twin' }
  const labels = LABELS_OHM.filter(isOf)
  if (labels.length === 1) return { ohm: labels[0]!, by: 'coil', says: `${writeQuantity(labels[0]!, 'Ω')}: its coil reads ${writeQuantity(dcrOhm, 'Ω')}, as such a one does` }
  return {
    ohm: null, by: null,
    says: labels.length === 0
      ? `A coil of ${writeQuantity(dcrOhm, 'Ω')} lies in no label’s band: it has failed, and says nothing. Read its sound twin`
      : `A coil of ${writeQuantity(dcrOhm, 'Ω')} may be of ${labels.map(l => writeQuantity(l, 'Ω')).join(' or ')}: read its label, or its sound twin’s`,
  }
}

export const replaceSchema = z.strictObject({
  needs: z.strictObject({ ohm: z.number().nullable(), by: z.enum(['label', 'coil']).nullable(), says: z.string() }),
  fit: z.array(z.strictObject({
    name: z.string(), nominalOhm: z.number(),
    /** Against the one that goes out, at the same volts, dB; null while a sensitivity is not known. */
    levelDb: z.number().nullable(),
    /** Load on what drives it, against before: as a factor of the ohms; null where those of the old one are not known. */
    ohmTimes: z.number().nullable(),
    minds: z.array(z.string()),
  })),
  refused: z.array(z.strictObject({ name: z.string(), why: z.string() })),
})
export type ReplaceReport = z.infer<typeof replaceSchema>

/** Ranked: least to mind first, then nearest in level, then in ohms, then the price. @throws InputError where nothing at all is known of the old one */
export function replaceReport(need: Need, library: readonly SpeakerModel[]): ReplaceReport {
  const { body } = need
  if (need.nominalOhm === null && need.dcrOhm === null && body.frameMm === null && body.cutOutMm === null) throw new InputError('Nothing is known of the old one: its ohms, its coil or its frame.', 0, ['--nominal-ohm 4', '--dcr-ohm 3.4', '--frame-mm 130'])
  const needs = neededOhm(need)
  const was = { ...body, nominalOhm: needs.ohm, programW: null, peakW: null, believedW: null } as SpeakerModel
  const refused: ReplaceReport['refused'] = []
  const found: { model: SpeakerModel, row: ReplaceReport['fit'][number] }[] = []
  for (const model of library) {
    const why = refusalOf(model, was, needs.ohm)
    if (why !== null) {
      refused.push({ name: model.name, why })
      continue
    }
    const nominalOhm = model.nominalOhm!
    const levelDb = levelAtSameVolts(was, model)
    const minds = [...whatToMind(model, was, levelDb, nominalOhm, needs.ohm), ...needs.ohm === null ? ['what ohms the old one had is not known: they are not compared'] : []]
    found.push({ model, row: { name: model.name, nominalOhm, levelDb, ohmTimes: needs.ohm === null ? null : nominalOhm / needs.ohm, minds } })
  }
  const off = ({ row: { ohmTimes } }: typeof found[number]) => Math.abs(Math.log(ohmTimes ?? 1))
  found.sort((a, b) => a.row.minds.length - b.row.minds.length || Math.abs(a.row.levelDb ?? Infinity) - Math.abs(b.row.levelDb ?? Infinity) || off(a) - off(b)
    || (a.model.price ?? Infinity) - (b.model.price ?? Infinity))
  return { needs, fit: found.map(f => f.row), refused }
}

function refusalOf(model: SpeakerModel, was: SpeakerModel, ohm: number | null): string | null {
  if (model.nominalOhm === null) return 'its impedance is not stated'
  if (ohm !== null && Math.abs(model.nominalOhm / ohm - 1) > OHM_OFF + 1e-9) return `${writeQuantity(model.nominalOhm, 'Ω')} where ${writeQuantity(ohm, 'Ω')} are needed: more than ${100 * OHM_OFF} % off`
  return bodyRefusal(model, was)
}

/** Level of the new one against the old at the same volts: sensitivity for a watt, and the watts that each takes. */
function levelAtSameVolts(was: SpeakerModel, model: SpeakerModel): number | null {
  const [old, now] = [wattSensitivityDb(was), wattSensitivityDb(model)]
  if (old === null || now === null || was.nominalOhm === null || model.nominalOhm === null) return null
  return now - old + 10 * Math.log10(was.nominalOhm / model.nominalOhm)
}
