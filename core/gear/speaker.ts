import { z } from 'zod'
import { bounded, hertz, nameText, ohm, plainText, watt } from '#core/quantity/fields'
import { choice, field, flag, numeric } from './field'
import { curvePointsSchema, lineV, membersSchema, positionsSchema, smallSignalFields, TAP_MEANS, tapW } from './load'

/** What a speaker may be built as. */
export const SPEAKER_BUILDS = ['ceiling-open', 'ceiling-can', 'surface', 'pendant', 'horn', 'column', 'sub', 'box', 'cabinet', 'driver'] as const

const millimetre = bounded('mm', 1, 5000)
export const price = bounded('', 0, 1_000_000)
export const scalesSchema = z.array(z.strictObject({ lineV, tapsW: z.array(tapW).min(1, 'needs at least one tap').max(20) })).max(6)
const colour = plainText(30).refine(text => !/[/,;:]/.test(text), 'must not hold / , ; or :')

/**
 * A speaker of a certain make, as its sheet states it. SI units, named in the keys (sizes in mm, as sheets have them); null and
 * '' are "not stated". Powers are kept as stated; `believedW` is the continuous rating that the person trusts more.
 */
export const speakerModelFields = {
  name: field(nameText, 'name', { also: '^(model|type|item|article|product|speaker)$' }),
  build: choice(SPEAKER_BUILDS, 'built as', '^(kind|build|category|style|form)$'),
  purpose: field(plainText(200), 'what it is for', { also: 'purpose|use|application|description' }),
  /** Of the drive unit, or of the whole where it has no transformer. */
  nominalOhm: numeric(ohm, 'impedance', 'Ω', 'impedance|nominal|^z$|ohm'),
  smallSignal: field(z.strictObject(smallSignalFields).nullable(), 'small-signal parameters', { cell: 'small-signal', also: 'thiele|parameters|^t.?s( |$)' }),
  /** Its coils or drivers where they are several; null for a plain one. */
  members: field(membersSchema.nullable(), 'coils or drivers', { cell: 'members', also: 'coils?|drivers' }),
  /** Its impedance as measured; null where nobody did. */
  curve: field(curvePointsSchema.nullable(), 'measured curve', { cell: 'curve', also: 'curve|impedance over frequency' }),
  /** A cabinet's jacks and the positions of its switch; null for one plain pair of terminals. */
  positions: field(positionsSchema.nullable(), 'jacks and switch', { cell: 'positions', also: 'jacks?|sockets?|positions?' }),
  continuousW: numeric(watt, 'continuous rating', 'W', 'continuous|rms|aes|rated power|^rating|^power|nominal power'),
  programW: numeric(watt, 'program rating', 'W', 'program'),
  peakW: numeric(watt, 'peak rating', 'W', 'peak|max'),
  /** By which method the ratings were found. */
  ratedBy: field(plainText(80), 'rated by', { also: 'method|standard' }),
  believedW: numeric(watt, 'rating I believe', 'W', 'believe'),
  sensitivityDb: numeric(bounded('dB', 40, 130), 'sensitivity', 'dB', 'sensitivity|spl|efficiency'),
  sensitivityAt: choice(['1 W', '2.83 V'], 'sensitivity at', 'sens.* at|reference'),
  coverageDeg: numeric(bounded('°', 1, 360), 'coverage angle', '°', 'coverage|angle|dispersion'),
  lowHz: numeric(hertz, 'from', 'Hz', 'low|lower|^f.?min'),
  highHz: numeric(hertz, 'up to', 'Hz', 'high|upper|^f.?max'),
  /** Taps of its line transformer, for each line voltage on its dial; none where it has no transformer. */
  scales: field(scalesSchema, 'taps', { cell: 'scales', also: 'taps?|transformer' }),
  /** Whether the watts printed at a tap are what the line gives, or what arrives at the driver behind the transformer's loss. */
  tapMeans: choice(TAP_MEANS, 'tap watts are what the', 'tap.*(mean|are)'),
  insertionDb: numeric(bounded('dB', 0, 12), 'transformer loss', 'dB', 'insertion|loss'),
  /** Impedance in its position past the transformer; null where it has none or that is not stated. */
  throughOhm: numeric(ohm, 'through position', 'Ω', 'through|bypass|direct|low.?z'),
  hasOff: flag('off position', '^off'),
  /** Colours of its leads: the common one has no tap. */
  leads: field(z.array(z.strictObject({ tapW: tapW.nullable(), base: colour, stripe: colour })).max(24), 'leads', { cell: 'leads', also: '^leads?$|colou?r.?(key|code)|wires' }),
  frameMm: numeric(millimetre, 'frame', 'mm', 'frame|diameter|^size|width'),
  cutOutMm: numeric(millimetre, 'cut-out', 'mm', 'cut.?out|hole diameter|baffle'),
  depthMm: numeric(millimetre, 'depth', 'mm', 'depth'),
  magnetMm: numeric(millimetre, 'magnet', 'mm', 'magnet'),
  holes: field(plainText(80), 'hole pattern', { also: 'hole pattern|bolt|screws|holes' }),
  /** How its positive terminal is told: "red dot", "wide tab". */
  plusMark: field(plainText(40), 'plus is marked by', { also: '^(plus|positive|polarity|\\+)' }),
  massKg: numeric(bounded('kg', 0.01, 500), 'mass', 'kg', 'mass|weight'),
  price: numeric(price, 'price', '', 'price|cost|net|list'),
  remark: field(plainText(500), 'remark', { also: 'remarks?|notes?|comment' }),
}
export const speakerModelSchema = z.strictObject(speakerModelFields)
export type SpeakerModel = z.infer<typeof speakerModelSchema>
