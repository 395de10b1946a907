import { details } from './details/section'
import { kinds } from './kinds/section'
import { practice } from './practice/section'
import { readings } from './readings/section'
import { repairs } from './repairs/section'
import { spaces } from './spaces/section'
import { variants } from './variants/section'
import { wiring } from './wiring/section'
import { zones } from './zones/section'

/** Every section of the document. Its schema stands in ../schema.ts, its edits in ../edits.ts. */
export const SECTIONS = [details, practice, kinds, zones, spaces, wiring, variants, readings, repairs] as const
