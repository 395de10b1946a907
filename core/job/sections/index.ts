import { checks } from './checks/section'
import { details } from './details/section'
import { drawer } from './drawer/section'
import { kinds } from './kinds/section'
import { leavings } from './leavings/section'
import { photos } from './photos/section'
import { practice } from './practice/section'
import { readings } from './readings/section'
import { repairs } from './repairs/section'
import type { SimpleEdit } from '../edits'
import type { EditRule, Section } from './section'
import type { SectionName } from './shapes'
import { shares } from './shares/section'
import { spaces } from './spaces/section'
import { splices } from './splices/section'
import { tickets } from './tickets/section'
import { variants } from './variants/section'
import { wiring } from './wiring/section'
import { zones } from './zones/section'

/** What each section does, by the name of its shape. */
const BY_NAME: { [N in SectionName]: Section<N> } = {
  details, practice, kinds, checks, zones, spaces, shares, wiring, splices, variants, readings, repairs, leavings, photos, drawer, tickets,
}

/** Every section, as whoever goes over all of them sees it. */
export const SECTIONS = Object.values(BY_NAME) as readonly Section<SectionName>[]

/** A rule as whoever has any edit before them asks it: of the edit of its own kind. */
type AnyRule = EditRule<SimpleEdit, SimpleEdit>
const RULES: { [K in SimpleEdit['kind']]: AnyRule } = Object.assign({}, ...SECTIONS.map(section => section.edits))

export const EDIT_KINDS = Object.keys(RULES) as SimpleEdit['kind'][]

/** The rule of a kind of edit. */
export const ruleOf = ({ kind }: Pick<SimpleEdit, 'kind'>): AnyRule => RULES[kind]
