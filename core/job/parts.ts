import { partsOf, type Edit, type SimpleEdit } from './edits'
import { ruleOf } from './sections'
import { byList, GROWING, SHAPES, type GrowingList } from './sections/shapes'

/** What an edit touches, for whoever keeps the document and the rows apart. All of it follows from the list of sections. */

/** Of each kind of edit that only adds to rows, which rows. */
const LIST_OF = new Map(SHAPES.flatMap(shape => shape.grows ? shape.edits.map(edit => [edit.shape.kind.value as string, shape.grows] as const) : []))

/** The parts of an edit that change the document; those that only add to rows are left out. */
export function documentParts(edit: Edit): SimpleEdit[] {
  return partsOf(edit).filter(part => !LIST_OF.has(part.kind))
}

/** An entry that an edit adds, or the id of the one that it withdraws. */
function entryIn(part: SimpleEdit): { list: GrowingList, id: string, entry: Record<string, unknown> | null } | null {
  const growing = LIST_OF.get(part.kind)
  if (!growing) return null
  const fields = part as unknown as Record<string, unknown>
  const entry = fields[growing.add] as Record<string, unknown> | undefined
  return { list: growing.list, id: String(entry ? entry.id : fields[growing.withdraw]), entry: entry ?? null }
}

/** Ids of every entry that taking these edits in needs to know of: named by them, or perhaps met by their new ids. */
export function mentionedIds(edits: readonly Edit[]): string[] {
  return [...new Set(edits.flatMap(edit => partsOf(edit).flatMap((part) => {
    const entry = entryIn(part)
    return entry ? [entry.id] : ruleOf(part).makes(part)
  })))]
}

/** Ids of entries that these edits say were wrong, by list. */
export function correctedIds(edits: readonly Edit[]): Record<GrowingList, string[]> {
  const ids = byList((): string[] => [])
  for (const part of edits.flatMap(partsOf)) {
    const found = entryIn(part)
    const corrects = GROWING.find(g => g.list === found?.list)?.corrects
    const id = corrects ? found!.entry?.[corrects] : null
    if (typeof id === 'string') ids[found!.list].push(id)
  }
  return ids
}

/** Ids of the entries that an edit adds or changes, by list and in order. */
export function touchedRows(edit: Edit): Record<GrowingList, string[]> {
  const ids = byList((): string[] => [])
  for (const part of partsOf(edit)) {
    const found = entryIn(part)
    if (found) ids[found.list].push(found.id)
  }
  return ids
}
