import { isRemoval, partsOf, type Edit } from './edits'

/**
 * How large a job may be: as much as a file carries (core/format/plainMatch.ts), with room for what is taken back. Counted where edits are
 * applied, so that what edits make always goes out as a file and comes in again: 12,000 readings with long notes made one of 28 MB, which
 * nothing took.
 */
export const MOST_BYTES = 16_000_000

/** UTF-8 bytes of a text, told from above: what is not ASCII counts three for each unit. */
export const bytesOfText = (text: string): number => text.length + 2 * (text.match(/[^\u0000-\u007F]/g)?.length ?? 0) // eslint-disable-line no-control-regex

const bytesOf = (data: unknown): number => bytesOfText(JSON.stringify(data))

/** Taking an edit in asks three times: to measure, to refuse, to add up. */
const counted = new WeakMap<Edit, number>()
/** So many bytes may an edit add to a job, at most: what it says, less what it says of that which it takes away. */
export function bytesAddedBy(edit: Edit): number {
  const known = counted.get(edit)
  if (known !== undefined) return known
  const added = Math.max(0, partsOf(edit).reduce((sum, part) => sum + (isRemoval(part) ? (part.was === null ? 0 : -bytesOf(part.was)) : bytesOf(part)), 0))
  counted.set(edit, added)
  return added
}
