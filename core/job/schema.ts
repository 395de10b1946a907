import { z } from 'zod'
import { AWG_RANGE, CLASS5_OHM_PER_KM } from '#core/quantity/cable'
import { DEFAULT_POWER, POWER_SCHOOLS, type PowerSchoolId } from '#core/practice/power'
import { DEFAULT_RESERVE, RESERVE_SCHOOLS, type ReserveSchoolId } from '#core/practice/reserve'

/**
 * The job document, the one truth: types, server validation, form messages and the JSON Schema all come from here.
 * SI units, named in the keys. Every object is strict: an unknown key is a typing slip or a newer file, and is said.
 */

export const FORMAT_NAME = 'plain-match job'
export const FORMAT_VERSION = 1

/** PostgreSQL keeps neither the null character nor half a surrogate pair; both are only ever slips. */
const plainText = (most: number) => z.string().max(most, `must be at most ${most} characters`)
  .refine(text => !text.includes('\u0000') && text.isWellFormed(), 'contains characters that cannot be kept')

export const nameText = plainText(120).refine(text => text.trim() !== '', 'must not be empty')
export const noteText = plainText(2000)
const label = plainText(24).refine(text => text.trim() !== '', 'must not be empty')
export const idText = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'must be 1 to 40 letters, digits, - or _')
const instant = z.iso.datetime({ message: 'must be a date and time in UTC, as 2026-05-04T09:30:00Z' })

const bounded = (unit: string, least: number, most: number) =>
  z.number().min(least, `must be at least ${least} ${unit}`).max(most, `must be at most ${most} ${unit}`)
const ohm = bounded('Ω', 0.05, 100_000)
const watt = bounded('W', 0.001, 100_000)

const areas = [...CLASS5_OHM_PER_KM.keys()]
export const cableSchema = z.union([
  z.strictObject({ awg: z.int().min(AWG_RANGE.thickest).max(AWG_RANGE.thinnest) }),
  z.strictObject({ areaMm2: z.number().refine(area => CLASS5_OHM_PER_KM.has(area), `must be one of ${areas.join(', ')} mm²`) }),
])
export const leadSchema = z.strictObject({ cable: cableSchema, lengthM: bounded('m', 0, 10_000) })

export const loadSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('nominal'), nominalOhm: ohm }),
  z.strictObject({
    kind: z.literal('motional'), nominalOhm: ohm, reOhm: ohm, leH: bounded('H', 0, 1), fsHz: bounded('Hz', 1, 100_000),
    qms: bounded('', 0.01, 1000), qes: bounded('', 0.01, 1000),
  }),
  z.strictObject({
    kind: z.literal('tap'), tapW: z.union([z.literal(0), watt]), ratedV: bounded('V', 1, 1000), tapsW: z.array(watt).max(20),
  }),
])

export const speakerFields = {
  label,
  /** What it is, in plain words: "Ceiling 165 back-can, 30 W". */
  name: plainText(120),
  load: loadSchema,
  /** Continuous power rating; null is not known. */
  continuousW: watt.nullable(),
  /** Nominal impedance of the drive unit behind a transformer; null is not known. */
  driverOhm: ohm.nullable(),
}
export const speakerSchema = z.strictObject({ kind: z.literal('speaker'), id: idText, ...speakerFields })

/** Groups nest; a file with more levels than this is not a wiring. Bounded here so that no walk over it can run out of stack. */
export const DEEPEST = 60
/** Speakers and groups in one job: ten times the largest that was timed. */
export const MOST_NODES = 10_000

export type Speaker = z.infer<typeof speakerSchema>
export interface Group { kind: 'series' | 'chain' | 'star', id: string, children: Branch[] }
export interface Branch { lead: z.infer<typeof leadSchema> | null, node: WireNode }
export type WireNode = Speaker | Group

export const groupSchema: z.ZodType<Group> = z.strictObject({
  kind: z.enum(['series', 'chain', 'star']),
  id: idText,
  get children() { return z.array(branchSchema).max(MOST_NODES) },
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
  }),
  z.strictObject({ kind: z.literal('constant-voltage'), lineV: bounded('V', 1, 1000), powerW: watt.nullable() }),
  z.strictObject({ kind: z.literal('not-known') }),
])

export const outputFields = { label, name: plainText(120), rating: ratingSchema }
export const outputSchema = z.strictObject({ id: idText, ...outputFields, wiring: chainSchema })

export const amplifierFields = { name: nameText, place: plainText(120) }
export const amplifierSchema = z.strictObject({ id: idText, ...amplifierFields, outputs: z.array(outputSchema).max(200) })

export const READING_KINDS = ['line-impedance', 'line-dcr', 'coil-dcr', 'sound'] as const
export const valueSchema = z.discriminatedUnion('is', [
  z.strictObject({ is: z.literal('ohm'), ohm: bounded('Ω', 0, 100e6) }),
  z.strictObject({ is: z.literal('open') }),
  z.strictObject({ is: z.literal('plays') }),
  z.strictObject({ is: z.literal('silent') }),
])
export const readingSchema = z.strictObject({
  id: idText,
  at: instant,
  kind: z.enum(READING_KINDS),
  outputId: idText,
  /** The speaker read at; null is the head of the line. */
  nodeId: idText.nullable(),
  value: valueSchema,
  note: noteText,
  /** The earlier reading that this one says was wrong. */
  supersedes: idText.nullable(),
  /** Taken back (undo); kept in the history. */
  withdrawn: z.boolean(),
})

export const FAULT_KINDS = ['open-at-drop', 'break-in-reach', 'short-at-drop', 'wrong-tap', 'high-resistance'] as const
export const repairSchema = z.strictObject({
  id: idText,
  at: instant,
  outputId: idText,
  nodeId: idText,
  fault: z.enum(FAULT_KINDS),
  note: noteText,
  withdrawn: z.boolean(),
})

const ids = <T extends string>(schools: readonly { id: T }[]) => z.enum(schools.map(s => s.id) as [T, ...T[]])
export const practiceSchema = z.strictObject({
  reserve: ids<ReserveSchoolId>(RESERVE_SCHOOLS),
  power: ids<PowerSchoolId>(POWER_SCHOOLS),
})

export const jobSchema = z.strictObject({
  format: z.literal(FORMAT_NAME, `must be “${FORMAT_NAME}”: this is another kind of file`),
  version: z.literal(FORMAT_VERSION, `must be ${FORMAT_VERSION}: the file was written by another version`),
  name: nameText,
  note: noteText,
  practice: practiceSchema,
  amplifiers: z.array(amplifierSchema).max(200),
  readings: z.array(readingSchema).max(50_000),
  repairs: z.array(repairSchema).max(10_000),
})

export type Job = z.infer<typeof jobSchema>
export type Amplifier = z.infer<typeof amplifierSchema>
export type Output = z.infer<typeof outputSchema>
export type Chain = Output['wiring']
export type Practice = z.infer<typeof practiceSchema>
export type Reading = z.infer<typeof readingSchema>
export type ReadingKind = Reading['kind']
export type ReadingValue = Reading['value']
export type Repair = z.infer<typeof repairSchema>
export type FaultKind = Repair['fault']
export type SpeakerLoad = Speaker['load']

export function emptyJob(name: string): Job {
  return {
    format: FORMAT_NAME, version: FORMAT_VERSION, name, note: '',
    practice: { reserve: DEFAULT_RESERVE, power: DEFAULT_POWER }, amplifiers: [], readings: [], repairs: [],
  }
}
