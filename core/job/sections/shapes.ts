import { checks } from './checks/shape'
import { details } from './details/shape'
import { drawer } from './drawer/shape'
import { kinds } from './kinds/shape'
import { leavings } from './leavings/shape'
import { photos } from './photos/shape'
import { practice } from './practice/shape'
import { readings } from './readings/shape'
import { repairs } from './repairs/shape'
import { shares } from './shares/shape'
import { spaces } from './spaces/shape'
import { splices } from './splices/shape'
import { tickets } from './tickets/shape'
import { variants } from './variants/shape'
import { wiring } from './wiring/shape'
import { zones } from './zones/shape'

/**
 * Every section of the document, in the order of the file. What each does stands in its section.ts and in index.ts; a shape that has
 * no such line there does not compile.
 */
export const SHAPES = [
  details, practice, kinds, checks, zones, spaces, shares, wiring, splices, variants, readings, repairs, leavings, photos, drawer, tickets,
] as const

export type AnyShape = typeof SHAPES[number]
export type SectionName = AnyShape['name']
export type ShapeOf<N extends SectionName> = Extract<AnyShape, { name: N }>
/** What a refusal may call a thing. */
export type Thing = AnyShape['things'][number]

type GrowingShape = Extract<AnyShape, { grows: object }>
/** The fields of the document that only grow. */
export type GrowingList = GrowingShape['grows']['list']

/** The sections that only grow, in the order of the file. */
export const GROWING = SHAPES.flatMap(shape => shape.grows ? [shape.grows] : [])

/** Something for each list that only grows. */
export function byList<T>(of: (list: GrowingList) => T): Record<GrowingList, T> {
  return Object.fromEntries(GROWING.map(({ list }) => [list, of(list)])) as Record<GrowingList, T>
}
