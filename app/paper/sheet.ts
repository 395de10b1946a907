import type { LineEvaluation } from '#core/line/evaluate'
import type { LineProof } from '#core/check/proof'
import type { WalkOrder } from '#core/check/walkOrder'
import type { Job } from '#core/job/schema'
import type { Units } from '#core/quantity/units'

/** What a sheet of paper says: tables of words, made of the same data as the screen; how it looks stands in PaperSheet.vue. Black on white carries all. */

export interface Column {
  says: string
  /** Stands in figures, to the right. */
  isFigure?: true
  /** Left free, to be written in by hand. */
  isWritten?: true
  /** Takes what room there is. */
  isWide?: true
}
export interface SheetRow {
  cells: readonly string[]
  /** How deep it hangs behind others on its rail; null where there is no rail. */
  depth?: number
}
export interface SheetTable {
  caption: string
  /** Under the caption: what holds for all of it. */
  says: string
  columns: readonly Column[]
  rows: readonly SheetRow[]
  /** A rail is drawn down its left. */
  isRail?: true
}
/** A tag to be cut out. */
export interface PaperTag { code: string, lines: readonly string[] }

export interface Sheet {
  id: SheetId
  title: string
  /** Before anything of it is done. */
  before: readonly string[]
  tables: readonly SheetTable[]
  tags: readonly PaperTag[]
  /** Where it is empty: why. */
  empty: string
  /** What the sheet is told apart by when it comes back; '' where it does not. */
  code: string
}

export const SHEET_IDS = ['run', 'rack', 'schedule', 'cuts', 'tags', 'walk', 'record'] as const
export type SheetId = typeof SHEET_IDS[number]

/** What all sheets are made of. */
export interface PaperData {
  job: Job
  lines: readonly LineEvaluation[]
  proofs: ReadonlyMap<string, LineProof>
  units: Units
  order: WalkOrder
  /** Whose a reading is. */
  nameOf: (who: string | null) => string
}

export interface SheetMaker {
  id: SheetId
  title: string
  /** One line about it, where it is chosen. */
  says: string
  make: (data: PaperData) => Omit<Sheet, 'id' | 'title'>
}

export const NOTHING: Omit<Sheet, 'id' | 'title'> = { before: [], tables: [], tags: [], empty: '', code: '' }
/** What nobody knows is said, not left blank: a blank on paper is read as nothing. */
export const NOT_KNOWN = 'not known'
