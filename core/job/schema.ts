import { z } from 'zod'
import type { Records } from './records'
import { detailFields } from './sections/details/schema'
import { kindSchema, MOST_KINDS } from './sections/kinds/schema'
import { practiceSchema } from './sections/practice/schema'
import { MOST_READINGS, readingSchema, type Reading } from './sections/readings/schema'
import { MOST_REPAIRS, repairSchema, type Repair } from './sections/repairs/schema'
import { MOST_SPACES, spaceSchema } from './sections/spaces/schema'
import { MOST_VARIANTS, variantSchema } from './sections/variants/schema'
import { amplifierSchema, MOST_AMPLIFIERS } from './sections/wiring/schema'
import { MOST_ZONES, zoneSchema } from './sections/zones/schema'

/**
 * The job document, the one truth: types, server validation, form messages and the JSON Schema all come from here and
 * from the sections. SI units, named in the keys. Every object is strict: an unknown key is a typing slip or a newer file.
 */

export const FORMAT_NAME = 'plain-match job'
export const FORMAT_VERSION = 9

export const jobSchema = z.strictObject({
  format: z.literal(FORMAT_NAME, `must be “${FORMAT_NAME}”: this is another kind of file`),
  version: z.literal(FORMAT_VERSION, `must be ${FORMAT_VERSION}: the file was written by another version`),
  ...detailFields,
  practice: practiceSchema,
  kinds: z.array(kindSchema).max(MOST_KINDS),
  zones: z.array(zoneSchema).max(MOST_ZONES),
  spaces: z.array(spaceSchema).max(MOST_SPACES),
  amplifiers: z.array(amplifierSchema).max(MOST_AMPLIFIERS),
  variants: z.array(variantSchema).max(MOST_VARIANTS),
  readings: z.array(readingSchema).max(MOST_READINGS),
  repairs: z.array(repairSchema).max(MOST_REPAIRS),
})

/** A job as a file and as JSON: everything in one document. */
export type JobDocument = z.infer<typeof jobSchema>

/** A job in memory: what only grows is held by id and by place. */
export interface Job extends Omit<JobDocument, 'format' | 'version' | 'readings' | 'repairs'> {
  readings: Records<Reading>
  repairs: Records<Repair>
}

export type * from './sections/wiring/schema'
export type * from './sections/readings/schema'
export type * from './sections/repairs/schema'
export type { Kind } from './sections/kinds/schema'
export type { Origin } from './sections/origin'
export type { Space, Spot } from './sections/spaces/schema'
export type { Variant } from './sections/variants/schema'
export type { Zone } from './sections/zones/schema'
export type { Practice } from './sections/practice/schema'
