import { z } from 'zod'
import { bounded, hertz, nameText, ohm, plainText, watt } from '#core/quantity/fields'

/** What a speaker is to a line, as far as it is known. The types that the solver takes are in network/tree.ts. */

/** The drive unit's own figures (Small, JAES 1972). */
export const smallSignalFields = {
  reOhm: ohm, leH: bounded('H', 0, 1), fsHz: hertz, qms: bounded('', 0.01, 1000), qes: bounded('', 0.01, 1000),
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

/** Points of a measured curve: 40 to a decade over the hearing range are 121. */
export const MOST_POINTS = 600
export const curvePointsSchema = z.array(z.tuple([bounded('Hz', 0.1, 200_000), ohm, bounded('°', -180, 180).nullable()]))
  .min(2, 'needs at least two points').max(MOST_POINTS)
  .refine(points => points.every((p, k) => k === 0 || p[0] > points[k - 1]![0]), 'must rise in frequency from point to point')
const curve = z.strictObject({ kind: z.literal('curve'), nominalOhm: ohm, reOhm: ohm.nullable(), points: curvePointsSchema })

/** Coils of one driver, or drivers of one box: one thing with one pair of terminals. */
export const MOST_MEMBERS = 16
export const membersSchema = z.strictObject({
  kind: z.literal('members'),
  joined: z.enum(['series', 'parallel']),
  members: z.array(z.discriminatedUnion('kind', [nominal, motional])).min(2, 'must be two or more').max(MOST_MEMBERS),
})

/** Jacks and positions of a cabinet's switch. */
export const MOST_POSITIONS = 8
export const positionSchema = z.strictObject({
  /** The socket, as it is marked: "16 Ω mono", "left". */
  jack: plainText(40),
  /** Where the switch stands for it; empty for a cabinet without one. */
  switchTo: plainText(40),
  plays: z.enum(['all', 'half']),
  load: z.discriminatedUnion('kind', [nominal, motional, membersSchema]),
})
export const positionsSchema = z.array(positionSchema).min(1, 'needs at least one position').max(MOST_POSITIONS)
const cabinet = z.strictObject({ kind: z.literal('cabinet'), at: z.int().min(0).max(MOST_POSITIONS - 1), positions: positionsSchema })
  .refine(({ at, positions }) => at < positions.length, { message: 'must be one of its positions', path: ['at'] })

/** One coil of several that have terminals of their own; `unit` is the name that the coils of one unit share. */
const coil = z.strictObject({ kind: z.literal('coil'), unit: nameText, of: z.int().min(2).max(MOST_MEMBERS), coil: z.discriminatedUnion('kind', [nominal, motional]) })

export const loadSchema = z.discriminatedUnion('kind', [nominal, motional, curve, tap, membersSchema, cabinet, coil])
