import type { SheetMaker } from '../sheet'
import { cuts, schedule, tags } from './cables'
import { rack } from './rack'
import { record } from './record'
import { runSheet } from './runSheet'
import { walk } from './walk'

/** Every sheet, in the order of the work. */
export const SHEETS: readonly SheetMaker[] = [runSheet, rack, schedule, cuts, tags, walk, record]
