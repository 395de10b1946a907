import { z } from 'zod'
import { lineV, tapMeansSchema, tapW } from '#core/gear/load'
import { originSchema } from '../origin'
import { bounded, labelText, ohm, plainText, watt } from '#core/quantity/fields'

/** What stands before a group of a line: a volume control, or a transformer by itself. The types that the solver takes are in network/tree.ts. */

/** `from`: the model that it is of; null for none. */
const named = { label: labelText, name: plainText(120), from: originSchema.nullable() }
const insertionDb = bounded('dB', 0, 12).nullable()

/** How far a control may be turned down, dB: beyond it, it is off. */
export const MOST_DOWN_DB = 120
export const controlSchema = z.strictObject({
  kind: z.literal('control'), ...named,
  /** How far it is turned down, dB; null is not stated. */
  setDb: z.union([bounded('dB', 0, MOST_DOWN_DB), z.literal('off')]).nullable(),
  /** Its positions, dB down; none where they are not stated. */
  stepsDb: z.array(bounded('dB', 0, MOST_DOWN_DB)).max(40),
  ratingW: watt.nullable(), lineV: lineV.nullable(), insertionDb,
})
export const lineTransformerSchema = z.strictObject({
  kind: z.literal('transformer'), ...named,
  tapW: z.union([z.literal(0), tapW]), ratedV: lineV, tapsW: z.array(tapW).max(20), secondaryOhm: ohm,
  ratingW: watt.nullable(), insertionDb, tapMeans: tapMeansSchema.nullable(),
})
/** A part in the way: what it lets pass hangs on the frequency. */
export const capacitorSchema = z.strictObject({ kind: z.literal('capacitor'), ...named, capacitanceF: bounded('F', 1e-9, 1) })
export const copperOhm = bounded('Ω', 0, 1000)
export const inductorSchema = z.strictObject({ kind: z.literal('inductor'), ...named, inductanceH: bounded('H', 1e-7, 1), resistanceOhm: copperOhm.nullable() })
export const throughSchema = z.discriminatedUnion('kind', [controlSchema, lineTransformerSchema, capacitorSchema, inductorSchema])
export type Control = z.infer<typeof controlSchema>
export type LineTransformer = z.infer<typeof lineTransformerSchema>
/** A capacitor or a coil in the way. */
export type LinePart = z.infer<typeof capacitorSchema> | z.infer<typeof inductorSchema>
export type LineThrough = Control | LineTransformer | LinePart
