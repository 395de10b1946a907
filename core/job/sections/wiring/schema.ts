import { z } from 'zod'
import { AMPLIFIER_MAKES, gainDb, inputOhm, inputV } from '#core/gear/amplifier'
import { CONNECTOR_IDS } from '#core/gear/connector'
import { terminalText } from '#core/gear/harness'
import { sourceKind, takesSchema } from '#core/gear/inputs'
import { loadSchema } from '#core/gear/load'
import { cableSchema } from '#core/gear/cable'
import { originSchema } from '../origin'
import { throughSchema, type LineThrough } from './through'
import { bounded, idText, labelText, nameText, ohm, plainText, watt } from '#core/quantity/fields'

/** Amplifiers, their outputs, and the wiring tree that hangs on each. */

/** A length of cable; `cable` null: its size is not stated. */
export const leadSchema = z.strictObject({ cable: cableSchema.nullable(), lengthM: bounded('m', 0, 10_000) })

export const speakerFields = {
  label: labelText,
  /** What it is, in plain words: "Ceiling 165 back-can, 30 W". */
  name: plainText(120),
  load: loadSchema,
  /** Continuous power rating; null is not known. */
  continuousW: watt.nullable(),
  /** Nominal impedance of the drive unit behind a transformer; null is not known. */
  driverOhm: ohm.nullable(),
  /** The kind that it is of (job.kinds); null for none. Its own fields count: what differs from the kind was set by hand. */
  kindId: idText.nullable(),
  /** The zone that it is in (job.zones); null for none. */
  zoneId: idText.nullable(),
}
export const speakerSchema = z.strictObject({ kind: z.literal('speaker'), id: idText, ...speakerFields })

/** Groups nest; a file with more levels than this is not a wiring. Bounded so that no walk over it can run out of stack. */
export const DEEPEST = 60
/** Speakers and groups in one job: ten times the largest that was timed. */
export const MOST_NODES = 10_000
export const MOST_AMPLIFIERS = 200
/** Outputs of one amplifier. */
export const MOST_OUTPUTS = 200

export type Speaker = z.infer<typeof speakerSchema>
/** `through`: a control or a transformer before all of it; absent for none. */
export interface Group { kind: 'series' | 'chain' | 'star', id: string, children: Branch[], through?: LineThrough }
export interface Branch { lead: z.infer<typeof leadSchema> | null, node: WireNode }
export type WireNode = Speaker | Group

export const groupSchema: z.ZodType<Group> = z.strictObject({
  kind: z.enum(['series', 'chain', 'star']),
  id: idText,
  get children() { return z.array(branchSchema).max(MOST_NODES) },
  through: throughSchema.optional(),
})
export const branchSchema: z.ZodType<Branch> = z.strictObject({
  lead: leadSchema.nullable(),
  get node() { return z.union([speakerSchema, groupSchema]) },
})
/** An output's wiring is always a chain at its root: cable order is the order of the sheet. */
export const chainSchema = z.strictObject({ kind: z.literal('chain'), id: idText, children: z.array(branchSchema).max(MOST_NODES) })

export const ratingSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('solid-state'),
    points: z.array(z.strictObject({ loadOhm: ohm, powerW: watt })).min(1, 'needs at least one rated power').max(8),
    floorOhm: ohm.nullable(),
    mode: z.enum(['single', 'bridged', 'parallel']),
    bridgedFloorOhm: ohm.nullable(),
  }),
  z.strictObject({ kind: z.literal('constant-voltage'), lineV: bounded('V', 1, 1000), powerW: watt.nullable() }),
  z.strictObject({
    kind: z.literal('valve'), powerW: watt.nullable(),
    tapsOhm: z.array(ohm).min(1, 'needs at least one tap').max(8).refine(taps => taps.every((tap, k) => k === 0 || tap > taps[k - 1]!), 'must rise'),
    tapOhm: ohm.nullable(), chosenBy: z.enum(['selector', 'sockets']).nullable(),
  }).refine(({ tapsOhm, tapOhm }) => tapOhm === null || tapsOhm.includes(tapOhm), { message: 'must be one of its taps', path: ['tapOhm'] }),
  z.strictObject({ kind: z.literal('not-known') }),
])

/**
 * The part of the hearing range that an output plays, where each part has an amplifier of its own. Outputs that name one system belong together.
 * An end that is null is open; `slopeDb` an octave, null is not stated; `setDb`: what the band is set down by, null is not set yet.
 */
