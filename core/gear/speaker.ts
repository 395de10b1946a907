import { z } from 'zod'
import { bounded, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { lineV, membersSchema, smallSignalFields, tapW } from './load'

/** What a speaker may be built as. */
export const SPEAKER_BUILDS = ['ceiling-open', 'ceiling-can', 'surface', 'pendant', 'horn', 'column', 'sub', 'box', 'cabinet', 'driver'] as const
export type SpeakerBuild = typeof SPEAKER_BUILDS[number]

/** Whether the watts printed at a tap are what the line gives, or what arrives at the driver behind the transformer's loss. */
export const TAP_MEANS = ['line-gives', 'driver-gets'] as const

const millimetre = bounded('mm', 1, 5000)
const text = (most: number) => plainText(most)

/**
 * A speaker of a certain make, as its sheet states it. SI units, named in the keys (sizes in mm, as sheets have them); null and
 * '' are "not stated". Powers are kept as stated; `believedW` is the continuous rating that the person trusts more.
 */
export const speakerModelFields = {
  name: nameText,
  build: z.enum(SPEAKER_BUILDS).nullable(),
  /** What it is for, in a sentence. */
  purpose: text(200),
  /** Of the drive unit, or of the whole where it has no transformer. */
  nominalOhm: ohm.nullable(),
  smallSignal: z.strictObject(smallSignalFields).nullable(),
  /** Its coils or drivers where they are several; null for a plain one. */
  members: membersSchema.nullable(),
  continuousW: watt.nullable(),
  programW: watt.nullable(),
  peakW: watt.nullable(),
  /** By which method the ratings were found. */
  ratedBy: text(80),
  believedW: watt.nullable(),
  sensitivityDb: bounded('dB', 40, 130).nullable(),
  sensitivityAt: z.enum(['1 W', '2.83 V']).nullable(),
  coverageDeg: bounded('°', 1, 360).nullable(),
  lowHz: bounded('Hz', 1, 100_000).nullable(),
  highHz: bounded('Hz', 1, 100_000).nullable(),
  /** Taps of its line transformer, for each line voltage on its dial; none where it has no transformer. */
  scales: z.array(z.strictObject({ lineV, tapsW: z.array(tapW).min(1, 'needs at least one tap').max(20) })).max(6),
  tapMeans: z.enum(TAP_MEANS).nullable(),
  insertionDb: bounded('dB', 0, 12).nullable(),
  /** Impedance in its position past the transformer; null where it has none or that is not stated. */
  throughOhm: ohm.nullable(),
  hasOff: z.boolean().nullable(),
  /** Colours of its leads: the common one has no tap. */
  leads: z.array(z.strictObject({ tapW: tapW.nullable(), base: text(30), stripe: text(30) })).max(24),
  frameMm: millimetre.nullable(),
  cutOutMm: millimetre.nullable(),
  depthMm: millimetre.nullable(),
  holes: text(80),
  massKg: bounded('kg', 0.01, 500).nullable(),
  price: bounded('', 0, 1_000_000).nullable(),
  remark: text(500),
}
export const speakerModelSchema = z.strictObject(speakerModelFields)
export type SpeakerModel = z.infer<typeof speakerModelSchema>

/** A model of which nothing is stated but its name. */
export function unstatedSpeaker(name: string): SpeakerModel {
  return {
    name, build: null, purpose: '', nominalOhm: null, smallSignal: null, members: null, continuousW: null, programW: null, peakW: null, ratedBy: '', believedW: null, sensitivityDb: null, sensitivityAt: null,
    coverageDeg: null, lowHz: null, highHz: null, scales: [], tapMeans: null, insertionDb: null, throughOhm: null, hasOff: null, leads: [], frameMm: null, cutOutMm: null, depthMm: null, holes: '', massKg: null,
    price: null, remark: '',
  }
}
