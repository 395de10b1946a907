import { z } from 'zod'
import { bounded, ohm, watt } from '#core/quantity/fields'

/** What a speaker is to a line, as far as it is known. The types that the solver takes are in network/tree.ts. */

/** The drive unit's own figures (Small, JAES 1972). */
export const smallSignalFields = {
  reOhm: ohm, leH: bounded('H', 0, 1), fsHz: bounded('Hz', 1, 100_000), qms: bounded('', 0.01, 1000), qes: bounded('', 0.01, 1000),
}
export const tapW = watt
export const lineV = bounded('V', 1, 1000)

/** Whether the watts printed at a tap are what the line gives, or what arrives at the driver behind the transformer's loss. */
export const TAP_MEANS = ['line-gives', 'driver-gets'] as const
export const tapMeansSchema = z.enum(TAP_MEANS)

const nominal = z.strictObject({ kind: z.literal('nominal'), nominalOhm: ohm })
const motional = z.strictObject({ kind: z.literal('motional'), nominalOhm: ohm, ...smallSignalFields })
const tap = z.strictObject({
  kind: z.literal('tap'), tapW: z.union([z.literal(0), tapW]), ratedV: lineV, tapsW: z.array(tapW).max(20),
  insertionDb: bounded('dB', 0, 12).nullable(), tapMeans: tapMeansSchema.nullable(),
})

/** Coils of one driver, or drivers of one box: one thing with one pair of terminals. */
export const MOST_MEMBERS = 16
export const membersSchema = z.strictObject({
  kind: z.literal('members'),
  joined: z.enum(['series', 'parallel']),
  members: z.array(z.discriminatedUnion('kind', [nominal, motional])).min(2, 'must be two or more').max(MOST_MEMBERS),
})

export const loadSchema = z.discriminatedUnion('kind', [nominal, motional, tap, membersSchema])