export const bandSchema = z.strictObject({
  system: nameText,
  fromHz: bounded('Hz', 10, 30_000).nullable(), toHz: bounded('Hz', 10, 30_000).nullable(),
  slopeDb: z.union([z.literal(6), z.literal(12), z.literal(18), z.literal(24), z.literal(48)]).nullable(),
  setDb: bounded('dB', 0, 60).nullable(),
}).refine(({ fromHz, toHz }) => fromHz !== null || toHz !== null, 'must begin or end somewhere: without either it plays everything')
  .refine(({ fromHz, toHz }) => fromHz === null || toHz === null || fromHz < toHz, { message: 'must be above its lower end', path: ['toHz'] })

/** What is printed beside the two terminals of an output, and what a pair ends in there; null is not known. */
export const terminalsSchema = z.strictObject({ plus: terminalText, minus: terminalText, connector: z.enum(CONNECTOR_IDS).nullable() })

/** `band`: null plays everything. `limiterV`: volts (rms) that a limiter holds it at; null: none, or not stated. `terminals`: null: nothing is said of them. */
export const outputFields = {
  label: labelText, name: plainText(120), rating: ratingSchema, band: bandSchema.nullable(), limiterV: bounded('V', 0.1, 1000).nullable(), terminals: terminalsSchema.nullable(),
}
/** Of an output of which that is not said. */
export const UNSTATED_OUTPUT = { band: null, limiterV: null, terminals: null } as const
export const outputSchema = z.strictObject({ id: idText, ...outputFields, wiring: chainSchema })

/**
 * What feeds an input: one name is one source, however many inputs hang on it. `kind`: the level that it brings. `isStereo`: it has two sides.
 * `deviceId`: the mixer or amplifier of this job whose output it is; null for none, and one that is gone counts as none. `volts` at full level.
 * Other nulls are not known.
 */
export const sourceOhm = bounded('Ω', 0, 1_000_000)
export const sourceSchema = z.strictObject({
  name: nameText, kind: sourceKind.nullable(), isStereo: z.boolean().nullable(), deviceId: idText.nullable(), volts: bounded('V', 0.001, 50).nullable(), ohm: sourceOhm.nullable(),
})
/** Of a source of which only the name is known. */
export const UNSTATED_SOURCE = { kind: null, isStereo: null, deviceId: null, volts: null, ohm: null } as const

/**
 * An input as it stands on its panel. `takes`: what it is made for; empty is not stated. `count`: how many inputs side by side its source is on; null: one
 * a channel, as power amplifiers have them. `isOver`: it puts the others down while it speaks. `sum`: how two sides come in. Nulls are not known.
 */
export const inputFields = {
  label: plainText(40), takes: takesSchema, count: z.int().min(1).max(200).nullable(), isOver: z.boolean().nullable(), sum: z.enum(['summed', 'one-side', 'both']).nullable(),
  source: sourceSchema.nullable(),
}
export const inputSchema = z.strictObject(inputFields)
export const MOST_INPUTS = 100
/** Of an input of which nothing is said. */
export const UNSTATED_INPUT = { label: '', takes: [], count: null, isOver: null, sum: null, source: null } satisfies z.infer<typeof inputSchema>

/**
 * `made`: receivers and vehicle units are judged by what their maker states. `gainDb`, `inputV` (for full power), `inputOhm`: of each of its line inputs.
 * `protection`: what its maker says that it does when it is asked for too much. `highPassHz`: where its high-pass stands, 'none' where it has
 * none. `from`: the model that it is of; null for none. Other nulls are not stated.
 */
export const amplifierFields = {
  name: nameText, place: plainText(120),
  made: z.enum(AMPLIFIER_MAKES).nullable(), gainDb: gainDb.nullable(), inputV: inputV.nullable(), inputOhm: inputOhm.nullable(),
  inputs: z.array(inputSchema).max(MOST_INPUTS), protection: plainText(300),
  highPassHz: z.union([bounded('Hz', 1, 1000), z.literal('none')]).nullable(), from: originSchema.nullable(),
}
/** Of an amplifier of which nothing is stated but its name and place. */
export const UNSTATED_AMPLIFIER = { made: null, gainDb: null, inputV: null, inputOhm: null, inputs: [], protection: '', highPassHz: null, from: null } satisfies Partial<z.infer<z.ZodObject<typeof amplifierFields>>>
export const amplifierSchema = z.strictObject({ id: idText, ...amplifierFields, outputs: z.array(outputSchema).max(MOST_OUTPUTS) })

export type Amplifier = z.infer<typeof amplifierSchema>
export type Output = z.infer<typeof outputSchema>
export type Band = z.infer<typeof bandSchema>
export type Source = z.infer<typeof sourceSchema>
export type Input = z.infer<typeof inputSchema>
export type Terminals = z.infer<typeof terminalsSchema>
export type { Control, LinePart, LineThrough, LineTransformer } from './through'
export type Chain = Output['wiring']
export type SpeakerLoad = Speaker['load']
