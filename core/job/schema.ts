import { z } from 'zod'
import type { Records } from './records'
import type { Merged } from './merged'
import { SHAPES, type AnyShape, type GrowingList } from './sections/shapes'

/**
 * The job document, the one truth: types, server validation, form messages and the JSON Schema all come from the shapes of the
 * sections. SI units, named in the keys. Every object is strict: an unknown key is a typing slip or a newer file.
 */

export const FORMAT_NAME = 'plain-match job'
export const FORMAT_VERSION = 21

type SectionFields = Merged<AnyShape['fields']>
const sectionFields = Object.assign({}, ...SHAPES.map(shape => shape.fields)) as SectionFields

export const jobSchema = z.strictObject({
  format: z.literal(FORMAT_NAME, `must be “${FORMAT_NAME}”: this is another kind of file`),
  version: z.literal(FORMAT_VERSION, `must be ${FORMAT_VERSION}: the file was written by another version`),
  ...sectionFields,
})

/** A job as a file and as JSON: everything in one document. */
export type JobDocument = z.infer<typeof jobSchema>

type Entry<L extends GrowingList> = JobDocument[L][number]
type Grown = { [L in GrowingList]: Records<Entry<L>> }

/** A job in memory: what only grows is held by id and by place. */
export interface Job extends Omit<JobDocument, 'format' | 'version' | GrowingList>, Grown {}
/** What only grows, alone. */
export type Rows = Pick<Job, GrowingList>

export type * from './sections/wiring/schema'
export type * from './sections/readings/schema'
export type * from './sections/repairs/schema'
export type { Checks } from './sections/checks/schema'
export type { Photo } from './sections/photos/schema'
export type { Leaving } from './sections/leavings/schema'
export type { Pair, Splice, SpliceFields, Turn } from './sections/splices/schema'
export type { DrawerItem } from './sections/drawer/schema'
export type { TicketEntry, TicketHead, Written } from './sections/tickets/schema'
export type { Kind } from './sections/kinds/schema'
export type { Origin } from './sections/origin'
export type { Space, Spot } from './sections/spaces/schema'
export type { Variant } from './sections/variants/schema'
export type { Zone } from './sections/zones/schema'
export type { Practice } from './sections/practice/schema'
